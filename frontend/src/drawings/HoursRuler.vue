<script setup lang="ts">
/** The hours of a plan as a slot on a ruler with a tick every two hours. */
import { computed } from 'vue'

const props = defineProps<{ range: readonly number[]; left: readonly number[] }>()
const W = 308
const end = computed(() => Math.max(6, Math.ceil((props.range[1] * 1.1) / 6) * 6))
const step = computed(() => (end.value > 60 ? 12 : end.value > 24 ? 6 : 2))
const x = (h: number) => 8 + (h / end.value) * (W - 16)
const rounded = (hours: readonly number[]) => `${Math.round(hours[0])} to ${Math.round(hours[1])}`
const ticks = computed(() =>
  Array.from({ length: Math.floor(end.value / step.value) + 1 }, (_, k) => k * step.value),
)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} 74`"
    class="ruler"
    role="img"
    :aria-label="`${rounded(range)} hours in all, ${rounded(left)} left`"
  >
    <rect
      :x="x(range[0])"
      y="14"
      :width="Math.max(2, x(range[1]) - x(range[0]))"
      height="32"
      fill="var(--slot)"
    />
    <path :d="`M${x(range[0])} 10 V46 M${x(range[1])} 10 V46`" stroke="var(--ink)" stroke-width="4" />
    <path
      v-if="left[1] > 0 && left[1] < range[1]"
      :d="`M${x(left[0])} 34 H${x(left[1])} M${x(left[0])} 28 v12 M${x(left[1])} 28 v12`"
      stroke="var(--ink)"
      stroke-width="2.4"
    />
    <path :d="`M8 46 H${W - 8}`" stroke="var(--ink)" stroke-width="1.6" />
    <g v-for="t in ticks" :key="t">
      <path :d="`M${x(t)} 46 v${t % (step * 3) ? 5 : 8}`" stroke="var(--ink)" stroke-width="1.4" />
      <text v-if="t % (step * 3) === 0" :x="x(t)" y="70" text-anchor="middle">{{ t }}</text>
    </g>
  </svg>
</template>

<style scoped>
.ruler {
  display: block;
  width: 100%;
  max-width: 308px;
}
text {
  font-size: 16px;
  fill: var(--ink);
}
</style>
