<script setup lang="ts">
/**
 * Own time over book time, stepped: a column a finished job, the slot where the next one lies (8 in 10),
 * metal
 * outside it, discs for the jobs, a chain line for the book.
 */
import { computed } from 'vue'

const props = defineProps<{
  steps: readonly { lo: number; hi: number; ratio: number }[]
  lo: number
  hi: number
  label: string
}>()
const W = 640
const H = 84
const LEAST = 0.15
const MOST = 4
const y = (factor: number) => {
  const inside = Math.min(MOST, Math.max(LEAST, factor))
  return 4 + ((Math.log(MOST) - Math.log(inside)) / (Math.log(MOST) - Math.log(LEAST))) * (H - 8)
}
const columns = computed(() => {
  const all = [
    ...props.steps.map((s) => ({ ...s, job: true })),
    { lo: props.lo, hi: props.hi, ratio: 0, job: false },
  ]
  const wide = W / all.length
  return all.map((s, k) => ({ ...s, x: k * wide, wide }))
})
const id = `bore${Math.random().toString(36).slice(2)}`
</script>

<template>
  <svg :viewBox="`0 0 ${W + 60} ${H}`" role="img" :aria-label="label">
    <defs>
      <pattern :id="id" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0 H8" stroke="var(--metal)" stroke-width="1.5" />
      </pattern>
    </defs>
    <rect x="0" y="0" :width="W" :height="H" :fill="`url(#${id})`" />
    <g v-for="(c, k) in columns" :key="k">
      <rect :x="c.x" :y="y(c.hi)" :width="c.wide" :height="y(c.lo) - y(c.hi)" fill="var(--slot)" />
      <path
        :d="`M${c.x} ${y(c.hi)} H${c.x + c.wide} M${c.x} ${y(c.lo)} H${c.x + c.wide}`"
        stroke="var(--ink)"
        stroke-width="2.6"
      />
      <circle v-if="c.job" :cx="c.x + c.wide / 2" :cy="y(c.ratio)" r="7" fill="var(--ink)" />
    </g>
    <path :d="`M0 ${y(1)} H${W}`" stroke="var(--ink)" stroke-width="1.6" stroke-dasharray="10 3 2 3" />
    <text :x="W + 8" :y="y(1) + 5" class="t16" fill="var(--ink)">book</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 700px;
  display: block;
}
</style>
