<script setup lang="ts">
/** A figure over the distance: its limits, its aim, rings its readings, the last by its verdict. */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'
import VerdictMark from './VerdictMark.vue'

interface Point {
  km: number | null
  days: number
  value: number
}
const props = defineProps<{
  points: readonly Point[]
  lo: number | null
  hi: number | null
  aim: number | null
  verdict: string
  name: string
}>()
const id = useId()
const [W, H] = [430, 92]
const start = computed(() => props.points.find((p) => p.km !== null)?.km ?? 0)
const far = (p: Point) => (p.km === null ? p.days : p.km - start.value)
const span = computed(() => Math.max(...props.points.map(far), 1) * 1.15)
const x = (p: Point) => 8 + (Math.max(0, far(p)) / span.value) * (W - 30)
const range = computed(() => {
  const values = props.points.map((p) => p.value)
  const lo = Math.min(...values, props.lo ?? Infinity)
  const hi = Math.max(...values, props.hi ?? -Infinity)
  const band = hi - lo || 1
  return [lo - band * 0.25, hi + band * 0.25]
})
const y = (value: number) => H - ((value - range.value[0]) / (range.value[1] - range.value[0])) * H
const edge = (value: number | null, out: number) => (value === null ? out : y(value))
const steps = computed(() =>
  props.points.slice(1).map((p, k) => {
    const was = props.points[k]
    const by = Math.round((p.value - was.value) * 100) / 100
    return { x: (x(p) + x(was)) / 2, y: (y(p.value) + y(was.value)) / 2, text: by < 0 ? `−${-by}` : `${by}` }
  }),
)
const line = computed(() => props.points.map((p, k) => `${k ? 'L' : 'M'}${x(p)} ${y(p.value)}`).join(' '))
const last = computed(() => props.points[props.points.length - 1])
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H + 22}`" role="img" :aria-label="`${name}, over the distance`" class="creep">
    <defs><MetalPattern :id="`c${id}`" /></defs>
    <rect x="0" y="0" :width="W" :height="H" :fill="`url(#c${id})`" />
    <rect
      x="0"
      :y="edge(hi, 0)"
      :width="W"
      :height="Math.max(0, edge(lo, H) - edge(hi, 0))"
      fill="var(--now)"
    />
    <rect
      x="0"
      :y="edge(hi, 0)"
      :width="W"
      :height="Math.max(0, edge(lo, H) - edge(hi, 0))"
      fill="var(--slot)"
    />
    <path v-if="hi !== null" :d="`M0 ${y(hi)} H${W}`" class="edge" />
    <path v-if="lo !== null" :d="`M0 ${y(lo)} H${W}`" class="edge" />
    <path v-if="aim !== null" :d="`M0 ${y(aim)} H${W}`" class="aim" />
    <path :d="line" class="line" />
    <circle v-for="p in points.slice(0, -1)" :key="p.days" :cx="x(p)" :cy="y(p.value)" r="5" class="ring" />
    <g v-if="last && points.length > 1" :transform="`translate(${x(last) - 11} ${y(last.value) - 11})`">
      <foreignObject width="24" height="24"
        ><VerdictMark :verdict="verdict" side="low" :size="10"
      /></foreignObject>
    </g>
    <circle v-else-if="last" :cx="x(last)" :cy="y(last.value)" r="5" class="ring" />
    <text v-for="s in steps" :key="s.x" :x="s.x" :y="Math.max(16, s.y - 6)" text-anchor="middle" class="step">
      {{ s.text }}
    </text>
    <text
      v-for="p in points"
      :key="`k${p.days}`"
      :x="Math.max(10, x(p))"
      :y="H + 17"
      text-anchor="middle"
      class="km"
    >
      {{ p.km === null ? `${p.days} d` : Math.round(far(p)) }}
    </text>
  </svg>
</template>

<style scoped>
.creep {
  width: 100%;
  max-width: 430px;
}
.edge {
  stroke: var(--ink);
  stroke-width: 2.6;
}
.aim {
  stroke: var(--metal);
  stroke-width: 1.6;
  stroke-dasharray: 7 3 2 3;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.ring {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 2.6;
}
text {
  font-style: normal;
  font-variation-settings: 'slnt' 0;
  fill: var(--ink);
}
.step {
  font-size: 17px;
  font-weight: 760;
  paint-order: stroke;
  stroke: var(--slot);
  stroke-width: 5;
}
.km {
  font-size: 15px;
}
</style>
