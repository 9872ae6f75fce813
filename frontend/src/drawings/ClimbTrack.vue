<script setup lang="ts">
/** The rule itself, drawn: the climb as a share of the steepest; metal is where it yields or bottoms. */
import { computed, useId } from 'vue'
import { pathOf, scaled } from './track'
import MetalPattern from './MetalPattern.vue'

type Point = [number, number]
const props = defineProps<{ shares: Point[]; right: number; yields: number; bottoms: number; out: boolean }>()
const id = useId()
const W = 576
const H = 72
const TOP = 2.3
const x = (v: number) => scaled(v, 0, props.right, 0, W)
const y = (v: number) => scaled(v, 0, TOP, H, 0)
const last = computed(() => props.shares.at(-1) ?? null)
</script>

<template>
  <svg :viewBox="`-56 -4 ${W + 74} ${H + 8}`" role="img" :aria-label="`climb now ${last?.[1] ?? 'not read'}`">
    <defs>
      <MetalPattern :id="`m${id}`" />
    </defs>
    <rect x="0" y="0" :width="W" :height="H" fill="var(--slot)" />
    <rect x="0" :y="y(yields)" :width="W" :height="H - y(yields)" :fill="`url(#m${id})`" />
    <rect x="0" y="0" :width="W" :height="y(bottoms)" :fill="`url(#m${id})`" />
    <line v-for="v in [yields, bottoms]" :key="v" x1="0" :x2="W" :y1="y(v)" :y2="y(v)" class="rule" />
    <text x="-10" :y="y(yields) + 6" text-anchor="end">{{ yields }}</text>
    <text x="-10" :y="y(bottoms) + 6" text-anchor="end">{{ bottoms }}</text>
    <path v-if="shares.length > 1" :d="pathOf(shares, x, y)" class="trace" />
    <text v-if="last" :x="Math.min(x(last[0]) + 8, W - 44)" :y="y(last[1]) + 6" class="now" :class="{ out }">
      {{ last[1].toFixed(2) }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 660px;
  height: auto;
}
.rule {
  stroke: var(--ink);
  stroke-width: 2.2;
}
.trace {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
text {
  font-size: 16px;
  fill: var(--ink);
}
.now {
  font-size: 20px;
  font-weight: 780;
  paint-order: stroke;
  stroke: var(--slot);
  stroke-width: 6px;
}
.now.out {
  fill: var(--out);
}
</style>
