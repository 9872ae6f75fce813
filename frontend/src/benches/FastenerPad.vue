<script setup lang="ts">
/** Sizes by touch, counts by number keys, the bolts drawn to scale. */
import { computed } from 'vue'
import type { BagLine } from '@/api/client'
import type { Hand } from '@/composables/fasteners'
import FastenerScale from '@/drawings/FastenerScale.vue'

const props = defineProps<{ hand: Hand; recent: readonly BagLine[]; usual?: boolean }>()
const emit = defineEmits<{ type: [] }>()
const USUAL: BagLine[] = [
  ['M6', '20'],
  ['M8', '25'],
  ['M8', '35'],
  ['M10', '40'],
  ['nuts M8', null],
  ['clips', null],
].map(([size, length]) => ({ count: 1, size: size as string, length, holes: null, odd: null }))
const chips = computed(() =>
  [
    ...props.recent,
    ...USUAL.filter((u) => !props.recent.some((r) => r.size === u.size && r.length === u.length)),
  ].slice(0, 7),
)
const name = (l: BagLine) => (l.length ? `${l.size}×${l.length}` : l.size)
const line = computed(() => props.hand.lines.value[props.hand.at.value])
</script>

<template>
  <div class="pad">
    <FastenerScale
      v-if="hand.lines.value.length"
      :lines="hand.lines.value"
      :at="hand.at.value"
      @choose="hand.choose"
    />
    <p v-else class="quiet">Touch a size, then its count.</p>
    <p v-if="usual && hand.lines.value.length" class="quiet">
      <b>As many are usual.</b> Count yours before they go in.
    </p>
    <div v-if="line" class="count">
      <button type="button" class="btn" :aria-label="`one ${name(line)} less`" @click="hand.more(-1)">
        −</button
      ><output class="t28">{{ line.count }}</output
      ><button type="button" class="btn" :aria-label="`one ${name(line)} more`" @click="hand.more(1)">
        +
      </button>
      <span class="t20">{{ name(line) }}</span>
    </div>
    <div v-if="line" class="more">
      <input
        v-model="line.holes"
        class="entry"
        maxlength="40"
        aria-label="holes"
        placeholder="which holes"
      /><input
        v-model="line.odd"
        class="entry"
        maxlength="60"
        aria-label="what is odd about it"
        placeholder="odd: special, washer"
      />
    </div>
    <div class="chips" role="group" aria-label="Sizes">
      <button v-for="c in chips" :key="name(c)" type="button" class="btn small" @click="hand.add(c)">
        {{ name(c) }}</button><button type="button" class="btn small" @click="emit('type')">
        another size
      </button>
    </div>
  </div>
</template>

<style scoped>
.pad {
  display: grid;
  gap: 8px;
  align-content: start;
  min-width: 0;
}
.count {
  display: grid;
  grid-template-columns: 48px 44px 48px minmax(0, 1fr);
  gap: 6px;
  align-items: center;
}
.count output {
  text-align: center;
}
.more {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.more .entry {
  padding: 6px 8px;
  font-size: 16px;
}
.chips .btn {
  padding: 6px 9px;
}
</style>
