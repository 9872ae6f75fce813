<script setup lang="ts">
/**
 * What all benches share: title, waits, caution, the work at the left, figure and primary button at the
 * right.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { BenchView } from '@/api/client'
import BehindBlock from '@/shell/BehindBlock.vue'
import BesideBlock from '@/shell/BesideBlock.vue'
import CaptureBlock from '@/shell/CaptureBlock.vue'
import CautionBlock from '@/shell/CautionBlock.vue'
import HoldBlock from '@/shell/HoldBlock.vue'
import LastChanceBlock from '@/shell/LastChanceBlock.vue'
import ReadyBlock from './ReadyBlock.vue'
import RefitBlock from '@/shell/RefitBlock.vue'
import StepGuards from '@/shell/StepGuards.vue'
import StuckDialog from '@/shell/StuckDialog.vue'
import AgainBlock from './AgainBlock.vue'
import CareBlock from './CareBlock.vue'
import HangingBlock from './HangingBlock.vue'
import LiftBlock from './LiftBlock.vue'
import LooksBlock from './LooksBlock.vue'
import MovingBlock from './MovingBlock.vue'
import MovingPad from './MovingPad.vue'
import WatchForm from './WatchForm.vue'
import ClockBlock from './ClockBlock.vue'
import ProvisionalBlock from './ProvisionalBlock.vue'
import SumsBlock from './SumsBlock.vue'
import StepNeeds from './StepNeeds.vue'
import StepPhotos from './StepPhotos.vue'
import AskDialog from '@/shell/AskDialog.vue'
import LineText from '@/shell/LineText.vue'
import type { Question } from '@/composables/asking'
import { pressedTwice, useKeys } from '@/composables/keys'
import { useMoving } from '@/composables/moving'
import { usePassing } from '@/composables/passing'
import { readOut } from '@/composables/speech'
import { useAgo } from '@/composables/time'
import { useBook } from '@/stores/book'

const props = withDefaults(
  defineProps<{
    bench: BenchView
    title?: string
    line?: string
    primary?: string
    ready?: boolean
    say?: string
    noPrimary?: boolean
    attempt?: boolean
    underWay?: boolean
    alarm?: boolean
    grave?: boolean
    ownPhotos?: boolean
    plain?: boolean
    tight?: boolean
  }>(),
  { ready: true },
)
const emit = defineEmits<{ primary: [] }>()
const book = useBook()
const router = useRouter()
const reason = ref<InstanceType<typeof AskDialog> | null>(null)
const settled = computed(() => props.bench.base.settled)
const PAUSE_MS = 5 * 60 * 1000 // shorter than this nobody has to be told where he was
const resume = computed(() => {
  if (props.grave) return null
  const found = book.frame?.resume
  if (!found || book.touched || book.frame?.current !== props.bench.base.step) return null
  return Date.now() - new Date(found.since).getTime() > PAUSE_MS ? found : null
})
const since = useAgo(() => resume.value?.since)
const waits = computed(() => !settled.value && props.bench.base.waits.length > 0)
const capture = ref<InstanceType<typeof CaptureBlock> | null>(null)
const stuck = ref<InstanceType<typeof StuckDialog> | null>(null)
const photos = ref<InstanceType<typeof StepPhotos> | null>(null)
const takingDown = computed(() => props.bench.base.taking_down)
/** Elsewhere the letter is the bench's own, and a photo is a press. */
const photoKey = computed(() => takingDown.value || props.bench.base.photos.length > 0)
/** What the core says is missing holds back a plain tick; the other benches lead to it themselves. */
const blocking = computed(
  () => !settled.value && props.bench.base.confirmed && props.plain && props.bench.base.lacking !== null,
)
/** Captures and last chances have their own way out, beside each of them. */
const answered = computed(
  () =>
    props.bench.base.clash !== null ||
    props.bench.base.captures.some((c) => c.todo) ||
    props.bench.base.chances.some((c) => c.todo),
)
const can = computed(
  () =>
    props.ready &&
    !blocking.value &&
    !settled.value &&
    (!waits.value || props.attempt) &&
    props.bench.base.confirmed &&
    !book.busy,
)
const openNext = computed(() => settled.value && props.bench.base.following !== null)

