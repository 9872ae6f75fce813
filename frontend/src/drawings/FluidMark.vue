<script setup lang="ts">
/** How far a fluid is: done a square, under way a hollow one, else a dash, faint where none is due. */
defineProps<{ mark: string; what: string }>()
</script>

<template>
  <svg width="20" height="16" viewBox="0 0 20 16" role="img" :aria-label="`${what}: ${mark}`">
    <rect v-if="mark === 'done'" x="4" y="2" width="12" height="12" fill="var(--ink)" />
    <rect
      v-else-if="mark === 'at'"
      x="5"
      y="3"
      width="10"
      height="10"
      fill="none"
      stroke="var(--ink)"
      stroke-width="2.6"
    />
    <path v-else d="M4 8 H16" :stroke="mark === 'none' ? 'var(--hair)' : 'var(--ink)'" stroke-width="2.6" />
  </svg>
</template>
