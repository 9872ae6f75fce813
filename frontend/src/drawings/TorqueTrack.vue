<script setup lang="ts">
/** Torque over angle: the slot is where the sisters went, metal is elsewhere; the scale never moves. */
import { computed, useId } from 'vue'
import { pathOf, scaled, ticks } from './track'
import MetalPattern from './MetalPattern.vue'

type Point = [number, number]
const props = defineProps<{
  points: Point[]
  between: [Point[], Point[]] | null
  right: number
  low: number
  top: number
  asked: number | null
  at: Point | null
  lines: [[Point, Point], [Point, Point]] | null
  out: boolean
  name: string
}>()
const id = useId()
const W = 576
const H = 234
const x = (v: number) => scaled(v, 0, props.right, 0, W)
const y = (v: number) => scaled(v, props.low, props.top, H, 0)
const path = (points: Point[]) => pathOf(points, x, y)
const upTo = computed(() => (props.at ? props.points.filter((p) => p[0] <= props.at![0]) : props.points))
const after = computed(() => (props.at ? props.points.filter((p) => p[0] >= props.at![0]) : []))
const hole = computed(() =>
  props.between ? path([...props.between[0], ...[...props.between[1]].reverse()]) : '',
)
const last = computed(() => props.points.at(-1) ?? null)
</script>

<template>
  <svg :viewBox="`-56 -14 ${W + 74} ${H + 44}`" role="img" :aria-label="name">
    <defs>
      <MetalPattern :id="`m${id}`" />
      <clipPath :id="`c${id}`"><rect x="0" y="0" :width="W" :height="H" /></clipPath>
    </defs>
    <rect x="0" y="0" :width="W" :height="H" :fill="between ? `url(#m${id})` : 'var(--slot)'" />
    <g :clip-path="`url(#c${id})`">
      <path v-if="between" :d="`${hole} Z`" class="clear" />
      <path v-for="(edge, k) in between ?? []" :key="k" :d="path(edge)" class="edge" />
      <line v-if="asked !== null" :x1="x(asked)" :x2="x(asked)" y1="0" :y2="H" class="asked" />
      <template v-if="lines">
        <path :d="path(lines[0])" class="had" />
        <path :d="path(lines[1])" class="has" />
      </template>
      <path v-if="upTo.length > 1" :d="path(upTo)" class="halo" />
      <path v-if="upTo.length > 1" :d="path(upTo)" class="trace" />
      <path v-if="after.length > 1" :d="path(after)" class="trace" :class="{ outside: out }" />
    </g>
    <circle v-if="points.length" :cx="x(points[0][0])" :cy="y(points[0][1])" r="6" class="ring" />
    <circle v-if="at" :cx="x(at[0])" :cy="y(at[1])" r="7" class="ring" />
    <circle v-if="last && !at" :cx="x(last[0])" :cy="y(last[1])" r="5" fill="var(--ink)" />
    <g v-for="v in ticks(0, right)" :key="`x${v}`" class="tick">
      <line :x1="x(v)" :x2="x(v)" :y1="H" :y2="H + 6" />
      <text :x="x(v)" :y="H + 24" text-anchor="middle">{{ v }}°</text>
    </g>
    <g v-for="v in ticks(low, top)" :key="`y${v}`" class="tick">
      <line x1="-6" x2="0" :y1="y(v)" :y2="y(v)" />
      <text x="-10" :y="y(v) + 5" text-anchor="end">{{ v }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 660px;
  height: auto;
}
path {
  fill: none;
}
.clear {
  fill: var(--slot);
}
.edge {
  stroke: var(--ink);
  stroke-width: 2.4;
}
.asked {
  stroke: var(--ink);
  stroke-width: 1.8;
  stroke-dasharray: 14 4 3 4;
}
.halo {
  stroke: var(--slot);
  stroke-width: 9;
}
.trace {
  stroke: var(--ink);
  stroke-width: 3.4;
}
.outside {
  stroke: var(--out);
  stroke-width: 4;
}
.had,
.has {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 5 5;
}
.has {
  stroke: var(--out);
}
.ring {
  fill: var(--slot);
  stroke: var(--ink);
  stroke-width: 2.6;
}
.tick line {
  stroke: var(--ink);
  stroke-width: 1.4;
}
.tick text {
  font-size: 16px;
  fill: var(--ink);
}
</style>
