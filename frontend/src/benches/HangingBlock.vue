<script setup lang="ts">
/** While a unit hangs: the lines that nobody reaches once it sits, each with its way and its proof. */
import { useNow } from '@vueuse/core'
import type { Schemas } from '@/api/client'
import { ago } from '@/composables/time'
import TieLine from '@/shell/TieLine.vue'
import { useBook } from '@/stores/book'

defineProps<{ hanging: Schemas['Hanging'] }>()
const book = useBook()
const now = useNow({ interval: 10000 })
</script>

<template>
  <section class="hanging" aria-label="Only while it hangs">
    <h2 class="t20">{{ hanging.title }}</h2>
    <p class="t16">
      Nobody reaches them after {{ hanging.seat }}. Hands go in only where it is blocked<template
        v-if="hanging.half"
        >: {{ hanging.half.held }}, {{ hanging.half.who }} {{ ago(hanging.half.since, now) }}. Look at it
        first</template
      >.
    </p>
    <TieLine v-for="row in hanging.rows" :key="row.item" :row="row" :build="book.card?.id ?? ''" />
  </section>
</template>

<style scoped>
.hanging {
  border: 3px solid var(--vio);
  padding: 10px 12px;
}
</style>
