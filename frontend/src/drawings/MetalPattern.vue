<script setup lang="ts">
/** The hatching of what is closed: a pattern for the `defs` of a drawing, by the id that fills with it. */
defineProps<{ id: string; soft?: boolean }>()
</script>

<template>
  <pattern :id="id" width="6.3" height="6.3" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <line x1="0" y1="0" x2="0" y2="6.3" stroke="var(--metal)" stroke-width="1.5" :opacity="soft ? 0.75 : 1" />
  </pattern>
</template>
