<script setup lang="ts">
/** One rung of the first start: what is isolated, a large clock, what must show by when, and STOP. */
import { computed, ref, watch } from 'vue'
import { v7 } from 'uuid'
import { Refusal, type RunBenchView, sentence } from '@/api/client'
import StripChart from '@/drawings/StripChart.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import { useAttempt } from '@/composables/attempt'
import { useGauges } from '@/composables/gauges'
import { pressedTwice, useKeys } from '@/composables/keys'
import { SENSES, useSamples } from '@/composables/samples'
import { emptied } from '@/composables/server'
import { minutesSeconds } from '@/composables/time'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'
import BenchFrame from './BenchFrame.vue'
import RunSheet from './RunSheet.vue'
import StepWords from './StepWords.vue'

const props = defineProps<{ bench: RunBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const sheet = ref<InstanceType<typeof RunSheet> | null>(null)
const isolated = ref<string[]>([])
const session = useSession()
const oilField = ref<HTMLInputElement | null>(null)
const problem = ref('')
const cause = ref('')
const change = ref('')

const { running, clock, resting, stop, since, readAgain, left } = useAttempt(() => props.bench)
const { typed, state, sample } = useSamples(() => props.bench, clock, problem)
useGauges(() => props.bench)
const question = computed(() => running.value?.asked.at(0) ?? null)
const atOnce = computed(() => props.bench.isolate_at_once && props.bench.isolated_by === session.who)
const last = computed(() => props.bench.attempts.at(-1) ?? null)
const needsCause = computed(
  () => last.value !== null && last.value.ended && last.value.stop !== null && !last.value.cause,
)
const passed = computed(() => props.bench.attempts.some((a) => a.passed))
const allIsolated = computed(() => props.bench.isolate.every((what) => isolated.value.includes(what)))

watch(
  () => [props.bench.base.step, props.bench.attempts.length],
  () => {
    isolated.value = []
    problem.value = ''
  },
)

const HELD: Record<string, string | undefined> = {
  shut: 'This rung is shut',
  look_first: 'Stop and look first',
  rest: 'Let the starter rest',
}
async function start() {
  if (passed.value) return frame.value?.done()
  problem.value = ''
  const entry = {
    kind: 'attempt started' as const,
    step: props.bench.base.step,
    attempt: v7(),
    isolated: isolated.value,
  }
  try {
    await book.write(entry)
  } catch (error) {
    const held = error instanceof Refusal ? HELD[error.problem.reason_code] : undefined
    if (held) {
      const reason = await frame.value?.ask({
        title: held,
        why: `${sentence(error)}. An attempt at a shut rung opens nothing and stays marked.`,
        button: 'Log this attempt all the same',
        keys: props.bench.gate_keys,
        least: 10,
      })
      if (reason) await book.act({ ...entry, attempt: v7(), reason })
    } else problem.value = sentence(error)
  }
}
async function end(reason: string, pass: boolean) {
  if (!running.value) return
  await book.act({
    kind: 'attempt ended',
    step: props.bench.base.step,
    attempt: running.value.id,
    after_s: Number(clock.value.toFixed(1)),
    reason,
    passed: pass,
  })
}
async function keyOff() {
  if (pressedTwice()) return
  await off()
}
async function off() {
  if (!running.value) return
  if (stop.value) return end(stop.value, false)
  const enough = running.value.expected_seen && clock.value >= running.value.least_s
  await end(enough ? `seen: ${props.bench.expect}` : 'ended before what was expected showed', enough)
}
async function explain() {
  if (!last.value || !cause.value.trim() || !change.value.trim()) return
  const empty = emptied(cause, change)
  const taken = await book.handed({
    kind: 'attempt ended',
    step: props.bench.base.step,
    attempt: last.value.id,
    after_s: last.value.after_s ?? 0,
    reason: last.value.end_reason ?? 'stopped',
    cause: cause.value.trim(),
    change: change.value.trim(),
  })
  if (taken) empty()
}
/** Nothing here has a digit: digits are the figure on the gauge. */
function digit(key: string) {
  typed.oil += key
  oilField.value?.focus()
}
const DIGITS = Object.fromEntries([...'0123456789.'].map((key) => [key, () => digit(key)]))
useKeys(
  (): Record<string, () => unknown> =>
    running.value
      ? {
          ' ': off,
          Enter: off,
          PageDown: off,
          PageUp: off,
          o: () => sample({ lamp_out: true }),
          ...(sheet.value?.keys() ?? {}),
          ...Object.fromEntries(SENSES.map(([seen, , key]) => [key.toLowerCase(), () => sample({ seen })])),
          ...DIGITS,
        }
      : atOnce.value
        ? { a: () => (isolated.value = [...props.bench.isolate]) }
        : {},
  () => running.value !== null,
)
</script>

<template>
  <div class="run" :class="{ stopped: stop }">
    <BenchFrame
      ref="frame"
      :bench="bench"
      :title="
        running
          ? stop
            ? 'STOP'
            : `Attempt ${running.number}: ${bench.rung_name.toLowerCase()}`
          : bench.base.title
      "
      :line="running ? (stop ?? running.expected) : undefined"
      :ready="passed || (allIsolated && !needsCause && !bench.cooling)"
      :primary="passed ? `${bench.base.title}: done` : bench.primary"
      :no-primary="running !== null"
      attempt
      :under-way="running !== null"
      :alarm="stop !== null"
      @primary="start"
    >
      <template #work>
        <div v-if="running" class="going">
          <p v-if="stop" class="sr" role="alert">STOP. {{ stop }}</p>
          <div class="senses">
            <button
              v-for="[code, word, key] in SENSES"
              :key="code"
              type="button"
              class="btn"
              @click="sample({ seen: code })"
            >
              {{ word }}<kbd>{{ key }}</kbd></button
            ><button type="button" class="btn" @click="sample({ lamp_out: true })">
              Lamp out<kbd>O</kbd>
            </button>
          </div>
          <div v-if="question" class="block" role="alert">
            <p>
              <b>{{ question.question }}</b> Type it with its unit, or
            </p>
            <button type="button" class="btn small" @click="sample({ oil: question.typed, as_typed: true })">
              It is right as typed: {{ question.typed }}
            </button>
          </div>
          <p v-else-if="readAgain && !stop" class="block" role="alert">
            <b>Read the {{ readAgain.what.replace(', read again', '') }} again</b>, within
            {{ Math.ceil(readAgain.at_s - clock) }} s
          </p>
          <form class="samples" @submit.prevent="sample()">
            <label class="field"
              ><span>oil, {{ bench.gauge_unit }}</span
              ><input
                ref="oilField"
                v-model="typed.oil"
                class="entry"
                inputmode="decimal"
                name="oil" /></label
            ><label class="field"
              ><span>revs, r/min</span
              ><input v-model="typed.rpm" class="entry" inputmode="decimal" name="rpm" /></label
            ><label class="field"
              ><span>coolant, °C</span
              ><input v-model="typed.coolant" class="entry" inputmode="decimal" name="coolant" /></label
            ><label class="field"
              ><span>timing, °</span><input v-model="typed.timing" class="entry" name="timing" /></label
            ><button type="submit" class="btn small">Entered</button>
            <div
              v-if="typed.timing"
              class="vacuum"
              role="group"
              aria-label="Vacuum while the timing was read"
            >
              <button
                v-for="v in ['vacuum off', 'vacuum connected']"
                :key="v"
                type="button"
                class="btn small"
                :aria-pressed="state.vacuum === v"
                @click="state.vacuum = state.vacuum === v ? '' : v"
              >
                {{ v }}
              </button>
            </div>
          </form>
          <RunSheet
            ref="sheet"
            :attempt="running"
            :step="bench.base.step"
            :clock="clock"
            :noises="bench.noises"
            :clips="bench.base.clips"
          />
          <p v-for="w in running.words" :key="w" class="t20">{{ w }}</p>
          <StripChart
            v-if="running.tracks.length"
            :tracks="running.tracks as InstanceType<typeof StripChart>['$props']['tracks']"
            :limit="running.limit_s"
            :now="clock"
          />
          <p v-if="running.isolated.length"><b>Isolated:</b> {{ running.isolated.join(', ') }}</p>
          <p v-if="bench.watch.length"><b>Watch:</b> {{ bench.watch.join(', ') }}</p>
          <div v-if="stop" class="suspects">
            <h2 class="t20">Then look first at</h2>
            <ol>
              <li v-for="s in bench.suspects" :key="s">{{ s }}</li>
            </ol>
            <p v-if="bench.still_runs"><b>If it still runs:</b> {{ bench.still_runs }}</p>
          </div>
        </div>
        <template v-else>
          <StepWords :bench="bench" />
          <p class="t20"><b>Expected:</b> {{ bench.expect }}</p>
          <div v-if="bench.isolate.length" class="isolate">
            <h2 class="t20">Isolated, seen now</h2>
            <button
              v-if="atOnce && !allIsolated"
              type="button"
              class="btn"
              @click="isolated = [...bench.isolate]"
            >
              Still isolated, all seen now: {{ bench.isolate.join(', ') }}<kbd>A</kbd>
            </button>
            <p v-else-if="bench.attempts.length && !allIsolated" class="t16 mut">
              Thing by thing: something was touched since, it is another person, or more than five minutes
              ago.
            </p>
            <el-checkbox
              v-for="what in bench.isolate"
              :key="what"
              :model-value="isolated.includes(what)"
              :label="what"
              @change="(on) => (isolated = on ? [...isolated, what] : isolated.filter((w) => w !== what))"
            />
          </div>
          <div v-if="bench.gate.shut" class="block">
            <p class="b">{{ bench.rung_name }} is shut: {{ bench.gate.reasons.length }} to clear</p>
            <p>
              {{ bench.gate.reasons.slice(0, 4).join('; ')
              }}<template v-if="bench.gate.reasons.length > 4">
                and {{ bench.gate.reasons.length - 4 }} more</template
              >
            </p>
            <RouterLink class="btn small" :to="{ name: 'gate', params: { build: book.card?.id ?? '' } }"
              >To the gates</RouterLink
            >
          </div>
          <p v-else class="t20">
            <VerdictMark :verdict="bench.gate.limited ? 'too_close' : 'inside'" :size="8" />
            {{ bench.rung_name }}: {{ bench.gate.limit ?? bench.gate.answer }}
          </p>
          <p v-if="bench.total_s" class="t16">
            Cranked without pressure so far: {{ bench.cranked_s.toFixed(0) }} of {{ bench.total_s }} s
          </p>
          <div v-if="bench.cooling" class="block" role="status">
            <p class="t20">
              <b>Let it cool: {{ bench.cooling.why }}.</b>
              {{
                bench.cooling.left_s > 0
                  ? `${Math.ceil(bench.cooling.left_s / 60)} min of ${bench.cooling.stands_s / 60} are left`
                  : 'It has stood its time'
              }}<span class="assumed"> assumed</span>. Never cold water into it.
            </p>
            <button
              type="button"
              class="btn small"
              @click="book.act({ kind: 'confirmed', step: bench.base.step, what: bench.cooling?.box ?? '' })"
            >
              {{ bench.cooling.box }}
            </button>
          </div>
          <p v-if="resting > 0 && bench.rest" class="quiet t20" role="status">
            The starter rests: {{ Math.ceil(resting) }} s left of {{ bench.rest.rest_s }} s<span
              v-if="bench.rest.assumed"
              class="assumed"
            >
              assumed</span
            >
          </p>
          <form v-if="needsCause" class="block cause" @submit.prevent="explain">
            <p class="b">Attempt {{ last?.number }} was stopped: {{ last?.stop }}</p>
            <label class="field"
              ><span>What was it?</span><input v-model="cause" class="entry" name="cause" /></label
            ><label class="field"
              ><span>What was changed?</span><input v-model="change" class="entry" name="change" /></label
            ><button type="submit" class="btn small">Written</button>
          </form>
          <RunSheet
            v-if="last?.ended"
            :attempt="last"
            :step="bench.base.step"
            :clock="null"
            :noises="bench.noises"
            :clips="bench.base.clips"
          />
          <table v-if="bench.attempts.length">
            <thead>
              <tr>
                <th>attempt</th>
                <th>key off after</th>
                <th>result</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="a in bench.attempts" :key="a.id">
                <td class="b">{{ a.number }}</td>
                <td>{{ a.after_s?.toFixed(1) }} s</td>
                <td>
                  {{ a.against_gate ? 'gate was shut. ' : ''
                  }}{{ a.passed ? 'passed' : (a.stop ?? a.end_reason) }}
                </td>
              </tr>
            </tbody>
          </table>
          <RouterLink class="btn small" :to="{ name: 'leaks', params: { build: book.card?.id ?? '' } }"
            >Fluids and leaks</RouterLink
          >
          <RouterLink class="btn small" :to="{ name: 'faults', params: { build: book.card?.id ?? '' } }"
            >Something is wrong</RouterLink
          >
          <RouterLink class="btn small" :to="{ name: 'rehearsal' }">Rehearse it first</RouterLink>
          <p class="t16 mut">The vehicle maker's manual, local codes and licensed practice go first.</p>
        </template>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      </template>
      <template #figure>
        <template v-if="running">
          <p class="t20 spread">
            <span>{{ stop ? 'Since the key was due off' : 'Running' }}</span><span>{{
              stop ? '' : left <= 15 ? '' : `${Math.ceil(left)} s left`
            }}</span>
          </p>
          <p class="clock" :class="{ outside: stop }">
            {{ stop ? (clock - since).toFixed(1) : minutesSeconds(clock) }}
          </p>
          <p v-if="!stop && left <= 15" class="off">Off in {{ Math.ceil(left) }}</p>
          <p v-if="!stop && clock < running.least_s" class="t16">It passes from {{ running.least_s }} s on</p>
          <p v-if="running?.pressure_by != null && !stop" class="t24">
            Oil pressure by {{ running.pressure_by }} s
          </p>
          <button type="button" class="stop" @click="keyOff">
            {{ stop ? 'Key is off' : 'STOP'
            }}<small>{{ stop ? 'then press here' : 'Key off, then press here' }}</small
            ><kbd>Space or either pedal</kbd>
          </button>
        </template>
        <template v-else>
          <p class="t20">{{ passed ? 'Passed' : 'At most' }}</p>
          <p class="limit">
            {{ bench.limit_s === null ? '–' : bench.limit_s < 90 ? bench.limit_s : bench.limit_s / 60
            }}<span>{{ bench.limit_s !== null && bench.limit_s >= 90 ? 'min' : 's' }}</span>
          </p>
          <p v-if="bench.assumed" class="assumed">a figure here is assumed</p>
        </template>
      </template>
    </BenchFrame>
  </div>
</template>

<style scoped>
.run {
  min-height: 100%;
}
.stopped {
  background: var(--outw);
  margin: -10px -20px;
  padding: 10px 20px;
  border-left: 12px solid var(--out);
}
.going {
  display: grid;
  gap: 10px;
}
.senses {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 8px;
}
.senses .btn {
  flex-wrap: wrap;
  padding: 6px;
  font-size: 18px;
}
.vacuum {
  display: flex;
  gap: 8px;
  grid-column: 1 / -1;
}
.samples {
  display: grid;
  grid-template-columns: repeat(4, 1fr) auto;
  gap: 8px;
  align-items: end;
}
.clock {
  font-size: min(120px, 9vw);
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 1;
}
.limit {
  font-size: 132px;
  font-weight: 850;
  line-height: 1;
  letter-spacing: -0.03em;
}
.limit span {
  font-size: 36px;
  margin-left: 8px;
  letter-spacing: 0;
}
.off {
  font-size: 36px;
  font-weight: 800;
}
.spread {
  display: flex;
  justify-content: space-between;
}
.stop {
  width: 100%;
  min-height: 280px;
  background: var(--ink);
  color: var(--now);
  border: 0;
  border-radius: 3px;
  font-size: 96px;
  font-weight: 850;
  line-height: 1;
  cursor: pointer;
  margin-top: 10px;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 14px;
}
.stopped .stop {
  background: var(--yel);
  color: var(--onyel);
  font-size: 56px;
  border: 3px solid var(--yeledge);
}
.stop small {
  font-size: 24px;
  font-weight: 650;
}
.isolate {
  display: grid;
  margin: 8px 0;
}
.suspects li {
  list-style: decimal inside;
}
.cause {
  display: grid;
  gap: 8px;
  margin: 8px 0;
}
@media (max-width: 959px) {
  .senses {
    grid-template-columns: repeat(4, 1fr);
  }
  .samples {
    grid-template-columns: 1fr 1fr;
  }
  .stop {
    min-height: 180px;
    font-size: 72px;
  }
}
@media (max-width: 600px) {
  /* in reach of a thumb, whatever stands above it and however far it is scrolled */
  .stop,
  .stopped .stop {
    position: fixed;
    left: 12px;
    right: 12px;
    bottom: 44px;
    width: auto;
    min-height: 100px;
    margin: 0;
    gap: 4px;
    font-size: 44px;
    z-index: 20;
  }
  .stop small {
    font-size: 18px;
  }
  .stop kbd {
    display: none;
  }
  .going {
    padding-bottom: 160px;
  }
}
</style>
