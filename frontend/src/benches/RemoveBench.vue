<script setup lang="ts">
/** Take it off, fasteners into a numbered bag. Steppers, not typing. */
import { computed, ref, watch } from 'vue'
import type { RemoveBenchView } from '@/api/client'
import BagTray from '@/drawings/BagTray.vue'
import { useBook } from '@/stores/book'
import BenchFrame from './BenchFrame.vue'
import StepWords from './StepWords.vue'

const props = defineProps<{ bench: RemoveBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const bag = ref(0)
const lines = ref<{ count: number; size: string; length: string; holes: string }[]>([])
const place = ref('')

watch(() => [props.bench.step, props.bench.next_bag], () => {
  bag.value = props.bench.bagged[0]?.bag ?? props.bench.next_bag
  lines.value = props.bench.proposed.map((l) => ({ count: l.count, size: l.size, length: l.length ?? '', holes: l.holes ?? '' }))
}, { immediate: true })

const bagged = computed(() => props.bench.bagged.length > 0)
const needsBag = computed(() => props.bench.proposed.length > 0 && !bagged.value)
const pieces = computed(() => (bagged.value ? props.bench.bagged.reduce((n, b) => n + b.pieces, 0) : lines.value.reduce((n, l) => n + l.count, 0)))
const words = (b: RemoveBenchView['bags'][number]) => (b.lines.length > 1 ? 'mixed' : `${b.lines[0].size}${b.lines[0].length ? `×${b.lines[0].length}` : ''}`)
const tray = computed(() => props.bench.bags.map((b) => ({ bag: b.bag, pieces: b.pieces, words: words(b) })))

async function primary() {
  if (!needsBag.value) return frame.value?.done()
  const kept = lines.value.filter((l) => l.count > 0 && l.size.trim()).map((l) => ({ count: l.count, size: l.size.trim(), length: l.length.trim() || null, holes: l.holes.trim() || null }))
  if (await book.act({ kind: 'bagged', step: props.bench.step, bag: bag.value, lines: kept, place: place.value.trim() || null })) await frame.value?.done()
}
</script>

<template>
  <BenchFrame ref="frame" :bench="bench" :primary="needsBag ? 'In the bag' : 'It is off'" @primary="primary">
    <template #work>
      <StepWords :bench="bench" />
      <div v-if="bagged" class="quiet"><p v-for="b in bench.bagged" :key="b.bag"><b>Bag {{ b.bag }}:</b> <span v-for="(l, k) in b.lines" :key="k">{{ k ? ', ' : '' }}{{ l.count }} × {{ l.size }}{{ l.length ? `×${l.length}` : '' }}{{ l.holes ? `, holes ${l.holes}` : '' }}</span></p></div>
      <fieldset v-else class="sizes">
        <legend class="t16 mut">What comes out; put right what differs</legend>
        <div v-for="(l, k) in lines" :key="k" class="size">
          <button type="button" class="btn" :aria-label="`one ${l.size} less`" @click="l.count = Math.max(0, l.count - 1)">−</button><output class="t28">{{ l.count }}</output><button type="button" class="btn" :aria-label="`one ${l.size} more`" @click="l.count++">+</button>
          <label class="field"><span>size</span><input v-model="l.size" class="entry" maxlength="40" /></label>
          <label class="field"><span>length</span><input v-model="l.length" class="entry" maxlength="12" /></label>
          <label class="field"><span>holes</span><input v-model="l.holes" class="entry" maxlength="40" /></label>
        </div>
        <button type="button" class="btn small" @click="lines.push({ count: 1, size: '', length: '', holes: '' })">Another size</button>
      </fieldset>
      <h2 class="t20" style="margin: 12px 0 4px">Tray</h2>
      <BagTray :bags="tray" :current="bag" />
    </template>
    <template #figure>
      <template v-if="bench.proposed.length || bagged || lines.length">
        <p class="t20">{{ bagged ? 'In bag' : 'Into bag' }}</p>
        <p class="number">{{ bag }}</p>
        <p class="t24">{{ pieces }} pieces</p>
        <label v-if="!bagged" class="field" style="margin-top: 10px"><span>where the part lies</span><input v-model="place" class="entry" maxlength="80" name="place" /></label>
      </template>
      <p v-else class="t20">No fasteners go into a bag here.</p>
    </template>
  </BenchFrame>
</template>

<style scoped>
.number { font-size: 132px; font-weight: 850; letter-spacing: -0.03em; line-height: 1; }
.sizes { border: 0; padding: 0; margin: 12px 0; display: grid; gap: 8px; }
.size { display: grid; grid-template-columns: 48px 44px 48px 1fr 90px 1fr; gap: 8px; align-items: end; }
.size output { text-align: center; align-self: center; }
</style>
