<script setup lang="ts">
/** Before something closes: what is not final behind it, joint by joint, and one press to all of it. */
import type { BenchView } from '@/api/client'
import DebtRow from './DebtRow.vue'

defineProps<{ bench: BenchView; build: string }>()
</script>

<template>
  <section v-if="bench.base.behind && !bench.base.settled" class="behind" aria-label="Not final behind it">
    <h2>
      {{ bench.base.behind.left }} not final behind it
      <RouterLink :to="{ name: 'debts', params: { build } }">All that is not final</RouterLink>
    </h2>
    <ul>
      <DebtRow v-for="d in bench.base.behind.debts" :key="d.joint" :debt="d" :build="build" hidden />
    </ul>
  </section>
</template>

<style scoped>
h2 {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 20px;
  font-weight: 760;
  margin: 8px 0 2px;
}
h2 a {
  font-size: 18px;
  font-weight: 560;
  color: inherit;
}
</style>
