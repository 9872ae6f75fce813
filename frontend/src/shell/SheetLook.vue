<script setup lang="ts">
/** What a sheet breaks of the laws: where it stands, how, and what would be right. */
import type { components } from '@/api/schema'

defineProps<{ look: components['schemas']['SheetLook'] }>()
</script>

<template>
  <section class="look" :class="{ block: look.refused }" role="alert" aria-label="The sheet and the laws">
    <p>
      <b>{{ look.words }}.</b>
    </p>
    <ol v-if="look.breaches.length">
      <li v-for="(b, k) in look.breaches" :key="k">
        <b>{{ b.line === null ? 'Sheet' : `Line ${b.line}` }}{{ b.safety ? ', safety' : '' }}</b>
        {{ b.words }}. <small>{{ b.name }}. Right: {{ b.right }}.</small>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.look {
  max-height: 40vh;
  padding: 12px 14px;
  overflow: auto;
  background: var(--panel);
  border-left: 4px solid var(--line);
}
ol {
  display: grid;
  gap: 8px;
  padding-left: 22px;
  margin: 8px 0 0;
}
small {
  display: block;
}
</style>
