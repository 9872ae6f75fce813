<script setup lang="ts">
/** Six places of an order: asked, quoted, made, shipped, arrived, compared. Arrived is not compared. */
import { computed } from 'vue'

const props = defineProps<{ place: number; word: string }>()
const GAP = 26
const places = computed(() =>
  Array.from({ length: 6 }, (_, k) => ({
    k,
    x: 8 + k * GAP,
    passed: k < props.place || (k === 5 && props.place === 5),
    at: k === props.place && props.place < 5,
  })),
)
</script>

<template>
  <svg width="150" height="18" viewBox="0 0 150 18" role="img" :aria-label="word" class="track">
    <path
      v-for="p in places.slice(1)"
      :key="p.k"
      :d="`M${p.x - GAP + 7} 9 H${p.x - 7}`"
      stroke="var(--hair)"
      stroke-width="2"
    />
    <template v-for="p in places" :key="p.k">
      <rect v-if="p.passed" :x="p.x - 6" y="3" width="12" height="12" fill="var(--ink)" />
      <rect
        v-else-if="p.at"
        :x="p.x - 5.5"
        y="3.5"
        width="11"
        height="11"
        fill="none"
        stroke="var(--ink)"
        stroke-width="3"
      />
      <path v-else :d="`M${p.x - 5} 9 H${p.x + 5}`" stroke="var(--ink)" stroke-width="3" />
    </template>
  </svg>
</template>
