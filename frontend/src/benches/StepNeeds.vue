<script setup lang="ts">
/**
 * What a step needs: tools with their state, people with their roles, parts; and what is cheap while it is
 * open.
 */
import type { BenchView } from '@/api/client'
import { hours } from '@/words'
import { useBook } from '@/stores/book'

defineProps<{ bench: BenchView }>()
const book = useBook()
</script>

<template>
  <div
    v-if="
      bench.base.gear.length ||
      bench.base.people.length ||
      bench.base.parts.length ||
      bench.base.extras.length ||
      bench.base.ahead.length
    "
    class="needs"
  >
    <p v-for="line in bench.base.ahead" :key="line" class="b">{{ line }}</p>
    <p v-if="bench.base.gear.length">
      Tools:
      <template v-for="(t, k) in bench.base.gear" :key="t.name"
        >{{ k ? ', ' : '' }}{{ t.name }}<b v-if="!t.owned"> ({{ t.state }})</b></template
      >
    </p>
    <ul v-if="bench.base.people.length > 0">
      <li v-for="p in bench.base.people" :key="p.role">
        <b>{{ p.role }}</b>: {{ p.does }}
      </li>
    </ul>
    <p v-if="bench.base.parts.length">
      <RouterLink :to="{ name: 'parts', params: { build: book.card?.id ?? '' } }">Parts</RouterLink>:
      <template v-for="(p, k) in bench.base.parts" :key="p.need"
        >{{ k ? ', ' : '' }}{{ p.count }} × {{ p.name }}<b v-if="!p.free"> ({{ p.words }})</b></template
      >
    </p>
    <p v-for="x in bench.base.extras" :key="x.id" class="quiet">
      While it is open, <b>{{ x.thing }}</b>: {{ hours(x.now.hours) }} now, {{ hours(x.later.hours) }} later.
      {{ x.because }}.
      <RouterLink :to="{ name: 'plan', params: { build: book.card?.id ?? '' } }"
        >Yes or no, on the plan desk</RouterLink
      >
    </p>
  </div>
</template>

<style scoped>
.needs {
  display: grid;
  gap: 6px;
  font-size: 16px;
  max-width: 640px;
}
</style>
