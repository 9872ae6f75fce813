<script setup lang="ts">
/** What has to be read again when one part alone is changed, and the press that says it was. */
import type { BenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

defineProps<{ bench: BenchView }>()
const book = useBook()
</script>

<template>
  <details v-if="bench.base.again.length" class="again">
    <summary class="t16">If one part alone is changed</summary>
    <ul>
      <li v-for="row in bench.base.again" :key="row.what">
        <div>
          <p class="b">{{ capital(row.what) }}</p>
          <p class="t16">read again: {{ row.steps.join(', ') }}</p>
        </div>
        <button
          type="button"
          class="btn small"
          @click="book.act({ kind: 'part changed', step: bench.base.step, what: row.what })"
        >
          {{ row.times ? 'Changed once more' : 'It was changed' }}
        </button>
      </li>
    </ul>
  </details>
</template>

<style scoped>
summary {
  min-height: 44px;
  display: flex;
  align-items: center;
  cursor: pointer;
}
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
</style>
