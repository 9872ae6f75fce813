<script setup lang="ts">
/**
 * One bolt at a time: the figure to set is the largest thing, the joint is drawn, the next bolt is yellow.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { type TightenBenchView } from '@/api/client'
import BoltPattern from '@/drawings/BoltPattern.vue'
import LimitBar from '@/drawings/LimitBar.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import WrenchSketch from '@/drawings/WrenchSketch.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { useKeys } from '@/composables/keys'
import { useBook } from '@/stores/book'
import { useBoltActs, useBolts } from '@/composables/bolts'
import { usePulls } from '@/composables/pulls'
import BenchFrame from './BenchFrame.vue'
import BoltCount from './BoltCount.vue'
import CardBack from './CardBack.vue'
import FastenerCard from './FastenerCard.vue'
import SeatingBlock from './SeatingBlock.vue'
import SignBlock from './SignBlock.vue'
import GroupBlock from './GroupBlock.vue'
import SentBlock from './SentBlock.vue'
import ThreadBlock from './ThreadBlock.vue'
import TraceBlock from './TraceBlock.vue'
import { useServer } from '@/composables/server'
import { capital } from '@/words'

const props = defineProps<{ bench: TightenBenchView }>()
const book = useBook()
const router = useRouter()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const paper = ref<InstanceType<typeof CardBack> | null>(null)
const other = ref(false)
const otherBolt = ref(1)
const otherStage = ref(1)
const typed = ref('')
const free = ref('') // how long the bolt was before it was drawn
const { problem, asks: odd, served } = useServer()
const tools = ref(false)
const wrench = ref('')
const adapter = ref('')
const angle = ref('0')
const asked = ref<number | null>(null)
const turned = ref(false)
const checking = ref(false)

const { joint, setting, kept, next, stage, indicating, blocked, needsWrench, ready, title, say } = useBolts(
  () => props.bench,
)
const acts = useBoltActs(
  () => props.bench,
  { next, stage },
  () => frame.value,
)
const line = computed(() => {
  return `${joint.value.name}, ${joint.value.progress}. ${props.bench.fastener}`
})
const reach = computed(() => {
  const length = joint.value.adapter?.length
  if (!length) return ''
  const said = length.typed ?? length.value
  return length.typed && length.typed !== length.value ? said : `${said} ${length.unit}`
})
const figure = computed(() => setting.value?.figure ?? '')
const size = computed(() => {
  if (setting.value?.feels || figure.value.length > 5) return 'felt'
  return figure.value.length <= 3 ? 'huge' : 'large'
})
const of = computed(() => joint.value.bolts[(asked.value ?? 1) - 1])
const toDo = computed(() => {
  if (setting.value?.feels) return ''
  if (setting.value?.turns) return ': turn by'
  if (setting.value?.reads_off) return props.bench.before ? ': longer by' : ': till it reads'
  return props.bench.reads ? ': pull to' : ': set the wrench to'
})
const outside = computed(() => joint.value.outside.map((n) => joint.value.bolts[n - 1]))
const sides = computed(() => props.bench.sides as [string, string] | null)
const pulls = usePulls(() => props.bench)
const { live, pull, trace } = pulls
const drawn = ref(false) // the trace is looked at, though nothing is pulled
const broken = computed(() => joint.value.bolts.find((b) => b.broken && b.todo) ?? null)
const gone = computed(() => (broken.value?.todo === 'out' ? broken.value : null))
const traced = computed(() => !!trace.value && (!!live.value || drawn.value || !!gone.value))
const bolted = computed(() => trace.value?.last_bolt ?? null)
const heading = computed(() => {
  if (live.value?.out) return `Bolt ${next.value} ${live.value.words}. Stop pulling`
  if (live.value) return `Bolt ${next.value}: pull on, ${live.value.turned.toFixed(0)}°`
  if (gone.value) return `Bolt ${gone.value.number} ${gone.value.words.replace('outside, ', '')}`
  return props.bench.group ? props.bench.group.title : capital(title.value)
})
/** What puts a broken bolt right next: it comes out, then a fresh one goes in. */
async function putRight(bolt: { number: number }) {
  await acts.act(bolt.number, gone.value ? { act: 'state', tightness: 'out' } : { act: 'fresh' })
}
const rights = computed(() => {
  if (!broken.value) return undefined
  return gone.value ? `Bolt ${broken.value.number} is out` : 'A fresh one is in'
})
/** The number of a bolt of this joint, asked for; nothing where none was said. */
async function askBolt(question: string, why: string) {
  const said = await frame.value?.ask({ title: question, button: 'It was this one', least: 1, why })
  const bolt = Number(said)
  return said && Number.isInteger(bolt) && bolt >= 1 && bolt <= joint.value.bolts.length ? bolt : null
}
/** The pull was another bolt's: which one. */
async function notThis() {
  const why = 'Its number. The pull goes to that bolt, and the line of this one is struck.'
  const bolt = await askBolt(`It was not bolt ${bolted.value}`, why)
  if (bolt) await pulls.toBolt(bolt, `it was bolt ${bolt}, not ${bolted.value}`)
}
async function whose() {
  const bolt = await askBolt('Whose pull was it?', 'The number of the bolt that was pulled.')
  if (bolt) await pulls.whose(bolt)
}
async function click() {
  problem.value = ''
  if (broken.value) return putRight(broken.value)
  if (joint.value.final) return frame.value?.done()
  await acts.confirm()
}
function askOther(bolt: number | null = next.value, at: number | null = stage.value, more = false) {
  if (bolt === null || props.bench.base.waits.length) return
  asked.value = null
  turned.value = more
  otherBolt.value = bolt
  otherStage.value = at ?? joint.value.bolts[bolt - 1].stage
  typed.value = free.value = problem.value = ''
  odd.value = false
  other.value = true
}
const angles = computed(() => joint.value.stages[(otherStage.value || 1) - 1]?.turns)
const otherTitle = computed(() => {
  if (turned.value) return `Bolt ${otherBolt.value}: how much more was it turned?`
  if (angles.value) return `Bolt ${otherBolt.value}: how far was it turned?`
  if (props.bench.before) return `Bolt ${otherBolt.value}: how long was it, and how long is it?`
  return indicating.value
    ? `Bolt ${otherBolt.value}: what did it read?`
    : `Bolt ${otherBolt.value}: where did the wrench stand?`
})
async function writeOther(asTyped = false) {
  if (!typed.value.trim()) return
  const act = indicating.value || angles.value ? ('read' as const) : ('clicked' as const)
  await served(async () => {
    const entry = {
      kind: 'fastener' as const,
      step: props.bench.base.step,
      bolt: otherBolt.value,
      act,
      stage: otherStage.value || 1,
      typed: typed.value.trim(),
      free: props.bench.before ? free.value.trim() : null,
      more: turned.value,
      as_typed: asTyped,
    }
    await book.write(entry)
    other.value = false
  })
}
async function again(bolt: number) {
  asked.value = null
  if (indicating.value) return askOther(bolt, joint.value.bolts[bolt - 1].stage)
  await acts.again(bolt)
}
async function checkAgain(moved: boolean) {
  checking.value = false
  await acts.checkAgain(moved)
}
function askCheck() {
  if (joint.value.last_bolt !== null && !indicating.value) checking.value = true
}
/** One press in the list of what may be done to a bolt closes it. */
function chosen(press: (bolt: number) => Promise<unknown>) {
  const bolt = asked.value
  asked.value = null
  return bolt === null ? null : press(bolt)
}
function askWrench() {
  wrench.value = joint.value.wrench?.id ?? props.bench.wrenches.find((w) => w.usable)?.id ?? ''
  const { length, angle: turn } = joint.value.adapter ?? {}
  adapter.value = length ? (length.typed ?? `${length.value} ${length.unit}`) : ''
  angle.value = turn ? (turn.typed ?? turn.value) : '0'
  problem.value = ''
  tools.value = true
}
async function takeWrench(reason: string | null = null) {
  const length = adapter.value.trim()
  const taken = await served(async () => {
    await book.write({
      kind: 'decision',
      step: props.bench.base.step,
      about: 'wrench',
      wrench: wrench.value,
      adapter: length ? { length, angle: angle.value.trim() || '0' } : null,
      reason,
    })
    return true
  })
  tools.value = !taken // refused, it is said there, with what was chosen
}
async function goOn() {
  const reason = await frame.value?.ask({
    title: 'Go on with this wrench',
    button: 'Go on',
    least: 10,
    why: `${props.bench.wide}.`,
  })
  if (!reason) return
  askWrench()
  tools.value = false
  await takeWrench(reason)
}
const debts = () => router.push({ name: 'debts', params: { build: book.card?.id ?? '' } })
useKeys(() => ({
  e: () => askOther(),
  w: askWrench,
  c: askCheck,
  i: debts,
  p: () => paper.value?.print(),
  ...(trace.value
    ? {
        x: () => {
          drawn.value = !drawn.value
        },
        k: notThis,
      }
    : {}),
}))
</script>

