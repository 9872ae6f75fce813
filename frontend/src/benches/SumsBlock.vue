<script setup lang="ts">
/** Sums that are kept at the step: what went in by name, what came out, and what is another figure now. */
import type { BenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

defineProps<{ bench: BenchView }>()
const book = useBook()
</script>

<template>
  <section v-if="bench.base.sums.length" aria-label="Sums kept here">
    <article v-for="s in bench.base.sums" :key="s.id" :class="{ moved: !s.holds }">
      <p>
        <b>{{ s.title }}:</b> {{ s.answers.map((a) => `${a.name} ${a.text}`).join(', ') }}
      </p>
      <p class="t16 mut">
        {{
          s.inputs.map((i) => `${i.label} ${i.typed}${i.source_name ? ` (${i.source_name})` : ''}`).join(', ')
        }}
      </p>
      <template v-if="!s.holds">
        <p v-for="c in s.changed" :key="c" class="too_close b">{{ capital(c) }}</p>
        <p v-if="s.now.length" class="b">Now: {{ s.now.map((a) => `${a.name} ${a.text}`).join(', ') }}</p>
        <p v-if="s.refusal" class="outside">{{ s.refusal }}</p>
      </template>
      <RouterLink
        class="t16"
        :to="{ name: 'sums', query: { build: book.card?.id ?? '', step: bench.base.step, sum: s.calc } }"
        >Reckon it again</RouterLink
      >
    </article>
  </section>
</template>

<style scoped>
article {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.moved {
  border-left: 8px solid var(--close);
  padding-left: 12px;
}
</style>
