<script setup lang="ts">
/**
 * The slot of a limit with the whisker of the best tool of the shop: whether it can decide that limit at
 * all.
 */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

const props = defineProps<{ share: number | null; fits: boolean; words: string }>()
const id = useId()
const W = 108
const half = computed(() => Math.min(52, ((props.share ?? 0.25) * W * 0.6) / 2))
</script>

<template>
  <svg :width="W" height="26" :viewBox="`0 0 ${W} 26`" role="img" :aria-label="words" class="fit">
    <defs>
      <MetalPattern :id="id" />
    </defs>
    <rect :x="W * 0.2" y="2" :width="W * 0.6" height="22" fill="var(--slot)" />
    <rect x="0" y="2" :width="W * 0.2" height="22" :fill="`url(#${id})`" />
    <rect :x="W * 0.8" y="2" :width="W * 0.2" height="22" :fill="`url(#${id})`" />
    <path :d="`M${W * 0.2} 1 V25 M${W * 0.8} 1 V25`" stroke="var(--ink)" stroke-width="2.6" />
    <path
      :d="`M${W / 2 - half} 13 H${W / 2 + half} M${W / 2 - half} 7 v12 M${W / 2 + half} 7 v12`"
      :stroke="fits ? 'var(--ink)' : 'var(--out)'"
      stroke-width="2.6"
      fill="none"
    />
  </svg>
</template>
