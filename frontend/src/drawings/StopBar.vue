<script setup lang="ts">
/** What a missing part stops: rungs still free are a clear slot, from the first it stops on it is metal. */
import { computed } from 'vue'

const props = withDefaults(
  defineProps<{ free: number; rungs: readonly string[]; word: string; cell?: number; high?: number }>(),
  { cell: 13, high: 24 },
)
const wide = computed(() => props.rungs.length * props.cell)
const edge = computed(() => props.free * props.cell)
const id = `stop${Math.random().toString(36).slice(2)}`
</script>

<template>
  <svg
    :width="wide + 4"
    :height="high + 2"
    :viewBox="`-2 -1 ${wide + 4} ${high + 2}`"
    role="img"
    :aria-label="`stops ${word}`"
    class="stopbar"
  >
    <defs>
      <pattern :id="id" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0 H6" stroke="var(--metal)" stroke-width="2" />
      </pattern>
    </defs>
    <rect x="0" y="0" :width="edge" :height="high" fill="var(--slot)" />
    <rect v-if="edge < wide" :x="edge" y="0" :width="wide - edge" :height="high" :fill="`url(#${id})`" />
    <path
      v-for="k in rungs.length - 1"
      :key="k"
      :d="`M${k * cell} 0 V${high}`"
      stroke="var(--line)"
      stroke-width="1"
    />
    <rect x="0" y="0" :width="wide" :height="high" fill="none" stroke="var(--line)" stroke-width="1.4" />
    <path v-if="edge < wide" :d="`M${edge} -1 V${high + 1}`" stroke="var(--ink)" stroke-width="4" />
  </svg>
</template>
