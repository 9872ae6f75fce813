<script setup lang="ts">
/** What was done about a leak, with the pressure off; how much turn is left in the joint. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { emptied, useServer } from '@/composables/server'
import MetalPattern from '@/drawings/MetalPattern.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{ place: Schemas['LeakPlace'] }>()
const book = useBook()
const { problem, asks, served } = useServer()
const turn = ref('')
const words = ref('')
const WIDE = 240
const used = computed(() => (props.place.most ? Math.min(props.place.used / props.place.most, 1.3) : 0))
const id = `turn${Math.random().toString(36).slice(2)}`
async function done(how: Schemas['LeakMendedAct']['how'], sure = false) {
  const own = { how, turn: how === 'nipped' ? turn.value.trim() : '', words: words.value.trim(), sure }
  const empty = emptied(turn, words)
  const kept = await served(() => book.write({ kind: 'leak mended', place: props.place.id, ...own }))
  if (kept !== undefined) empty()
}
</script>

<template>
  <div class="mend">
    <p v-if="place.most" class="turn">
      <b>Turn left in it</b>
      <svg :width="WIDE + 80" height="26" :viewBox="`0 -2 ${WIDE + 80} 26`" aria-hidden="true">
        <defs><MetalPattern :id="id" /></defs>
        <rect x="0" y="0" :width="WIDE" height="22" fill="var(--slot)" />
        <rect :x="WIDE" y="0" width="80" height="22" :fill="`url(#${id})`" />
        <path :d="`M${WIDE} -2 V24`" stroke="var(--ink)" stroke-width="4" />
        <circle :cx="used * WIDE" cy="11" r="8" fill="var(--ink)" />
      </svg>
      <span>{{ place.used }}° of {{ place.most }}°, then {{ place.then }}</span>
    </p>
    <p v-else class="t16">{{ place.sort }}: {{ place.then }}</p>
    <div class="two">
      <label v-if="place.may_nip && place.most" class="field"
        ><span>turned by, in degrees</span
        ><input v-model="turn" class="entry short" name="mend-turn" inputmode="decimal" autocomplete="off"
      /></label>
      <button v-if="place.may_nip" type="button" class="btn small" @click="done('nipped')">Nipped up</button>
      <button type="button" class="btn small" @click="done('apart')">Apart and made anew</button>
      <button type="button" class="btn small" @click="done('part')">Another part in</button>
      <button type="button" class="btn small" @click="done('wiped')">Only wiped dry</button>
      <button v-if="asks" type="button" class="btn small" @click="done('nipped', true)">
        It was nipped up all the same
      </button>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.mend {
  display: grid;
  gap: 6px;
}
.turn {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  font-size: 18px;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.short {
  width: 130px;
}
</style>