<template>
  <BenchFrame
    ref="frame"
    :bench="bench"
    :title="heading"
    :line="line"
    :primary="rights"
    :ready="!live && (ready || !!broken)"
    :grave="!!(live?.out || gone)"
    :no-primary="!!live || (!broken && (blocked || indicating))"
    :say="say"
    tight
    @primary="click"
  >
    <template #work>
      <p v-for="d in bench.doubts" :key="d" class="block b">{{ d }}</p>
      <SignBlock v-if="bench.sign.unheard" :bench="bench" />
      <GroupBlock v-if="bench.group" :group="bench.group" :step="bench.base.step" />
      <ol v-if="!traced" class="ladder">
        <li
          v-for="s in joint.stages"
          :key="s.number"
          :class="{ done: s.done === joint.bolts.length, now: s.number === stage }"
        >
          <b>{{ s.turns ? '+' : '' }}{{ s.figure }}{{ s.turns ? '°' : '' }}</b
          ><span>stage {{ s.number }}</span
          ><small>{{
            s.done === joint.bolts.length
              ? 'done'
              : s.number === stage
                ? `${s.done} of ${joint.bolts.length}`
                : ''
          }}</small>
        </li>
      </ol>
      <TraceBlock v-if="traced && trace" :trace="trace" :pull="pull" />
      <BoltPattern
        v-else-if="!bench.group || joint.bolts.length > 2"
        :bolts="joint.bolts"
        :stage-count="joint.stages.length"
        :stage-now="stage"
        :next="next"
        :layout="bench.layout"
        :sides="sides"
        @press="asked = $event"
      />
      <ol class="sr">
        <li v-for="b in joint.bolts" :key="b.number">
          Bolt {{ b.number }}, {{ b.tightness }}{{ b.gets ? `, ${b.gets}, ${b.words}` : ''
          }}{{ b.marked ? ', marked' : '' }}
        </li>
      </ol>
      <div class="under">
        <WrenchSketch
          v-if="joint.wrench && setting?.turns === false && setting.set_to !== null"
          :adapter="reach"
          :angle="Number(joint.adapter?.angle.value ?? 0)"
          :grip="Number(joint.wrench.grip_mm ?? 0)"
          :sum="setting.working[0] ?? ''"
          :mark="setting.working.length > 2 ? setting.working[1] : ''"
        />
        <button
          v-for="bolt in outside.slice(0, 1)"
          :key="bolt.number"
          type="button"
          class="block right"
          @click="asked = bolt.number"
        >
          <VerdictMark :verdict="bolt.verdict" :side="bolt.side" :size="9" />
          <span
            ><b class="t20">Put bolt {{ bolt.number }} right: {{ bolt.words.replace('outside, ', '') }}</b
            ><small
              >{{ outside.length > 1 ? `${outside.length - 1} more after it. ` : ''
              }}{{
                bolt.stage < joint.stages.length
                  ? `Stage ${bolt.stage + 1} waits for it.`
                  : 'The joint waits for it.'
              }}</small
            ></span
          >
        </button>
      </div>
      <FastenerCard :bench="bench" />
      <ThreadBlock :bench="bench" />
      <SignBlock v-if="!bench.sign.unheard" :bench="bench" />
      <SeatingBlock v-if="bench.seating" :bench="bench" :seating="bench.seating" />
      <CardBack ref="paper" :bench="bench" />
      <button type="button" class="btn small" @click="debts">Bolts not yet final <kbd>I</kbd></button>
      <BoltCount v-if="!joint.counted" :joint="joint" />
      <div v-if="joint.condition" class="quiet condition">
        <p>
          <b>{{ joint.proves ? 'Before the next:' : 'The last stage waits for this:' }}</b>
          {{ joint.condition }}
        </p>
        <button
          type="button"
          class="btn small"
          @click="book.act({ kind: 'confirmed', step: bench.base.step, what: joint.condition })"
        >
          It is so
        </button>
      </div>
      <p v-if="kept.length" class="quiet" role="status">
        <b>Not yet saved: bolt {{ kept.join(', ') }}.</b> They are kept on this device and sent when the
        server answers.
      </p>
      <p v-if="joint.last_bolt !== null && !indicating && !joint.final">
        <button type="button" class="btn small" @click="askCheck">
          Not sure? Check bolt {{ joint.last_bolt }} <kbd>C</kbd>
        </button>
      </p>
      <p class="t16">
        Final is: {{ joint.final_words }}.
        <span v-if="joint.bolts.some((b) => b.recheck)">Due for recheck, dashed on the drawing.</span>
      </p>
      <p class="t16 mut">{{ bench.base.do }}</p>
    </template>
    <template #figure>
      <template v-if="live">
        <p class="t20">
          Bolt {{ next }} {{ setting?.turns ? `turned, of ${figure}°` : `got, of ${figure} N·m` }}
        </p>
        <p class="hero large" :class="{ outside: live.out }">
          {{ (setting?.turns ? live.turned : live.torque).toFixed(0)
          }}<span>{{ setting?.turns ? '°' : 'N·m' }}</span>
        </p>
      </template>
      <template v-else-if="setting">
        <p class="t20">Bolt {{ next }}{{ toDo }}</p>
        <p class="hero" :class="size">
          {{ figure }}<span>{{ setting.unit }}</span>
        </p>
        <template v-if="setting.judgement">
          <p class="t28">Bolt gets {{ setting.judgement.value_text }}</p>
          <p>
            asked {{ setting.judgement.target_text }}, limits
            <span :class="{ assumed: joint.tolerance_assumed }"
              >±{{ joint.tolerance }} %{{ joint.tolerance_assumed ? ' assumed' : '' }}</span
            >
          </p>
          <LimitBar
            :bar="setting.judgement"
            :verdict="setting.judgement.verdict"
            :side="setting.judgement.side"
            :assumed="setting.judgement.assumed"
            :lo-text="setting.judgement.lo_text"
            :hi-text="setting.judgement.hi_text"
            :words="setting.judgement.words"
          />
          <WorkingLines :lines="setting.working" />
        </template>
        <p v-if="setting.refusal" class="block">{{ setting.refusal }}</p>
        <p v-if="setting.note" class="t20">{{ setting.note }}</p>
        <div v-if="bench.wide" class="block">
          <p class="b">{{ bench.wide }}: another wrench, or go on with a reason.</p>
          <button type="button" class="btn small" @click="goOn">Go on with a reason</button>
        </div>
      </template>
      <p v-else-if="joint.to_mark" class="t24">
        All at the last stage. Paint a stroke over bolt {{ next }} and the head.
      </p>
      <p v-else-if="joint.to_lock" class="t24">
        All at the last stage. Set the lock of bolt {{ next }}: {{ joint.to_lock }}.
      </p>
      <p v-else-if="joint.final" class="t24">
        Every bolt is final{{ joint.bolts.some((b) => b.marked) ? ' and marked' : '' }}.
      </p>
      <p v-else class="t24">{{ capital(joint.waits ?? '') }}</p>
      <SentBlock
        v-if="trace"
        :device="pulls.device.value"
        :hold="pulls.hold.value"
        :asked="pulls.asked.value"
        :stray="pulls.stray.value"
        :problem="pulls.problem.value"
        :code="joint.wrench?.code ?? ''"
        @take="pulls.taken"
        @drop="pulls.drop"
      />
      <button v-if="pulls.troubled.value" type="button" class="btn small" @click="whose">
        Say which bolt
      </button>
      <p v-if="trace" class="two">
        <button type="button" class="btn small" :aria-pressed="drawn" @click="drawn = !drawn">
          Its trace <kbd>X</kbd></button
        ><button v-if="bolted !== null && !live" type="button" class="btn small" @click="notThis">
          Not bolt {{ bolted }} <kbd>K</kbd>
        </button>
      </p>
      <p v-if="gone" class="t16">
        <b>Put right:</b> {{ joint.put_right[joint.outside.indexOf(gone.number)] }}
      </p>
    </template>
    <template #second>
      <button type="button" class="btn second" @click="askOther()">
        {{ indicating ? 'It read' : 'Other figure' }}<kbd>E</kbd>
      </button>
      <button type="button" class="btn second" @click="askWrench">
        {{ joint.wrench ? joint.wrench.code : 'Choose a' }} {{ setting?.reads_off ? 'tool' : 'wrench'
        }}<kbd>W</kbd>
      </button>
    </template>
  </BenchFrame>
  <el-dialog v-model="other" :title="otherTitle" width="640" append-to-body>
    <form @submit.prevent="writeOther()">
      <label v-if="bench.before" class="field"
        ><span>length while it was free, before it was drawn</span
        ><input v-model="free" class="entry" autofocus inputmode="decimal" name="free" autocomplete="off"
      /></label>
      <label class="field"
        ><span>{{ bench.before ? 'length now, drawn' : `stage ${otherStage}, with or without unit` }}</span
        ><input
          v-model="typed"
          class="entry big"
          :autofocus="!bench.before"
          inputmode="decimal"
          name="other"
          autocomplete="off"
          @input="odd = false"
      /></label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="two">
        <button type="submit" class="btn">Write it</button
        ><button v-if="odd" type="button" class="btn" @click="writeOther(true)">
          It is right as typed: {{ typed }}
        </button>
      </div>
    </form>
  </el-dialog>
  <el-dialog
    v-model="tools"
    :title="setting?.reads_off ? 'Read with which?' : 'Which wrench, which adapter?'"
    width="640"
    append-to-body
  >
    <form class="wrenches" @submit.prevent="takeWrench()">
      <label v-for="w in bench.wrenches" :key="w.id" class="wrench"
        ><input v-model="wrench" type="radio" name="wrench" :value="w.id" /><span
          ><b>{{ w.code }}</b> {{ w.name
          }}<small>{{ w.words }}{{ w.holds ? '' : ', wider than the joint asks' }}</small></span
        ></label
      >
      <div v-if="!setting?.reads_off" class="two">
        <label class="field"
          ><span>adapter, drive to bolt, in mm or with its unit (empty for none)</span
          ><input v-model="adapter" class="entry" name="adapter" /></label
        ><label class="field"
          ><span>angle: 0 straight out, 90 square</span
          ><input v-model="angle" class="entry" inputmode="decimal" name="angle"
        /></label>
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button type="submit" class="btn" :disabled="!wrench">Take this one</button>
    </form>
  </el-dialog>
  <el-dialog
    v-model="checking"
    :title="`Bolt ${joint.last_bolt ?? ''}: pull it once more at the same setting`"
    width="640"
    append-to-body
  >
    <div class="two">
      <button type="button" class="btn" @click="checkAgain(false)">It clicked without moving</button
      ><button type="button" class="btn" @click="checkAgain(true)">It moved, then clicked</button>
    </div>
  </el-dialog>
  <el-dialog
    :model-value="asked !== null"
    :title="`Bolt ${asked ?? ''}`"
    width="640"
    append-to-body
    @close="asked = null"
  >
    <p
      v-if="
        asked &&
        asked !== next &&
        stage &&
        joint.bolts[asked - 1].stage === stage - 1 &&
        !needsWrench &&
        !indicating &&
        !blocked
      "
    >
      <button type="button" class="btn" @click="chosen((bolt) => acts.outOfOrder(bolt))">
        It was pulled now, before bolt {{ next }}
      </button>
    </p>
    <p v-if="asked" class="t20">
      {{ joint.bolts[asked - 1].tightness
      }}{{ joint.bolts[asked - 1].words ? `, ${joint.bolts[asked - 1].words}` : '' }}
    </p>
    <template v-if="asked && joint.outside.includes(asked)">
      <p class="quiet">{{ joint.put_right[joint.outside.indexOf(asked)] }}</p>
      <div class="two">
        <button
          v-if="of.todo === 'loosen'"
          type="button"
          class="btn"
          @click="chosen((bolt) => acts.state(bolt, 'loosened again'))"
        >
          It is loose again
        </button>
        <button
          v-else-if="of.todo === 'out'"
          type="button"
          class="btn"
          @click="chosen((bolt) => acts.act(bolt, { act: 'state', tightness: 'out' }))"
        >
          It is out
        </button>
        <button
          v-else-if="of.todo === 'fresh'"
          type="button"
          class="btn"
          @click="chosen((bolt) => acts.act(bolt, { act: 'fresh' }))"
        >
          A fresh one is in its place
        </button>
        <template v-else-if="of.todo === 'more'"
          ><button
            type="button"
            class="btn"
            @click="
              chosen((bolt) =>
                acts.act(bolt, { act: 'clicked', stage: of.stage, more: true, note: 'turned on' }),
              )
            "
          >
            Turned {{ of.more }}° more</button
          ><button type="button" class="btn" @click="askOther(asked, of.stage, true)">
            Turned another angle
          </button></template
        >
        <button v-else type="button" class="btn" @click="again(asked)">Pulled again</button>
        <button type="button" class="btn" @click="chosen((bolt) => acts.passOver(bolt))">
          Leave it, with a reason
        </button>
      </div>
      <p class="t16 mut" style="margin-top: 12px">or its state is</p>
    </template>
    <div v-if="asked" class="choices">
      <button
        v-for="word in ['by hand', 'snug', 'cinched', 'out'] as const"
        :key="word"
        type="button"
        class="btn"
        @click="chosen((bolt) => acts.state(bolt, word))"
      >
        {{ word }}</button><button
        type="button"
        class="btn"
        @click="chosen((bolt) => acts.state(bolt, 'loosened again'))"
      >
        loosened again</button
      ><button type="button" class="btn" @click="chosen((bolt) => acts.leaveEmpty(bolt))">
        left empty for a later part
      </button>
    </div>
  </el-dialog>
