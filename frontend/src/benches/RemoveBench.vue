<script setup lang="ts">
/** Take it off: photo with pins, fasteners to scale, the tray, and the bag's number for the hand. */
import { computed, ref, watch } from 'vue'
import type { RemoveBenchView } from '@/api/client'
import { useFasteners } from '@/composables/fasteners'
import { useKeys } from '@/composables/keys'
import BagTray from '@/drawings/BagTray.vue'
import { useBook } from '@/stores/book'
import BagFigure from './BagFigure.vue'
import BenchFrame from './BenchFrame.vue'
import FastenerPad from './FastenerPad.vue'
import StepPhotos from './StepPhotos.vue'
import StepWords from './StepWords.vue'

const props = defineProps<{ bench: RemoveBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const figure = ref<InstanceType<typeof BagFigure> | null>(null)
const photos = ref<InstanceType<typeof StepPhotos> | null>(null)
const bag = ref(0)
const place = ref('')
const more = ref(false)
const hand = useFasteners()

watch(
  [() => props.bench.base.step, () => props.bench.bagged.length],
  () => {
    bag.value = props.bench.next_bag
    more.value = false
    hand.start(props.bench.bagged.length ? [] : props.bench.proposed)
  },
  { immediate: true },
)

const bagged = computed(() => props.bench.bagged.length > 0)
const filling = computed(() => !props.bench.base.settled && (more.value || !bagged.value))
/** What a sheet only calls usual is said to be counted by the press itself. */
const bagWords = computed(() =>
  props.bench.usual && !bagged.value ? `${hand.pieces.value} counted, in the bag` : 'In the bag',
)
const toBag = computed(() => filling.value && hand.kept.value.length > 0)

async function intoBag(): Promise<boolean> {
  if (!(await hand.take())) return false
  const kept = hand.kept.value.map((l) => ({
    ...l,
    size: l.size.trim(),
    holes: l.holes?.trim() || null,
    odd: l.odd?.trim() || null,
  }))
  return kept.length
    ? book.act({
        kind: 'bagged',
        step: props.bench.base.step,
        bag: bag.value,
        lines: kept,
        place: place.value.trim() || null,
      })
    : true
}
async function primary() {
  if (filling.value && (toBag.value || hand.text.value.trim())) {
    if (!(await intoBag())) return
  } else if (filling.value && hand.lines.value.length && !bagged.value) {
    // counted down to nothing: said, never silent
    const why = await frame.value?.ask({
      title: 'Nothing goes into a bag?',
      button: 'So it is',
      keys: props.bench.bag_keys,
      least: 10,
    })
    if (
      !why ||
      !(await book.act({ kind: 'note', step: props.bench.base.step, text: `nothing in a bag: ${why}` }))
    )
      return
  }
  await frame.value?.done()
}
async function full() {
  if (toBag.value && (await intoBag())) more.value = true
}
useKeys(() => ({
  p: () => photos.value?.take(),
  ...(filling.value ? { ...hand.keys(), b: full, e: () => figure.value?.type() } : {}),
}))
</script>

<template>
  <BenchFrame
    ref="frame"
    :bench="bench"
    :primary="toBag ? bagWords : 'It is off'"
    own-photos
    plain
    @primary="primary"
  >
    <template #work>
      <StepWords :bench="bench" />
      <div class="pair">
        <StepPhotos
          ref="photos"
          :photos="bench.base.photos"
          :clips="bench.base.clips"
          cap="P"
          :what="bench.base.title"
          :step="bench.base.step"
        />
        <FastenerPad
          v-if="filling"
          :hand="hand"
          :recent="bench.recent"
          :usual="bench.usual && !bagged"
          @type="figure?.type()"
        />
        <ul v-else class="bagged">
          <li v-for="b in bench.bagged" :key="b.bag">
            <b class="t24">Bag {{ b.bag }}</b
            ><span v-for="l in b.lines" :key="`${l.size}${l.length}`"
              >{{ l.words }}{{ l.holes ? `, holes ${l.holes}` : '' }}{{ l.odd ? `, ${l.odd}` : '' }}</span
            ><small v-if="b.place">the part lies {{ b.place }}</small>
          </li>
          <li v-if="!bagged">Nothing went into a bag.</li>
        </ul>
      </div>
      <div class="trayhead">
        <h2 class="t20">Tray</h2>
        <span>Going back takes them from the last to the first</span>
      </div>
      <BagTray
        :bags="bench.bags"
        :current="filling ? bag : bench.bagged[0]?.bag"
        :next="bag"
        @choose="bag = filling ? $event : bag"
      />
    </template>
    <template #figure>
      <BagFigure
        v-if="filling"
        ref="figure"
        v-model:bag="bag"
        v-model:place="place"
        :hand="hand"
        :places="bench.places"
      />
      <template v-else-if="bagged"
        ><p class="t20">In bag</p>
        <p class="number">{{ bench.bagged.map((b) => b.bag).join(' ') }}</p>
        <p class="t24">{{ bench.bagged.reduce((n, b) => n + b.pieces, 0) }} pieces</p>
        <button
          v-if="!bench.base.settled"
          type="button"
          class="btn small"
          style="margin-top: 10px"
          @click="more = true"
        >
          One more bag
        </button></template
      >
    </template>
    <template v-if="toBag" #second
      ><button type="button" class="btn second" @click="full">Bag full, next bag<kbd>B</kbd></button
      ><button type="button" class="btn second" @click="figure?.type()">Type it<kbd>E</kbd></button></template
    >
  </BenchFrame>
</template>

<style scoped>
.number {
  font-size: 132px;
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 1;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 326fr) minmax(0, 300fr);
  gap: 16px;
  align-items: start;
}
.bagged li {
  display: grid;
  gap: 2px;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.trayhead {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 12px;
}
@media (max-width: 600px) {
  .pair {
    grid-template-columns: 1fr;
  }
  .trayhead span {
    display: none;
  }
}
</style>
