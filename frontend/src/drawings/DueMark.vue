<script setup lang="ts">
/** What comes due: an arrowhead is late, a half diamond soon, a ring further off. */
defineProps<{ late: boolean; soon: boolean }>()
</script>

<template>
  <svg width="22" height="22" viewBox="-11 -11 22 22" aria-hidden="true" class="due">
    <path v-if="late" d="M-9 -8 L9 0 L-9 8 L-4 0 Z" fill="var(--out)" />
    <template v-else-if="soon">
      <path d="M0 -9 L9 0 L0 9 L-9 0 Z" fill="var(--now)" stroke="var(--close)" stroke-width="2.4" />
      <path d="M0 -9 L9 0 L0 9 Z" fill="var(--close)" />
    </template>
    <circle v-else r="7" fill="none" stroke="var(--mut)" stroke-width="2.2" />
  </svg>
</template>

<style scoped>
.due {
  flex: none;
  vertical-align: middle;
}
</style>
