<script setup lang="ts">
/** Worked minutes as an ink bar; the slot is the own range, metal past it, a chain line the book. */
import { computed } from 'vue'

const props = defineProps<{ minutes: number; quick: number; slow: number; book: number }>()
const W = 620
const top = computed(() => Math.max(props.slow * 1.35, props.minutes * 1.1, props.book * 1.1, 10))
const x = (minutes: number) => 4 + (minutes / top.value) * (W - 8)
const id = `past${Math.random().toString(36).slice(2)}`
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} 62`"
    role="img"
    :aria-label="`${minutes} min worked, own range ${quick} to ${slow}, book ${Math.round(book)}`"
  >
    <defs>
      <pattern :id="id" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0 H8" stroke="var(--metal)" stroke-width="1.6" />
      </pattern>
    </defs>
    <rect x="4" y="8" :width="W - 8" height="28" :fill="`url(#${id})`" />
    <rect :x="x(quick)" y="8" :width="x(slow) - x(quick)" height="28" fill="var(--slot)" />
    <path :d="`M${x(quick)} 5 V39 M${x(slow)} 5 V39`" stroke="var(--ink)" stroke-width="3" />
    <path
      v-if="book"
      :d="`M${x(book)} 2 V42`"
      stroke="var(--ink)"
      stroke-width="1.6"
      stroke-dasharray="10 3 2 3"
    />
    <path :d="`M4 22 H${x(minutes)}`" stroke="var(--ink)" stroke-width="7" />
    <circle :cx="x(minutes)" cy="22" r="9" fill="var(--ink)" />
    <text :x="x(quick)" y="57" text-anchor="middle" class="t16" fill="var(--ink)">{{ quick }}</text>
    <text :x="x(slow)" y="57" text-anchor="middle" class="t16" fill="var(--ink)">{{ slow }} min</text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 640px;
  display: block;
}
</style>
