<script setup lang="ts">
/**
 * One reading on a drawing: its figure in a box that can be pressed; yellow in hand, the verdict's shape
 * beside it.
 */
import { computed } from 'vue'
import type { ReadingFacts } from '@/api/client'
import { markPath } from '../geometry'

const props = withDefaults(
  defineProps<{ reading: ReadingFacts; now: boolean; x: number; y: number; w?: number; text?: string }>(),
  { w: 78 },
)
const emit = defineEmits<{ pick: [] }>()
const H = 30
const MARK = 16
const WIDE = 0.52 // of its size, a figure of the typeface
const [LARGE, LEAST] = [18, 12]
const read = computed(() =>
  props.reading.value_text ? `${props.reading.value_text} ${props.reading.unit}` : 'not read',
)
/** A figure between two is written close, and small enough to stay in its box beside the mark. */
const figure = computed(() => (props.text ?? (props.reading.value_text || '–')).replace(' to ', '–'))
const marked = computed(() => props.reading.verdict && props.reading.verdict !== 'inside')
const size = computed(() => {
  const room = props.w - (marked.value ? MARK : 0) - 6
  return Math.max(LEAST, Math.min(LARGE, room / (WIDE * figure.value.length)))
})
</script>

<template>
  <g
    :transform="`translate(${x} ${y})`"
    class="spot"
    :class="{ now, read: reading.entry !== null }"
    role="button"
    tabindex="0"
    :aria-label="`${reading.name}: ${read}`"
    :aria-pressed="now"
    @click="emit('pick')"
    @keydown.enter.prevent="emit('pick')"
    @keydown.space.prevent.stop="emit('pick')"
  >
    <rect :x="-w / 2" :y="-22" :width="w" height="44" class="touch" /><rect
      :x="-w / 2"
      :y="-H / 2"
      :width="w"
      :height="H"
      class="box"
    />
    <text text-anchor="middle" :dy="size / 3" :x="marked ? -MARK / 2 : 0" :font-size="size">{{
      figure
    }}</text>
    <g
      v-if="reading.verdict === 'outside'"
      :transform="`translate(${w / 2 - 10} 0) scale(${reading.side === 'low' ? -1 : 1} 1)`"
      ><path :d="markPath('outside', 6)" class="out"
    /></g>
    <path
      v-else-if="reading.verdict === 'too_close'"
      :transform="`translate(${w / 2 - 10} 0)`"
      :d="markPath('too_close', 6)"
      class="close"
    />
    <path v-if="reading.moves || reading.ask_again" :d="`M${-w / 2} ${H / 2}H${w / 2}`" class="ask" />
  </g>
</template>

<style scoped>
.spot {
  cursor: pointer;
}
.touch {
  fill: transparent;
}
.box {
  fill: var(--now);
  stroke: var(--hair);
  stroke-width: 1.2;
  stroke-dasharray: 4 3;
}
.read .box {
  fill: var(--zinc2);
  stroke-dasharray: none;
}
.spot.now .box {
  fill: var(--yel);
  stroke: var(--yeledge);
  stroke-width: 3;
  stroke-dasharray: none;
}
.spot.now text {
  fill: var(--onyel);
}
text {
  font-weight: 650;
  fill: var(--ink);
}
.out {
  fill: var(--out);
}
.close {
  fill: var(--now);
  stroke: var(--close);
  stroke-width: 2;
}
.ask {
  stroke: var(--close);
  stroke-width: 3;
  stroke-dasharray: 6 3;
}
.spot:focus-visible {
  outline: none;
}
.spot:focus-visible .box {
  stroke: var(--ink);
  stroke-width: 4;
}
</style>