function next() {
  const step = props.bench.base.following
  if (step) void router.push({ name: 'step', params: { build: book.card?.id ?? '', step } })
}
function press() {
  if (openNext.value) return next()
  if (can.value) emit('primary')
}
function clicked() {
  if (!pressedTwice()) press()
}
const { done, allTheSame, begin, notThere, skip, letGo, happened, reopen } = usePassing(
  () => props.bench,
  () => reason.value,
  next,
)
/** While a unit is on its way the last move is the title, and the moves stand at the right hand. */
const anew = ref(false)
const hangs = computed(() => !settled.value && props.bench.base.moving !== null && !props.underWay)
const placing = computed(
  () =>
    !settled.value &&
    props.bench.base.confirmed &&
    props.bench.base.moves_unit &&
    (!hangs.value || anew.value),
)
const heading = computed(() => (hangs.value ? props.bench.base.moving?.title : undefined))
const back = computed(() => {
  const now = hangs.value ? props.bench.base.moving : null
  return now?.back ? `Back the way it came is always free: ${now.back} ${now.last_by}` : undefined
})
const hand = useMoving(
  () => props.bench.base.step,
  () => props.bench.base.moving,
)
const secure = () => router.push({ name: 'support', params: { build: book.card?.id ?? '' } })
function speak() {
  readOut(props.say ?? `${props.bench.base.title}. ${props.bench.base.do}`)
}
useKeys(() => ({
  ' ': press,
  PageDown: press,
  r: speak,
  PageUp: speak,
  ...(takingDown.value ? { k: () => capture.value?.first(), u: () => stuck.value?.ask() } : {}),
  ...(photos.value && photoKey.value ? { p: () => photos.value?.take() } : {}),
}))
defineExpose({
  done,
  ask: (question: Question) => reason.value?.ask(question),
})
</script>

