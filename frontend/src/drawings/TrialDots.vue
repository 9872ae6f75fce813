<script setup lang="ts">
/** Readings of one thing in the order they were taken, around their mean. */
import { computed } from 'vue'

const props = defineProps<{ figures: readonly number[]; unit: string }>()
const low = computed(() => Math.min(...props.figures))
const high = computed(() => Math.max(...props.figures))
const mean = computed(() => props.figures.reduce((a, b) => a + b, 0) / props.figures.length)
const y = (v: number) =>
  high.value === low.value ? 50 : 88 - ((v - low.value) / (high.value - low.value)) * 76
const x = (k: number) => 20 + k * (540 / Math.max(9, props.figures.length - 1))
</script>

<template>
  <svg
    viewBox="0 0 600 100"
    role="img"
    :aria-label="`${figures.length} readings from ${low} to ${high} ${unit}`"
  >
    <path :d="`M6 ${y(mean)}H594`" class="mean" />
    <path :d="figures.map((v, k) => `${k ? 'L' : 'M'}${x(k)} ${y(v)}`).join('')" class="line" />
    <circle v-for="(v, k) in figures" :key="k" :cx="x(k)" :cy="y(v)" r="6" />
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
  border: 1px solid var(--hair);
}
.mean {
  stroke: var(--metal);
  stroke-width: 1.4;
  stroke-dasharray: 12 4 3 4;
}
.line {
  fill: none;
  stroke: var(--hair);
  stroke-width: 1.6;
}
circle {
  fill: var(--ink);
}
</style>
