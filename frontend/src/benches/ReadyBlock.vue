<script setup lang="ts">
/** Ready to lift: what is not so first, each with the way to it; what is so, folded. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useBook } from '@/stores/book'

const props = defineProps<{ ready: Schemas['Ready'] }>()
const book = useBook()
const build = computed(() => book.card?.id ?? '')
const open = computed(() => props.ready.rows.slice(0, props.ready.open))
const so = computed(() => props.ready.rows.slice(props.ready.open))
</script>

<template>
  <section class="ready" aria-label="Ready to lift">
    <h2 class="t20">{{ ready.title }}</h2>
    <ul>
      <li v-for="r in open" :key="`${r.group} ${r.what}`">
        <small>{{ r.group }}</small>
        <span
          ><RouterLink v-if="r.step" :to="{ name: 'step', params: { build, step: r.step } }" class="b">{{
            r.what
          }}</RouterLink
          ><b v-else>{{ r.what }}</b
          ><small v-if="r.why">{{ r.why }}</small></span
        >
        <b class="state">{{ r.state }}</b>
      </li>
    </ul>
    <details v-if="so.length">
      <summary>{{ so.length }} are so</summary>
      <ul>
        <li v-for="r in so" :key="`${r.group} ${r.what}`">
          <small>{{ r.group }}</small><span
            >{{ r.what }}<small v-if="r.why">{{ r.why }}</small></span
          ><span class="state">{{ r.state }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.ready {
  border-top: 2px solid var(--ink);
  padding-top: 6px;
}
li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) auto;
  gap: 12px;
  align-items: baseline;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
li span small {
  display: block;
}
.state {
  white-space: nowrap;
}
summary {
  padding: 8px 0;
  cursor: pointer;
}
</style>