</template>

<style scoped>
.ladder {
  display: flex;
  gap: 6px;
  margin-bottom: 6px;
}
.ladder li {
  flex: 1;
  border: 1px solid var(--hair);
  border-bottom: 8px solid var(--hair);
  padding: 3px 8px;
  display: flex;
  align-items: baseline;
  gap: 6px;
  min-height: 46px;
  white-space: nowrap;
  font-size: 16px;
}
.ladder li b {
  font-size: 22px;
  font-weight: 780;
}
.ladder small {
  margin-left: auto;
  font-size: 16px;
}
.ladder .done {
  border-bottom-color: var(--ink);
}
.ladder .now {
  border: 3px solid var(--ink);
  border-bottom: 8px solid var(--yel);
  padding: 1px 6px;
  flex: 1.5;
}
.under {
  display: flex;
  gap: 14px;
  align-items: flex-start;
  flex-wrap: wrap;
}
.right {
  flex: 1;
  min-width: 300px;
  display: flex;
  gap: 12px;
  align-items: center;
  text-align: left;
  border: 0;
  border-left: 8px solid var(--out);
  min-height: 92px;
  cursor: pointer;
}
.right small {
  display: block;
  font-size: 16px;
}
.two {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  margin-top: 8px;
}
.two > * {
  flex: 1;
}
.hero {
  font-weight: 850;
  letter-spacing: -0.035em;
  line-height: 0.95;
  margin: 4px 0 8px;
  white-space: nowrap;
}
.huge {
  font-size: 192px;
}
.felt {
  font-size: 48px;
  white-space: normal;
}
.large {
  font-size: 132px;
}
.hero span {
  font-size: 36px;
  font-weight: 780;
  letter-spacing: 0;
  margin-left: 8px;
}
.huge:has(span) {
  font-size: clamp(132px, 14vw, 192px);
}
.wrenches {
  display: grid;
  gap: 10px;
}
.wrench {
  display: flex;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--hair);
  min-height: 52px;
  cursor: pointer;
}
.wrench input {
  width: 26px;
  height: 26px;
  accent-color: var(--ink);
}
.wrench small {
  display: block;
  font-size: 16px;
}
.choices {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
  margin-top: 12px;
}
</style>
