<script setup lang="ts">
/** The bag's number, the largest thing on the screen; one line to type in, and where the part lies. */
import { computed, ref } from 'vue'
import type { Hand } from '@/composables/fasteners'

const props = defineProps<{ hand: Hand; places: readonly string[] }>()
const bag = defineModel<number>('bag', { required: true })
const place = defineModel<string>('place', { required: true })
const PLACES = ['on the shelf', 'in the crate', 'hung up on wire', 'on the bench']
const text = computed({ get: () => props.hand.text.value, set: (words: string) => props.hand.type(words) })
const elsewhere = ref(false)
const entry = ref<HTMLInputElement | null>(null)
defineExpose({ type: () => entry.value?.focus() })
</script>

<template>
  <div class="bagfigure">
    <div class="into">
      <div>
        <p class="t20">Into bag</p>
        <p class="number">{{ bag }}</p>
      </div>
      <div class="beside">
        <p class="t24">{{ hand.pieces.value }} {{ hand.pieces.value === 1 ? 'piece' : 'pieces' }}</p>
        <p>mark it {{ bag }} too</p>
        <div class="steps">
          <button type="button" class="btn small" aria-label="bag before" @click="bag = Math.max(1, bag - 1)">
            −</button
          ><button type="button" class="btn small" aria-label="next bag" @click="bag++">+</button>
        </div>
      </div>
    </div>
    <form @submit.prevent="hand.take()">
      <label class="sr" for="bagline">Count, size, length and holes</label
      ><input
        id="bagline"
        ref="entry"
        v-model="text"
        class="entry big line"
        name="bagline"
        autocomplete="off"
        autocapitalize="off"
        maxlength="80"
        placeholder="4 m8x25 p1"
      />
    </form>
    <p class="t16 reads" aria-live="polite">
      <template v-if="hand.reads.value"
        >{{ hand.reads.value.ok ? 'reads as ' : '' }}<b>{{ hand.reads.value.words }}</b></template
      >
    </p>
    <div
      v-if="!elsewhere"
      class="chips lies"
      role="group"
      aria-label="Where the part lies"
      @focusin="($event.target as HTMLElement).scrollIntoView({ block: 'nearest', inline: 'nearest' })"
    >
      <button
        v-for="p in [...new Set([place, ...places, ...PLACES])].filter(Boolean).slice(0, 6)"
        :key="p"
        type="button"
        class="btn small"
        :aria-pressed="place === p"
        @click="place = place === p ? '' : p"
      >
        {{ p }}</button><button type="button" class="btn small" @click="elsewhere = true">elsewhere</button>
    </div>
    <form v-else @submit.prevent="elsewhere = false">
      <input
        v-model="place"
        class="entry"
        maxlength="80"
        name="place"
        aria-label="where the part lies"
        placeholder="where the part lies"
        @blur="elsewhere = false"
      />
    </form>
  </div>
</template>

<style scoped>
.bagfigure {
  display: grid;
  gap: 8px;
}
.into {
  display: flex;
  gap: 16px;
  align-items: flex-end;
}
.number {
  font-size: 132px;
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 0.95;
}
.beside {
  padding-bottom: 4px;
}
.steps {
  display: flex;
  gap: 6px;
  margin-top: 4px;
}
.entry.line {
  font-size: 28px;
  min-height: 60px;
}
.reads {
  min-height: 21px;
}
.lies {
  flex-wrap: nowrap;
  overflow-x: auto;
  scrollbar-width: thin;
}
.chips .btn {
  font-size: 16px;
  padding: 6px 9px;
  flex: none;
}
.bagfigure {
  min-width: 0;
}
</style>
