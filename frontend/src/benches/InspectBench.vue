<script setup lang="ts">
/** Face by face along the way of the oil: what do you see, how much; then what happens to the part. */
import AskLink from '@/shell/AskLink.vue'
import { computed, ref, watch } from 'vue'
import type { InspectBenchView } from '@/api/client'
import DebrisTrace from '@/drawings/DebrisTrace.vue'
import FaceMatrix from '@/drawings/FaceMatrix.vue'
import FindingSketch from '@/drawings/FindingSketch.vue'
import PhotoButton from '@/shell/PhotoButton.vue'
import { useKept } from '@/composables/kept'
import { pressedTwice, useKeys } from '@/composables/keys'
import { useBook } from '@/stores/book'
import AddFaceDialog from './AddFaceDialog.vue'
import BenchFrame from './BenchFrame.vue'
import PartDecision from './PartDecision.vue'
import StepWords from './StepWords.vue'

const SHOWN = 8
const props = defineProps<{ bench: InspectBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const photo = ref<InstanceType<typeof PhotoButton> | null>(null)
const adding = ref<InstanceType<typeof AddFaceDialog> | null>(null)
const picked = ref<[string, string] | null>(null)
const opened = ref<string | null>(null)
const code = ref<string | null>(null)
const grade = ref(2)
const cleaning = ref('wiped')
const confidence = ref('sure')
const method = ref('eye')
const words = ref('')
const cause = ref('')
const more = ref(false)
const last = ref<string | null>(null)

const facts = computed(() => props.bench.inspection)
const cells = computed(() => facts.value.parts.flatMap((p) => p.faces.map((f) => ({ part: p, face: f }))))
const onTheWay = useKept('finding', () => props.bench.base.step)
const kept = computed(() => new Set(onTheWay.value.map((entry) => `${entry.part},${entry.face}`)))
const here = computed(() => {
  const next =
    facts.value.next_part && facts.value.next_face ? [facts.value.next_part, facts.value.next_face] : null
  const free =
    next && kept.value.has(next.join())
      ? (cells.value
          .filter((c) => !c.face.seen && !kept.value.has(`${c.part.id},${c.face.id}`))
          .map((c) => [c.part.id, c.face.id])
          .at(0) ?? null)
      : next
  const at = picked.value ?? free
  return at ? (cells.value.find((c) => c.part.id === at[0] && c.face.id === at[1]) ?? null) : null
})
const codes = computed(() => props.bench.codes.find((c) => c.on === here.value?.face.on)?.codes ?? [])
const shown = computed(() => (more.value ? codes.value : codes.value.slice(0, SHOWN)))
const chosen = computed(() => codes.value.find((c) => c.id === code.value) ?? null)
const part = computed(() => facts.value.parts.find((p) => p.id === opened.value) ?? null)
const needing = computed(() => facts.value.parts.filter((p) => p.needs))
const primary = computed(() =>
  here.value
    ? chosen.value
      ? `Seen: ${chosen.value.name.toLowerCase()}, ${grade.value}, ${cleaning.value}`
      : 'Say what you see'
    : props.bench.primary,
)
const title = computed(() =>
  facts.value.total ? `${facts.value.seen} of ${facts.value.total} faces seen` : props.bench.base.title,
)
const line = computed(() =>
  facts.value.seen < facts.value.total
    ? `${props.bench.base.number}: every verdict is provisional till ${facts.value.total}`
    : needing.value.length
      ? `${props.bench.base.number}: ${needing.value.length} to decide`
      : `${props.bench.base.number}, ${props.bench.base.stage_name}`,
)
const ready = computed(() => (here.value ? chosen.value !== null : props.bench.base.lacking === null))

watch(
  () => props.bench.base.step,
  () => {
    picked.value = null
    opened.value = null
    clear()
  },
)
watch([() => here.value?.part.id, () => here.value?.face.id], () => {
  code.value = null
  more.value = false
})
function clear() {
  code.value = null
  words.value = cause.value = ''
  grade.value = 2
}
function pick(p: string, f: string) {
  picked.value = [p, f]
  opened.value = null
}
/** A second press would call the next face clean, unseen. */
function nothing() {
  if (!pressedTwice()) void seen(true)
}
async function seen(nothing: boolean) {
  const at = here.value
  if (!at || book.busy || (!nothing && !chosen.value)) return
  const taken =
    props.bench.base.photos.filter((p) => p.what === `${at.part.name}, ${at.face.name}`).at(-1)?.photo ?? null
  last.value = at.part.id
  const handed = await book.handed({
    kind: 'finding',
    step: props.bench.base.step,
    part: at.part.id,
    face: at.face.id,
    code: nothing ? null : code.value,
    grade: nothing ? null : grade.value,
    cleaning: cleaning.value as 'wiped',
    confidence: confidence.value as 'sure',
    method: method.value as 'eye',
    words: words.value.trim() || null,
    cause: nothing ? null : cause.value.trim() || null,
    photo: taken,
  })
  if (!handed) return
  clear()
  picked.value = null
  const done = facts.value.parts.find((p) => p.id === last.value)
  // the last face of this part: now decide
  if (done?.needs && done.seen === done.faces.length) opened.value = done.id
}
function press() {
  if (here.value) void seen(false)
  else void frame.value?.done()
}
async function trace(station: string) {
  const failed = facts.value.trace?.failed === station ? null : station
  await book.act({ kind: 'traced', step: props.bench.base.step, station: failed })
}
const taken = (file: File) =>
  book.act(
    {
      kind: 'photo',
      photo: '0'.repeat(64),
      width: 1,
      height: 1,
      what: here.value ? `${here.value.part.name}, ${here.value.face.name}` : props.bench.base.title,
      step: props.bench.base.step,
      removal: null,
      pins: [],
    },
    file,
  )
function step(by: number) {
  const now = here.value ? cells.value.indexOf(here.value) : -1
  const to = cells.value[(now + by + cells.value.length) % cells.value.length]
  if (cells.value.length) pick(to.part.id, to.face.id)
}
const grades: [string, number][] = [
  ['!', 1],
  ['"', 2],
  ['@', 2],
  ['#', 3],
  ['£', 3],
  ['§', 3],
]
useKeys(() => ({
  ...Object.fromEntries(
    shown.value.slice(0, 9).map((c, k) => [
      String(k + 1),
      () => {
        code.value = c.id
      },
    ]),
  ),
  ...Object.fromEntries(
    grades.map(([key, g]) => [
      key,
      () => {
        grade.value = g
      },
    ]),
  ),
  0: nothing,
  p: () => photo.value?.open(),
  a: () => adding.value?.ask(here.value?.part ?? null),
  w: () => {
    opened.value = needing.value[0]?.id ?? opened.value
  },
  ArrowRight: () => step(1),
  ArrowLeft: () => step(-1),
  Escape: () => {
    opened.value = null
    picked.value = null
  },
}))
</script>

<template>
  <BenchFrame
    ref="frame"
    :bench="bench"
    :title="title"
    :line="line"
    :primary="primary"
    :ready="ready"
    :attempt="here !== null"
    :say="here ? `${here.part.name}, ${here.face.name}. What do you see?` : bench.base.title"
    @primary="press"
  >
    <template #work>
      <PartDecision v-if="part" :bench="bench" :part="part" @close="opened = null" />
      <template v-else>
        <section v-if="chosen" class="term" aria-live="polite">
          <FindingSketch :code="chosen.id" :name="chosen.name" />
          <p class="t16">
            <b>{{ chosen.name }}:</b> {{ chosen.looks }}. <b>Usually</b> {{ chosen.means }}.
            <b>To be sure:</b> {{ chosen.confirm }}. <b>Then look at</b> {{ chosen.next }}.
          </p>
        </section>
        <DebrisTrace v-else-if="facts.trace" :trace="facts.trace" :at="here?.part.id ?? null" @pick="trace" />
      </template>
      <FaceMatrix
        v-if="facts.total"
        :parts="facts.parts"
        :part="here?.part.id ?? null"
        :face="here?.face.id ?? null"
        :picked="opened"
        @pick="pick"
        @open="opened = opened === $event ? null : $event"
      />
      <p v-else class="t20">
        Nothing is listed yet. Add what is to be looked at, or say that it was looked at.
      </p>
      <div class="chips">
        <button type="button" class="btn small" @click="adding?.ask(here?.part ?? null)">
          Look at something else too <kbd>A</kbd></button
        ><RouterLink class="btn small" :to="{ name: 'findings', params: { build: book.card?.id ?? '' } }"
          >All findings <kbd>I</kbd></RouterLink
        >
      </div>
      <StepWords :bench="bench" />
    </template>
    <template #figure>
      <template v-if="here && !bench.base.settled">
        <p class="t20">{{ here.part.mark }} {{ here.part.name }}, {{ here.face.name }}</p>
        <p class="t28">
          {{ here.face.seen ? `Said: ${here.face.words}` : 'What do you see?' }}
        </p>
        <AskLink v-if="here.face.now.length" sort="finding" :about="here.face.now[0].entry" />
        <div class="codes">
          <button
            v-for="(c, k) in shown"
            :key="c.id"
            type="button"
            class="btn small"
            :aria-pressed="code === c.id"
            @click="code = c.id"
          >
            <kbd v-if="k < 9">{{ k + 1 }}</kbd><span>{{ c.name }}</span>
          </button>
        </div>
        <div class="grades" role="group" aria-label="How much">
          <span>{{ chosen ? chosen.grades[grade - 1] : 'How much' }}</span><button
            v-for="g in [1, 2, 3]"
            :key="g"
            type="button"
            class="btn small"
            :aria-pressed="grade === g"
            :aria-label="`grade ${g}${chosen ? `, ${chosen.grades[g - 1]}` : ''}`"
            @click="grade = g"
          >
            {{ g }}
          </button>
        </div>
      </template>
      <p v-else-if="bench.base.lacking && !bench.base.settled && !needing.length" class="t20">
        {{ bench.base.lacking }}
      </p>
      <div v-if="needing.length && (!here || bench.base.settled)" class="needing">
        <p class="t28">What will you do?</p>
        <button
          v-for="(p, k) in needing"
          :key="p.id"
          type="button"
          class="btn small decide"
          :aria-pressed="opened === p.id"
          @click="opened = p.id"
        >
          {{ p.mark }} {{ p.name }}<kbd v-if="k === 0">W</kbd>
        </button>
      </div>
    </template>
    <template v-if="here && !bench.base.settled" #second>
      <button type="button" class="btn second" @click="nothing">Nothing found<kbd>0</kbd></button>
      <PhotoButton ref="photo" label="Photo" cap="P" @taken="taken" />
      <div class="below">
        <div class="how">
          <label class="field"
            ><span>it is</span
            ><select v-model="cleaning" class="entry" name="cleaning">
              <option v-for="c in bench.cleaning" :key="c">{{ c }}</option>
            </select></label
          >
          <label class="field"
            ><span>you are</span
            ><select v-model="confidence" class="entry" name="confidence">
              <option v-for="c in bench.confidence" :key="c">{{ c }}</option>
            </select></label
          >
          <label class="field"
            ><span>by</span
            ><select v-model="method" class="entry" name="method">
              <option v-for="m in bench.methods" :key="m">{{ m }}</option>
            </select></label
          >
        </div>
        <label class="field"
          ><span>in words, if they help</span
          ><input v-model="words" class="entry small" name="words" maxlength="400" autocomplete="off"
        /></label>
        <label v-if="chosen" class="field"
          ><span>perhaps from</span
          ><input
            v-model="cause"
            class="entry small"
            name="cause"
            list="explanations"
            maxlength="200"
            autocomplete="off"
          /><datalist id="explanations">
            <option v-for="c in bench.causes" :key="c">{{ c }}</option>
          </datalist></label
        >
        <button
          v-if="codes.length > SHOWN && !more"
          type="button"
          class="btn small whole"
          @click="more = true"
        >
          {{ codes.length - SHOWN }} more
        </button>
      </div>
    </template>
  </BenchFrame>
  <AddFaceDialog ref="adding" :bench="bench" />
</template>

<style scoped>
.term {
  display: flex;
  gap: 14px;
  align-items: flex-start;
  min-height: 160px;
  border-bottom: 1px solid var(--hair);
}
.needing {
  display: grid;
  gap: 8px;
}
.decide {
  border-color: var(--out);
  color: var(--out);
  justify-content: space-between;
  text-align: left;
}
.codes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin: 6px 0;
}
.codes .btn {
  justify-content: flex-start;
  font-size: 16px;
  padding: 2px 6px;
  text-align: left;
  line-height: 1.1;
  gap: 6px;
}
.codes .whole {
  grid-column: 1 / -1;
  justify-content: center;
}
.grades {
  display: grid;
  grid-template-columns: 1fr 64px 64px 64px;
  gap: 6px;
  align-items: center;
  font-size: 16px;
}
.grades .btn {
  font-size: 24px;
  font-weight: 780;
}
.below {
  grid-column: 1 / -1;
}
.how {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 6px;
  margin-top: 6px;
}
.how .entry,
.entry.small {
  min-height: 44px;
  font-size: 16px;
  padding: 4px 6px;
}
</style>
