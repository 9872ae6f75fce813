<script setup lang="ts">
import { computed } from 'vue'
import { markPath } from './geometry'

const props = withDefaults(
  defineProps<{ verdict: string; side?: string | null; size?: number; accepted?: boolean; word?: string }>(),
  { size: 10 },
)
const flip = computed(() => (props.side === 'low' ? 'scale(-1,1)' : undefined))
const s = computed(() => props.size)
</script>

<template>
  <svg
    :width="s * 2.6"
    :height="s * 2.6"
    :viewBox="`${-1.3 * s} ${-1.3 * s} ${2.6 * s} ${2.6 * s}`"
    :role="word ? 'img' : undefined"
    :aria-label="word"
    :aria-hidden="word ? undefined : true"
    class="mark"
  >
    <circle v-if="verdict === 'inside'" :r="0.86 * s" fill="var(--in)" />
    <g v-else-if="verdict === 'too_close'" :transform="flip">
      <path :d="markPath('too_close', s)" fill="var(--now)" stroke="var(--close)" :stroke-width="0.26 * s" />
      <path :d="`M0 ${-1.05 * s} L${1.05 * s} 0 L0 ${1.05 * s} Z`" fill="var(--close)" />
    </g>
    <g v-else-if="verdict === 'outside'" :transform="flip">
      <path
        :d="markPath('outside', accepted ? s * 0.8 : s)"
        :fill="accepted ? 'none' : 'var(--out)'"
        stroke="var(--out)"
        :stroke-width="accepted ? 0.24 * s : 0"
      />
    </g>
    <circle
      v-else
      :r="0.8 * s"
      fill="none"
      stroke="var(--mut)"
      :stroke-width="0.22 * s"
      :stroke-dasharray="`${0.55 * s} ${0.4 * s}`"
    />
    <line
      v-if="accepted"
      :x1="-s"
      :x2="s"
      :y1="1.2 * s"
      :y2="1.2 * s"
      stroke="var(--out)"
      :stroke-width="0.16 * s"
    />
  </svg>
</template>

<style scoped>
.mark {
  flex: none;
  vertical-align: middle;
}
</style>
