<script setup lang="ts">
/**
 * The old part over the new one on one millimetre ruler, both laid from the same end; the difference is
 * hatched between the two dashed ends.
 */
import { computed } from 'vue'
import { outline } from './outlines'

const props = defineProps<{
  shape: string
  old: number
  fresh: number
  fits: boolean
  words: string
}>()
const W = 600
const LEFT = 32
const most = computed(() => Math.max(props.old, props.fresh))
const step = computed(() => [1, 2, 5, 10, 20, 50, 100, 200, 500].find((s) => most.value / s <= 9) ?? 1000)
const top = computed(() => Math.ceil(most.value / step.value) * step.value)
const x = (mm: number) => LEFT + (mm / top.value) * (W - 2 * LEFT)
const ticks = computed(() => Array.from({ length: top.value / step.value + 1 }, (_, k) => k * step.value))
const scale = computed(() => {
  const drawn = (W - 2 * LEFT) / top.value / 3.78 // CSS px of 1/96 inch: 3.78 to a millimetre
  return drawn >= 0.95 && drawn <= 1.05
    ? 'real size'
    : drawn < 1
      ? `1 to ${(1 / drawn).toFixed(0)}`
      : `${drawn.toFixed(0)} to 1`
})
const shorter = computed(() => Math.min(props.old, props.fresh))
const id = `apart${Math.random().toString(36).slice(2)}`
</script>

<template>
  <figure class="oldnew">
    <svg :viewBox="`0 0 ${W} 226`" role="img" :aria-label="`old ${old} mm, new ${fresh} mm: ${words}`">
      <defs>
        <pattern :id="id" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
          <path d="M0 0 H7" stroke="var(--out)" stroke-width="1.8" />
        </pattern>
      </defs>
      <path :d="`M${x(0)} 30 H${x(top)}`" stroke="var(--ink)" stroke-width="1.6" />
      <g v-for="t in ticks" :key="t">
        <path :d="`M${x(t)} 30 v-8`" stroke="var(--ink)" stroke-width="1.4" />
        <text :x="x(t)" y="16" text-anchor="middle" class="t16" fill="var(--ink)">
          {{ t }}{{ t === top ? ' mm' : '' }}
        </text>
      </g>
      <g
        v-for="(row, k) in [
          { name: 'old', mm: old },
          { name: 'new', mm: fresh },
        ]"
        :key="row.name"
        :transform="`translate(0 ${40 + k * 92})`"
      >
        <path
          :d="outline(shape, x(0), x(row.mm), 54)"
          fill="var(--zinc2)"
          stroke="var(--line)"
          stroke-width="1.8"
          stroke-linejoin="round"
        />
        <path
          :d="`M${x(0)} 72 V80 M${x(row.mm)} 72 V80 M${x(0)} 76 H${x(row.mm)}`"
          stroke="var(--ink)"
          stroke-width="1.4"
        />
        <text
          :x="x(row.mm / 2)"
          y="94"
          text-anchor="middle"
          class="size"
          :fill="k && !fits ? 'var(--out)' : 'var(--ink)'"
        >
          {{ row.name }} {{ Number(row.mm.toFixed(3)) }}
        </text>
      </g>
      <template v-if="!fits && old !== fresh">
        <rect
          :x="x(shorter)"
          y="132"
          :width="Math.max(3, x(most) - x(shorter))"
          height="54"
          :fill="`url(#${id})`"
        />
        <path :d="`M${x(old)} 34 V212`" stroke="var(--ink)" stroke-width="2" stroke-dasharray="6 5" />
        <path :d="`M${x(fresh)} 126 V212`" stroke="var(--out)" stroke-width="2" stroke-dasharray="6 5" />
      </template>
    </svg>
    <figcaption class="t16">Both laid from the same end, drawn {{ scale }}. {{ words }}</figcaption>
  </figure>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 640px;
  display: block;
}
.size {
  font-size: 20px;
  font-weight: 780;
}
</style>
