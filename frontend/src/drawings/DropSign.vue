<script setup lang="ts">
/** How wet a place is, by shape: dry a ring, damp a dashed ring, one drop, two drops, a widening jet. */
defineProps<{ grade: string }>()
const DROP = 'M0 -10 C5 -2 7 1 7 4 A7 7 0 0 1 -7 4 C-7 1 -5 -2 0 -10 Z'
</script>

<template>
  <svg width="32" height="26" viewBox="-16 -13 32 26" aria-hidden="true" class="drop">
    <circle v-if="grade === 'dry'" r="8.5" class="ring" />
    <template v-else-if="grade === 'damp'">
      <circle r="8.5" class="ring dashed" />
      <circle r="2.6" class="full" />
    </template>
    <path v-else-if="grade === 'drop'" :d="DROP" class="full" />
    <template v-else-if="grade === 'run'">
      <path :d="DROP" transform="translate(-8 0)" class="full" />
      <path :d="DROP" transform="translate(8 0)" class="full" />
    </template>
    <path v-else d="M-4 -11 H4 L10 11 H-10 Z" class="full" />
  </svg>
</template>

<style scoped>
.drop {
  flex: none;
}
.ring {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}
.dashed {
  stroke-dasharray: 4 3;
}
.full {
  fill: var(--ink);
}
</style>
