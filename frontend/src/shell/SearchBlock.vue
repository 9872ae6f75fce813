<script setup lang="ts">
/** What is looked for, and for how long before a new one is ordered; found, or given up. */
import { reactive } from 'vue'
import type { Schemas } from '@/api/client'
import { useBook } from '@/stores/book'

defineProps<{ searches: readonly Schemas['Search'][] }>()
const book = useBook()
const where = reactive<Record<string, string>>({})
const instead = reactive<Record<string, string>>({})
const found = (s: Schemas['Search']) =>
  book.handed({ kind: 'search ended', thing: s.thing, where: (where[s.thing] ?? '').trim() })
const gone = (s: Schemas['Search'], reorder: boolean) =>
  book.handed({
    kind: 'search ended',
    thing: s.thing,
    where: null,
    instead: (instead[s.thing] ?? '').trim() || null,
    reorder,
  })
</script>

<template>
  <section v-for="s in searches" :key="s.thing" class="search" :aria-label="`Looked for: ${s.what}`">
    <p>
      <b>Looked for: {{ s.what }}.</b> <span :class="{ too_close: s.over, b: s.over }">{{ s.words }}</span>{{
        s.last_seen ? `. Last seen ${s.last_seen}` : ''
      }}
    </p>
    <form @submit.prevent="found(s)">
      <label class="sr" :for="`where${s.thing}`">Where it was</label
      ><input
        :id="`where${s.thing}`"
        v-model="where[s.thing]"
        class="entry"
        :name="`where-${s.thing}`"
        maxlength="200"
        placeholder="where it was"
        autocomplete="off"
      /><button type="submit" class="btn small" :disabled="!(where[s.thing] ?? '').trim()">Found</button>
    </form>
    <form @submit.prevent="gone(s, true)">
      <label class="sr" :for="`instead${s.thing}`">What goes instead, and its risk</label
      ><input
        :id="`instead${s.thing}`"
        v-model="instead[s.thing]"
        class="entry"
        :name="`instead-${s.thing}`"
        maxlength="200"
        placeholder="instead of it, and its risk"
        autocomplete="off"
      /><button type="submit" class="btn small">A new one</button
      ><button type="button" class="btn small" @click="gone(s, false)">Not needed</button>
    </form>
  </section>
</template>

<style scoped>
.search {
  border: 3px solid var(--ink);
  padding: 8px 12px;
  margin-bottom: 10px;
  display: grid;
  gap: 6px;
}
form {
  display: flex;
  gap: 8px;
}
input {
  flex: 1;
  min-width: 0;
}
</style>
