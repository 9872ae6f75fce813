<script setup lang="ts">
/** Clips side by side, each with what it shows and how long it is. */
import type { ClipView } from '@/api/client'

defineProps<{ clips: readonly ClipView[] }>()
</script>

<template>
  <ul class="clips">
    <li v-for="c in clips" :key="c.clip">
      <video controls preload="metadata" :src="`/api/clips/${c.clip}`" :aria-label="`clip: ${c.what}`" />
      <span class="t16"
        >{{ c.what }}, {{ c.seconds.toFixed(0) }} s<template v-if="c.at_s !== null"
          >, from {{ c.at_s.toFixed(0) }} s of the run on</template
        ></span
      >
    </li>
  </ul>
</template>

<style scoped>
.clips {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 8px;
}
.clips video {
  width: 100%;
  aspect-ratio: 4 / 3;
  background: var(--ink);
  display: block;
}
</style>
