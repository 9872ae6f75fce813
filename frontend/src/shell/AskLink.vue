<script setup lang="ts">
/** Ask somebody about this: the facts go along by themselves. */
import type { Schemas } from '@/api/client'
import { useBook } from '@/stores/book'

defineProps<{ sort: Schemas['QuestionAskedAct']['sort']; about: string }>()
const book = useBook()
</script>

<template>
  <RouterLink
    v-if="book.card"
    class="btn small"
    :to="{ name: 'ask', params: { build: book.card.id }, query: { sort, about } }"
    >Ask somebody</RouterLink
  >
</template>
