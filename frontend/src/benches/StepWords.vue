<script setup lang="ts">
/** What to do, the reason one touch away, what the step leaves open and what it closes. */
import type { BenchView } from '@/api/client'

defineProps<{ bench: BenchView; large?: boolean; quiet?: boolean }>()
</script>

<template>
  <div class="words">
    <p v-if="!quiet" :class="large ? 't24' : 't20'" class="do">{{ bench.base.do }}</p>
    <details v-if="bench.base.why">
      <summary>Why</summary>
      <p>{{ bench.base.why }}</p>
    </details>
    <p v-for="what in bench.base.opens" :key="what" class="opens">
      <svg width="26" height="18" aria-hidden="true">
        <circle cx="7" cy="9" r="4.6" fill="none" stroke="var(--vio)" stroke-width="3" />
        <path d="M12 9H26" stroke="var(--vio)" stroke-width="4" /></svg
      >leaves open: {{ what }}
    </p>
    <p v-for="what in bench.base.closes" :key="what" class="opens">
      <svg width="26" height="18" aria-hidden="true">
        <path d="M0 9H16" stroke="var(--vio)" stroke-width="4" />
        <circle cx="19" cy="9" r="6" fill="var(--vio)" /></svg
      >undoes: {{ what }}
    </p>
    <p v-if="!bench.base.settled && bench.base.blocks" class="t16 mut">
      Not done, it blocks {{ bench.base.blocks.toLowerCase() }}.
    </p>
  </div>
</template>

<style scoped>
.words {
  display: grid;
  gap: 10px;
  max-width: 640px;
}
.do {
  font-weight: 560;
}
summary {
  cursor: pointer;
  font-weight: 650;
  min-height: 44px;
  line-height: 44px;
}
.opens {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
