<script setup lang="ts">
/**
 * Readings typed as mechanics write them, judged by the core, drawn with their uncertainty; then a decision.
 */
import { computed, ref, watch } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import ReadingMap from '@/drawings/maps/ReadingMap.vue'
import ResultLanes from '@/drawings/ResultLanes.vue'
import ResultTiles from '@/drawings/ResultTiles.vue'
import ConcessionDialog from '@/shell/ConcessionDialog.vue'
import { useChoices } from '@/composables/choices'
import { useKeys } from '@/composables/keys'
import { useReadings } from '@/composables/readings'
import { capital } from '@/words'
import { useBook } from '@/stores/book'
import BenchFrame from './BenchFrame.vue'
import ChoiceFigure from './ChoiceFigure.vue'
import ChoiceWork from './ChoiceWork.vue'
import ReadingFiles from './ReadingFiles.vue'
import ResultDecision from './ResultDecision.vue'
import SettingsTable from './SettingsTable.vue'
import SentBlock from './SentBlock.vue'
import StepWords from './StepWords.vue'
import TypeIn from './TypeIn.vue'

const props = defineProps<{ bench: MeasureBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const conceding = ref<InstanceType<typeof ConcessionDialog> | null>(null)
const files = ref<InstanceType<typeof ReadingFiles> | null>(null)
const entry = ref<HTMLInputElement | null>(null)
const typing = ref(false)
const chosen = ref<string | null>(null)
const {
  readings,
  reading,
  tools,
  tool,
  toolPicked,
  text,
  repeats,
  taken,
  sitting,
  figure,
  question,
  problem,
  pick,
  move,
  again,
  begin,
  another,
  write,
  instrument,
} = useReadings(() => props.bench, entry)

const limits = computed(() => [
  ...new Map(
    props.bench.results.map((r) => [
      r.limit.id,
      { ...r.limit, asks: r.asks, given: r.limit.lo !== null || r.limit.hi !== null },
    ]),
  ).values(),
])
const open = computed(() => props.bench.results.filter((r) => r.asks_decision && !r.conceded))
/** A pressed result; else what the newest reading belongs to; else what is open. */
const result = computed(
  () =>
    props.bench.results.find((r) => r.id === chosen.value) ??
    props.bench.results.find((r) => r.id === props.bench.large) ??
    open.value[0] ??
    null,
)
const choices = useChoices(
  () => props.bench,
  () => !!reading.value,
)
const asks = computed(() =>
  reading.value
    ? `${reading.value.name}${reading.value.place ? `, ${reading.value.place}` : ''}`
    : props.bench.base.title,
)
/** What the large button does: takes what was chosen, or calls the step done. */
const press = computed(
  () =>
    choices.press ?? {
      name: undefined,
      ready: props.bench.base.lacking === null,
      act: () => frame.value?.done(),
    },
)
// worn lifting gear is replaced, whatever the reason
const never = computed(() => result.value?.may_concede === false)
const deciding = computed(() => result.value?.asks_decision === true)
/**
 * Digits are a reading; they decide only while the question "What now?" is open, and only a letter opens it.
 */
const asking = ref(false)

watch(
  () => props.bench.base.step,
  () => {
    typing.value = false
  },
)
watch(
  () => [props.bench.base.step, reading.value?.id],
  () => {
    chosen.value = null
    asking.value = false
  },
)
const judged = (limit: string) => props.bench.results.find((r) => r.limit.id === limit)?.judgement
function lanes(limit: string) {
  return props.bench.results
    .filter((r) => r.limit.id === limit)
    .map((r) => ({
      id: r.id,
      name: r.name,
      value: r.judgement.value,
      U: r.judgement.U,
      text: r.judgement.value_text,
      verdict: r.judgement.verdict,
      side: r.judgement.side,
      accepted: r.conceded,
      words:
        r.refusal ?? (r.conceded ? 'accepted in writing' : r.judgement.words.replace(' with this tool', '')),
    }))
}
async function decide(choice: 'measure_again' | 'rework' | 'replace') {
  if (!result.value) return
  asking.value = false
  const target = result.value
  await book.act({ kind: 'disposition', step: props.bench.base.step, result: target.id, choice })
  const once =
    choice === 'measure_again'
      ? target.readings.map((id) => props.bench.readings.find((r) => r.entry === id)?.id).find(Boolean)
      : undefined
  if (once) pick(once)
}
function accept() {
  asking.value = false
  if (result.value && !never.value) conceding.value?.ask(result.value)
}
useKeys(() => ({
  ArrowRight: () => move(1),
  ArrowLeft: () => move(-1),
  w: () => {
    typing.value = !typing.value
  },
  p: () => files.value?.print(),
  ...(choices.keys
    ? {
        k: () => {
          choices.form = !choices.form
        },
        e: choices.turn,
      }
    : {}),
  Enter: () => entry.value?.focus(),
  ...(deciding.value
    ? {
        a: () => {
          asking.value = !asking.value
        },
      }
    : {}),
  ...(asking.value
    ? {
        Escape: () => {
          asking.value = false
        },
        1: () => decide('measure_again'),
        2: () => decide('rework'),
        3: () => decide('replace'),
        4: () => accept(),
      }
    : reading.value
      ? Object.fromEntries([...'0123456789.-'].map((digit) => [digit, () => begin(digit)]))
      : {}),
}))
</script>

<template>
  <BenchFrame
    ref="frame"
    :bench="bench"
    :title="choices.title ?? asks"
    :line="choices.pack?.line"
    :primary="press.name"
    :ready="press.ready"
    :no-primary="!press.ready"
    @primary="press.act()"
  >
    <template #work>
      <p v-if="reading" class="t20">{{ bench.base.do }}</p>
      <div
        v-for="r in bench.results.filter((r) => r.advice && !bench.base.settled)"
        :key="r.id"
        class="advice"
      >
        <p class="t24 b">{{ capital(r.advice!) }}.</p>
        <button v-if="!reading" type="button" class="btn small" @click="again">Read all again</button>
      </div>
      <ChoiceWork
        v-if="choices.open"
        :bench="bench"
        :choices="choices"
        @form="choices.form = $event"
        @total="choices.total = $event"
      />
      <TypeIn v-else-if="typing" :bench="bench" @close="typing = false" />
      <ReadingMap
        v-else-if="bench.draw"
        :draw="bench.draw"
        :readings="readings"
        :at="reading?.id ?? null"
        :title="bench.base.title"
        @pick="pick"
      />
      <SettingsTable v-if="!choices.open" :rows="bench.settings" />
      <template v-if="!choices.open">
        <div v-for="(limit, k) in limits" :key="limit.id" class="limit">
          <h2>
            <b class="t20">{{ limit.name }}</b> <span v-if="limit.given">{{ limit.asks }}</span> {{ ' '
            }}<span class="t16">{{ limit.condition }}</span> {{ ' '
            }}<RouterLink
              v-if="!limit.given"
              class="assumed"
              :to="{ name: 'limits', params: { build: book.card?.id ?? '' }, query: { figure: limit.id } }"
              >no figure yet: put it in</RouterLink
            ><span v-else-if="!limit.source" class="assumed t16">assumed</span
            ><span v-else class="t16 mut">{{ limit.source }}</span>
          </h2>
          <div v-if="k === 0" class="scroll" tabindex="0" role="region" :aria-label="limit.name">
            <ResultLanes
              :lanes="lanes(limit.id)"
              :lo="judged(limit.id)?.lo ?? null"
              :hi="judged(limit.id)?.hi ?? null"
              :target="judged(limit.id)?.target ?? null"
              :lo-text="limit.lo ?? ''"
              :hi-text="limit.hi ?? ''"
              :assumed="!limit.source"
              :chosen="result?.id ?? null"
              @choose="chosen = $event"
            />
          </div>
          <ResultTiles
            v-else
            :lanes="lanes(limit.id)"
            :lo="judged(limit.id)?.lo ?? null"
            :hi="judged(limit.id)?.hi ?? null"
            :target="judged(limit.id)?.target ?? null"
            :assumed="!limit.source"
            :chosen="result?.id ?? null"
            @choose="chosen = $event"
          />
        </div>
      </template>
      <ReadingFiles
        v-if="!choices.open"
        ref="files"
        :build="book.card?.id ?? ''"
        :step="bench.base.step"
        @type="typing = true"
      />
      <StepWords :bench="bench" :quiet="!!reading" />
    </template>
    <template #figure>
      <ChoiceFigure v-if="choices.open" :choices="choices" />
      <form v-else-if="reading && !typing" class="enter" @submit.prevent="write()">
        <label class="field"
          ><span>{{ reading.name }}</span>
          <span class="withunit"
            ><input
              ref="entry"
              v-model="text"
              class="entry big"
              inputmode="text"
              autocomplete="off"
              name="reading"
              :aria-invalid="figure ? !figure.ok && !!text : undefined"
              aria-describedby="figure"
            /><b v-if="tool" class="t28">{{ tool.unit }}</b></span
          ></label
        >
        <p id="figure" class="says" aria-live="polite">
          <template v-if="text && figure?.ok"
            ><span class="t16"
              >{{ figure.words ? `${figure.words}:` : 'is' }} {{ figure.exact ? 'exactly' : 'about' }}</span
            >
            {{ ' ' }}<b class="t24">{{ figure.value }} {{ figure.unit }}</b></template
          ><span v-else-if="text && figure" class="problem">{{ figure.words }}</span>
        </p>
        <p v-if="reading.hint" class="t16">{{ reading.hint }}</p>
        <p v-if="reading.by_leaves" class="t16">
          two leaves: the one that goes in, then the next that does not, such as 0.35 0.40
        </p>
        <p v-if="reading.datum" class="t16">from: {{ reading.datum }}</p>
        <button
          v-if="bench.asked_state"
          type="button"
          class="btn small state"
          :aria-pressed="sitting === bench.asked_state"
          @click="sitting = sitting ? '' : (bench.asked_state ?? '')"
        >
          <i aria-hidden="true">{{ sitting ? '✓' : '' }}</i><span>all read {{ bench.asked_state }}</span>
        </button>
        <label class="field"
          ><span>in which state{{ sitting ? ', else as said' : '' }}</span
          ><input
            v-model="taken"
            class="entry statefield"
            name="state"
            maxlength="80"
            autocomplete="off"
            :placeholder="sitting || 'not said'"
        /></label>
        <p v-if="reading.ask_again" class="too_close t16 b">
          Read it a second time: there is no going back after it.
        </p>
        <p v-if="repeats.length" class="t16">before: {{ repeats.join(', ') }}</p>
        <div v-if="question" class="block" role="alert">
          <p class="b">{{ question }}</p>
          <button type="button" class="btn small" @click="write(true)">It is right, write it</button>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <label class="field"
          ><span>with</span
          ><select
            class="entry"
            :value="tool?.id"
            @change="toolPicked[reading!.tool_kind] = ($event.target as HTMLSelectElement).value"
          >
            <option v-for="t in tools" :key="t.id" :value="t.id">
              {{ t.code }} {{ t.U_text }} {{ t.kind }}
            </option>
          </select></label
        >
        <p v-if="tool" class="t16" :class="tool.can ? 'mut' : 'problem'">
          {{ tool.words }}{{ tool.setting ? `, set on ${tool.setting}` : '' }}
        </p>
        <p v-else class="problem">No {{ reading.tool_kind }} in the shop: add one under Tools.</p>
        <SentBlock
          v-if="tool?.sends"
          :device="instrument.device.value"
          :hold="instrument.hold.value"
          :asked="instrument.asked.value"
          :stray="instrument.stray.value"
          :problem="instrument.problem.value"
          :code="tool.code"
          @take="instrument.taken"
          @drop="instrument.drop"
        />
        <div class="two">
          <button type="button" class="btn small" @click="another">And again</button
          ><button type="submit" class="btn small">Write it <kbd>Enter</kbd></button>
        </div>
      </form>
      <ResultDecision
        v-if="result?.judged && !choices.press"
        :result="result"
        :deciding="deciding"
        :never="never"
        :keys="asking"
        @ask="asking = !asking"
        :rework="bench.rework"
        :replace="bench.replace"
        @decide="decide"
        @accept="accept"
      />
      <ol v-if="!bench.draw" class="readings">
        <li v-for="r in readings" :key="r.id">
          <button type="button" :class="{ now: r.id === reading?.id }" @click="pick(r.id)">
            <span>{{ r.name }}</span><b>{{ r.value_text || '–' }}</b>
          </button>
          <p v-if="r.moves" class="too_close t16">{{ r.moves }}</p>
        </li>
      </ol>
    </template>
    <template v-if="choices.keys" #second>
      <button v-if="choices.keys.form" type="button" class="btn small" @click="choices.form = !choices.form">
        {{ choices.keys.form }} <kbd>K</kbd>
      </button>
      <button type="button" class="btn small" @click="choices.turn">
        {{ choices.keys.other }} <kbd>E</kbd>
      </button>
    </template>
  </BenchFrame>
  <ConcessionDialog ref="conceding" :step="bench.base.step" />
</template>

<style scoped>
h2 {
  position: relative;
  z-index: 1;
}
.scroll {
  overflow-x: auto;
}
.advice {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  border-left: 8px solid var(--ink);
  padding-left: 12px;
}
.advice .btn {
  flex: none;
}
.limit {
  margin: 4px 0 10px;
}
.limit h2 {
  font-weight: 460;
  font-size: 18px;
}
.enter {
  display: grid;
  gap: 6px;
}
.withunit {
  display: flex;
  gap: 8px;
  align-items: center;
}
.withunit input {
  flex: 1;
  min-width: 0;
}
.state {
  display: flex;
  gap: 8px;
  justify-content: flex-start;
  text-align: left;
}
.state i {
  width: 22px;
  height: 22px;
  border: 2px solid currentcolor;
  flex: none;
  font-style: normal;
  line-height: 18px;
  text-align: center;
  font-weight: 800;
}
.says {
  min-height: 34px;
  line-height: 1.2;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1.2fr;
  gap: 8px;
  white-space: nowrap;
}
.statefield {
  min-height: 44px;
  font-size: 16px;
}
.readings {
  margin: 10px 0;
  columns: 2;
  column-gap: 8px;
}
.readings button {
  width: 100%;
  display: flex;
  justify-content: space-between;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  min-height: 44px;
  align-items: center;
  cursor: pointer;
  padding: 0 4px;
}
.readings button {
  white-space: nowrap;
  gap: 4px;
}
.readings span {
  overflow: hidden;
  text-overflow: ellipsis;
  font-size: 16px;
}
.readings li {
  break-inside: avoid;
}
.readings .now {
  background: var(--yel);
  color: var(--onyel);
  outline: 2px solid var(--yeledge);
  outline-offset: -2px;
}
</style>
