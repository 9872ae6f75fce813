<script setup lang="ts">
/** The run sheet: what is told by one key each while the hand is on the throttle, and afterwards. */
import { computed, ref } from 'vue'
import type { ClipView, RunBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import ClipButton from '@/shell/ClipButton.vue'
import ClipRow from '@/shell/ClipRow.vue'
import { useBook } from '@/stores/book'

type Attempt = RunBenchView['attempts'][number]
type Row = Attempt['told'][number]
const props = defineProps<{
  attempt: Attempt
  step: string
  clock: number | null
  noises: RunBenchView['noises']
  clips: readonly ClipView[]
}>()
const book = useBook()
const { problem, served } = useServer()
const heard = ref(false)
const rhythm = ref<RunBenchView['noises'][number]['rhythm'] | null>(null)
const places = computed(() => props.noises.find((n) => n.rhythm === rhythm.value)?.places ?? [])
const bad = computed(() => props.attempt.told.filter((row) => row.leads.length))
/** What a letter tells while it runs: the row, its word, and how the key is called. */
const QUICK: [Row['about'], string, string, string][] = [
  ['idle', 'steady', 'I', 'Idle steady'],
  ['idle', 'hunts', 'H', 'Idle hunts'],
  ['response', 'at once', 'A', 'Answers'],
  ['response', 'spits back', 'S', 'Spits'],
  ['response', 'pings', 'P', 'Pings'],
  ['blow', 'puffs at a joint', 'B', 'Puffs'],
]
const told = (row: Row, word: string) => row.word === word || row.word.startsWith(`${word}:`)
const pressed = (about: string, word: string) =>
  props.attempt.told.some((row) => row.about === about && told(row, word))

async function tell(about: Row['about'], word: string, more: { place?: string } = {}) {
  if (word === 'heard' && !rhythm.value) {
    heard.value = true
    return
  }
  const noise = word === 'heard' ? { rhythm: rhythm.value, ...more } : {}
  const told = { attempt: props.attempt.id, about: about as 'idle', word, t: seconds(), ...noise }
  await served(() => book.write({ kind: 'run told', step: props.step, ...told }))
  if (problem.value) return
  heard.value = false
  rhythm.value = null
}
const clip = ref<InstanceType<typeof ClipButton> | null>(null)
const mine = computed(() => props.clips.filter((c) => c.attempt === props.attempt.id))
const begun = ref<number | null>(null) // the second of the run at which the clip in hand begins
const seconds = () => (props.clock === null ? null : Number(props.clock.toFixed(1)))
const filmed = (tape: Blob, length: number) =>
  book.act(
    {
      kind: 'clip',
      clip: '0'.repeat(64),
      seconds: length,
      what: `attempt ${props.attempt.number}`,
      step: props.step,
      attempt: props.attempt.id,
      at_s: begun.value,
    },
    tape,
  )
defineExpose({
  /** The letters of the run sheet. */
  keys: () =>
    Object.fromEntries([
      ...QUICK.map(([about, word, key]) => [key.toLowerCase(), () => tell(about, word)]),
      ['c', () => clip.value?.press()],
    ]),
})
</script>

<template>
  <section class="sheet" aria-label="Run sheet">
    <div v-if="clock !== null" class="quick" role="group" aria-label="Told by one key">
      <button
        v-for="[about, word, key, name] in QUICK"
        :key="key"
        type="button"
        class="btn small"
        :aria-pressed="pressed(about, word)"
        @click="tell(about, word)"
      >
        {{ name }}<kbd>{{ key }}</kbd></button
      ><ClipButton ref="clip" cap="C" :keep="filmed" @begun="begun = seconds()" />
    </div>
    <component :is="clock === null ? 'div' : 'details'">
      <summary v-if="clock !== null">The whole run sheet: noise, smoke, pipes</summary>
      <div v-for="row in attempt.told" :key="row.about" class="line" role="group" :aria-label="row.name">
        <b
          >{{ row.name
          }}<small v-if="row.word" :class="row.stops ? 'outside' : ''">
            {{ row.word }}{{ row.t === null ? '' : `, ${row.t.toFixed(0)} s` }}</small
          ></b
        >
        <span class="words">
          <button
            v-for="word in row.choices"
            :key="word"
            type="button"
            class="btn small"
            :aria-pressed="told(row, word)"
            @click="tell(row.about, word)"
          >
            {{ word }}
          </button>
        </span>
        <span v-if="row.about === 'noise' && heard" class="words noise" role="group" aria-label="Which noise">
          <span class="t16">its rhythm, then where</span>
          <button
            v-for="{ rhythm: r } in noises"
            :key="r"
            type="button"
            class="btn small"
            :aria-pressed="rhythm === r"
            @click="rhythm = r"
          >
            {{ r }}
          </button>
          <template v-if="rhythm">
            <button
              v-for="place in places"
              :key="place"
              type="button"
              class="btn small"
              @click="tell('noise', 'heard', { place })"
            >
              {{ place }}
            </button>
            <button type="button" class="btn small" @click="tell('noise', 'heard')">place not known</button>
          </template>
        </span>
      </div>
    </component>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <ClipRow v-if="mine.length && clock === null" :clips="mine" />
    <div v-for="row in bad" :key="`l${row.about}`" class="block">
      <p class="b">{{ row.name }}, {{ row.word }}: usually one of these</p>
      <ul>
        <li v-for="lead in row.leads" :key="lead">{{ lead }}</li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.sheet {
  border-top: 1px solid var(--hair);
}
.line {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr);
  gap: 4px 10px;
  align-items: center;
  border-bottom: 1px solid var(--hair);
  padding: 4px 0;
}
.line small {
  display: block;
  font-weight: 600;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.quick {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 6px;
  padding: 6px 0;
}
.quick .btn {
  padding: 4px 2px;
  font-size: 16px;
  gap: 5px;
}
.noise {
  grid-column: 2;
}
summary {
  min-height: 36px;
  cursor: pointer;
}
@media (max-width: 700px) {
  .quick {
    grid-template-columns: repeat(3, 1fr);
  }
  .line {
    grid-template-columns: 1fr;
  }
  .noise {
    grid-column: 1;
  }
}
</style>
