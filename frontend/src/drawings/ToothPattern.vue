<script setup lang="ts">
/**
 * One flank of a tooth, heel at the left and toe at the right, its face on top: nine places where the paste
 * may be worn off, each a press.
 */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

const props = defineProps<{ side: 'drive' | 'coast'; at: string | null }>()
const emit = defineEmits<{ pick: [place: string] }>()
const id = useId()
const LENGTHS = ['heel', '', 'toe']
const HEIGHTS = ['face', '', 'flank']
const places = LENGTHS.flatMap((along, c) =>
  HEIGHTS.map((high, r) => ({
    place: [along, high].filter(Boolean).join('_') || 'centre',
    words: [along, high].filter(Boolean).join(', ') || 'middle',
    x: 58 + c * 66,
    y: 44 + r * 34,
  })),
)
const outline = computed(() =>
  props.side === 'drive'
    ? 'M20 30 Q124 6 228 22 L216 128 Q124 150 32 128 Z'
    : 'M20 22 Q124 40 228 30 L216 128 Q124 110 32 136 Z',
)
</script>

<template>
  <figure>
    <figcaption>
      <b>{{ side === 'drive' ? 'Drive side' : 'Coast side' }}</b>
      {{ side === 'drive' ? 'convex' : 'concave' }}
    </figcaption>
    <svg width="248" height="164" viewBox="0 0 248 164" role="group" :aria-label="`${side} side`">
      <defs>
        <MetalPattern :id="`t${id}`" />
      </defs>
      <path :d="outline" :fill="`url(#t${id})`" stroke="var(--line)" stroke-width="2.6" />
      <g
        v-for="p in places"
        :key="p.place"
        role="button"
        tabindex="0"
        :aria-label="`${side} side: ${p.words}`"
        :aria-pressed="p.place === at"
        class="spot"
        :class="{ at: p.place === at }"
        @click="emit('pick', p.place)"
        @keydown.enter.prevent="emit('pick', p.place)"
      >
        <rect :x="p.x - 32" :y="p.y - 16" width="64" height="32" fill="transparent" />
        <ellipse :cx="p.x" :cy="p.y" rx="27" ry="12" />
      </g>
      <text x="2" y="160">heel</text>
      <text x="246" y="160" text-anchor="end">toe</text>
    </svg>
  </figure>
</template>

<style scoped>
text {
  font-size: 16px;
  fill: var(--ink);
}
.spot {
  cursor: pointer;
}
.spot ellipse {
  fill: var(--now);
  fill-opacity: 0.55;
  stroke: var(--hair);
}
.spot.at ellipse {
  fill: var(--ink);
  fill-opacity: 1;
  stroke: var(--ink);
}
.spot:focus-visible {
  outline: 3px solid var(--ink);
}
</style>