<template>
  <article class="bench">
    <header>
      <h1 class="t28" :class="{ alarm, grave }">
        {{ resume ? `${resume.title}, ${since}` : (title ?? heading ?? bench.base.title) }}
      </h1>
      <p class="t20 sub">
        {{ resume ? resume.line : (line ?? back ?? `${bench.base.number}, ${bench.base.stage_name}`) }}
      </p>
      <p v-if="resume?.hangs" class="t20 outside b">{{ resume.hangs }}</p>
      <ul v-if="resume?.first.length" class="block" aria-label="After so long">
        <li v-for="(words, k) in resume.first" :key="k">{{ words }}</li>
      </ul>
    </header>
    <div class="work">
      <HoldBlock v-if="!underWay" :bench="bench" :build="book.card?.id ?? ''" />
      <BehindBlock v-if="!underWay" :bench="bench" :build="book.card?.id ?? ''" />
      <p v-if="bench.base.clash && !settled" class="block">
        {{ bench.base.clash }}.
        <RouterLink :to="{ name: 'plan', params: { build: book.card?.id ?? '' } }"
          >Change it on the plan desk</RouterLink
        >
      </p>
      <LastChanceBlock
        v-if="bench.base.chances.length && !underWay && !settled"
        title="After this nobody reaches"
        :chances="bench.base.chances"
        :build="book.card?.id ?? ''"
        act
        :first="bench.base.chances.find((c) => c.todo)?.thing"
        @let-go="letGo"
        @seen="
          book.act({
            kind: 'decision',
            step: bench.base.step,
            about: 'last_chance',
            thing: $event,
            done_here: true,
          })
        "
        @put-in="router.push({ name: 'plan', params: { build: book.card?.id ?? '' } })"
      />
      <CautionBlock
        v-if="bench.base.caution && !underWay"
        :caution="bench.base.caution"
        :confirmed="bench.base.confirmed"
        :by="bench.base.confirmed_by"
        :folded="bench.base.lines.length > 0 && bench.base.confirmed"
        @confirm="
          book.act({ kind: 'confirmed', step: bench.base.step, what: bench.base.caution.confirm ?? '' })
        "
      />
      <StepGuards v-if="!underWay" :bench="bench" />
      <BesideBlock v-if="!underWay" :bench="bench" />
      <CaptureBlock
        v-if="!underWay && (bench.base.captures.length || takingDown)"
        ref="capture"
        :captures="bench.base.captures"
        :keys="bench.base.capture_keys"
        :step="bench.base.step"
        :settled="settled"
      />
      <RefitBlock v-if="!underWay" :bench="bench" :quiet="tight" />
      <ProvisionalBlock v-if="!underWay && !tight" :bench="bench" />
      <WatchForm v-if="placing" :step="bench.base.step" :people="bench.base.people" @said="anew = false" />
      <MovingBlock v-if="bench.base.moving" :moving="bench.base.moving" :hand="hand" :live="hangs" />
      <HangingBlock v-if="!underWay && bench.base.hanging" :hanging="bench.base.hanging" />
      <details v-if="hangs">
        <summary>The step in words</summary>
        <slot name="work" />
      </details>
      <slot v-else name="work" />
      <ProvisionalBlock v-if="!underWay && tight" :bench="bench" />
      <StepPhotos
        v-if="!ownPhotos && !underWay"
        ref="photos"
        class="stepphotos"
        :photos="bench.base.photos"
        :clips="bench.base.clips.filter((c) => c.attempt === null)"
        :cap="photoKey ? 'P' : undefined"
        :what="bench.base.title"
        :step="bench.base.step"
      />
      <ReadyBlock v-if="!underWay && !hangs && bench.base.ready" :ready="bench.base.ready" />
      <LiftBlock v-if="!underWay && bench.base.lifts" :lift="bench.base.lift" :step="bench.base.step" />
      <LooksBlock v-if="!underWay && bench.base.looks" :looks="bench.base.looks" :step="bench.base.step" />
      <CareBlock v-if="!underWay" :bench="bench" />
      <SumsBlock v-if="!underWay" :bench="bench" />
      <AgainBlock v-if="!underWay" :bench="bench" />
      <StepNeeds v-if="!underWay" :bench="bench" />
      <ClockBlock v-if="!underWay" :clock="bench.base.clock" />
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
    </div>
    <aside class="side">
      <MovingPad
        v-if="hangs && bench.base.moving"
        :moving="bench.base.moving"
        :hand="hand"
        @secure="secure"
        @anew="anew = !anew"
      />
      <div v-else class="figure"><slot name="figure" /></div>
      <div class="acts">
        <slot name="primary">
          <button
            v-if="!noPrimary || openNext"
            type="button"
            class="btn primary"
            :class="{ long: (openNext ? 'On to the next' : (primary ?? bench.primary)).length > 15 }"
            :disabled="!can && !openNext"
            @click="clicked"
          >
            {{ openNext ? 'On to the next' : (primary ?? bench.primary) }}<kbd>Space or right pedal</kbd>
          </button>
        </slot>
        <div v-if="$slots.second" class="two"><slot name="second" /></div>
        <div v-if="!underWay" class="small">
          <template v-if="settled"
            ><span class="state"
              >{{ bench.base.status.words }} by {{ bench.base.status.who
              }}<template v-if="bench.base.status.reason">: {{ bench.base.status.reason }}</template></span
            ><button type="button" class="btn small" @click="reopen">Open it again</button></template
          >
          <template v-else>
            <button v-if="bench.base.may_happen" type="button" class="btn small whole" @click="happened">
              It has happened already
            </button>
            <button
              v-else-if="waits && tight && bench.base.obstacles[0]?.by_reason"
              type="button"
              class="btn small whole"
              @click="begin"
            >
              Begin out of order
            </button>
            <button
              v-else-if="waits && bench.base.may_pass"
              type="button"
              class="btn small whole"
              @click="allTheSame"
            >
              Done out of order
            </button>
            <p v-else-if="blocking && !answered" class="t16 whole">
              {{ bench.base.lacking }}.
              <button v-if="bench.base.may_pass" type="button" class="btn small" @click="allTheSame">
                Done in another way
              </button>
            </p>
            <button type="button" class="btn small" @click="skip(false)">Skip</button
            ><button type="button" class="btn small" @click="skip(true)">Not applicable</button
            ><button type="button" class="btn small" @click="notThere">Not there</button>
            <template v-if="takingDown"
              ><button type="button" class="btn small" @click="capture?.own()">Keep as found</button
              ><button type="button" class="btn small" @click="stuck?.ask()">
                It is stuck <kbd>U</kbd>
              </button></template
            >
          </template>
        </div>
      </div>
    </aside>
    <section v-if="bench.base.lines.length" class="lines" aria-label="Written at this step">
      <h2 class="t16 mut">Written at this step</h2>
      <ol>
        <li v-for="item in [...bench.base.lines].reverse()" :key="item.id">
          <LineText :line="item" /> <span class="t16 mut">{{ item.who }}</span>
        </li>
      </ol>
    </section>
    <AskDialog ref="reason" />
    <StuckDialog v-if="takingDown" ref="stuck" :step="bench.base.step" :about="bench.base.title" />
  </article>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template: 'head side' auto 'work side' 1fr 'lines lines' auto / minmax(0, 1fr) 308px;
  column-gap: 32px;
  min-height: 100%;
}
header {
  grid-area: head;
}
.alarm {
  font-size: 96px;
  font-weight: 850;
  color: var(--out);
  line-height: 1;
}
header:has(.grave) {
  background: var(--outw);
  border-left: 12px solid var(--out);
  margin: 0 -6px 8px -20px;
  padding: 4px 6px 4px 12px;
}
.grave {
  font-size: 36px;
  font-weight: 850;
  color: var(--out);
  line-height: 1.1;
}
.alarm + .sub {
  font-size: 28px;
  font-weight: 780;
}
.sub {
  font-weight: 460;
  margin: 2px 0 8px;
}
.work {
  grid-area: work;
  min-width: 0;
}
.work > :deep(* + *) {
  margin-top: 10px;
}
.side {
  grid-area: side;
  display: flex;
  flex-direction: column;
}
.figure {
  min-height: 318px;
  padding-bottom: 10px;
}
.acts {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.small {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.small .btn {
  flex: 1 1 auto;
  white-space: nowrap;
  padding: 6px;
  font-size: 16px;
  gap: 4px;
}
.small .whole {
  flex-basis: 100%;
}
.stepphotos {
  max-width: 326px;
}
.state {
  font-weight: 650;
  font-size: 16px;
  flex-basis: 100%;
}
.lines {
  grid-area: lines;
  margin-top: 16px;
  border-top: 1px solid var(--hair);
  padding-top: 6px;
}
.lines li {
  border-top: 1px solid var(--hair);
  padding: 5px 0;
}
@media (max-width: 959px) {
  .bench {
    display: flex;
    flex-direction: column;
  }
  .side {
    order: 1;
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 16px;
    border-bottom: 3px solid var(--line);
    padding-bottom: 12px;
    margin-bottom: 12px;
  }
  .work {
    order: 2;
  }
  .lines {
    order: 3;
  }
  .figure {
    min-height: 0;
  }
}
@media (max-width: 600px) {
  .side {
    display: contents;
  }
  .figure {
    order: 3;
    padding-top: 10px;
  }
  .work {
    order: 2;
  }
  .acts {
    display: contents;
  }
  .two {
    order: 4;
    margin-top: 10px;
  }
  .small {
    order: 5;
    margin-top: 10px;
  }
  .lines {
    order: 6;
  }
  .acts :deep(.primary) {
    order: 7;
    min-height: 84px;
    position: sticky;
    bottom: 0;
    z-index: 3;
    margin-top: 10px;
    outline: 8px solid var(--now);
  }
  .acts :deep(kbd) {
    display: none;
  }
}
</style>
