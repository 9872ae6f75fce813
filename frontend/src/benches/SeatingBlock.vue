<script setup lang="ts">
/** The nuts of a wheel: how they sit, how the wheel is made, what centres it. Looked at before they pull. */
import { ref } from 'vue'
import type { Schemas, TightenBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

type Seat = Schemas['SeatingSaidAct']['nut']
type Seating = NonNullable<TightenBenchView['seating']>
const props = defineProps<{ bench: TightenBenchView; seating: Seating }>()
const book = useBook()
const { problem, served } = useServer()
const open = ref(false)
const nut = ref<Seat | ''>('')
const wheel = ref<Seat | ''>('')
const centred = ref<'nuts' | 'hub' | ''>('')

async function say() {
  const [sits, made, by] = [nut.value, wheel.value, centred.value]
  if (!sits || !made || !by) return
  const step = props.bench.base.step
  await served(() => book.write({ kind: 'seating said', step, nut: sits, wheel: made, centred: by }))
  if (!problem.value) open.value = false
}
</script>

<template>
  <section v-if="!bench.base.settled || seating.wrong" class="seating" aria-label="Nut and wheel">
    <p v-if="seating.wrong" class="block b" role="alert">{{ seating.wrong }}.</p>
    <p v-if="!open" class="t16">
      {{
        seating.words ? capital(seating.words) : 'Nobody has looked whether nut and wheel belong together'
      }}.
      <button type="button" class="plain" @click="open = true">Say it</button>
    </p>
    <form v-else @submit.prevent="say">
      <label class="field"
        ><span>the nut or bolt sits on</span
        ><select v-model="nut" class="entry" name="seat-nut">
          <option v-for="(name, id) in seating.seats" :key="id" :value="id">{{ name }}</option>
        </select></label
      >
      <label class="field"
        ><span>the hole of the wheel is made for</span
        ><select v-model="wheel" class="entry" name="seat-wheel">
          <option v-for="(name, id) in seating.seats" :key="id" :value="id">{{ name }}</option>
        </select></label
      >
      <label class="field"
        ><span>the wheel is centred by</span
        ><select v-model="centred" class="entry" name="seat-centred">
          <option value="hub">its hub, or a ring on it</option>
          <option value="nuts">its nuts</option>
        </select></label
      >
      <button type="submit" class="btn small" :disabled="!nut || !wheel || !centred">It is so</button>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </form>
  </section>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.plain {
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-decoration: underline;
  min-height: 44px;
  cursor: pointer;
}
</style>
