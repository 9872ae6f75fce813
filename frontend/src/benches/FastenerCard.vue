<script setup lang="ts">
/** What has to be known of these fasteners beside their torque, and their lengths by hole, to scale. */
import type { TightenBenchView } from '@/api/client'
import FastenerScale from '@/drawings/FastenerScale.vue'

defineProps<{ bench: TightenBenchView }>()
</script>

<template>
  <section v-if="bench.card.length || bench.lengths.length" class="card" aria-label="These fasteners">
    <dl>
      <div v-for="line in bench.card" :key="line.about">
        <dt>{{ line.about }}</dt>
        <dd>{{ line.words }}</dd>
      </div>
    </dl>
    <FastenerScale v-if="bench.lengths.length" :lines="bench.lengths" :at="-1" />
  </section>
</template>

<style scoped>
dl {
  display: grid;
  gap: 2px 16px;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
}
div {
  display: flex;
  gap: 8px;
  border-top: 1px solid var(--hair);
  padding: 3px 0;
}
dt {
  flex: 0 0 84px;
  font-size: 16px;
  color: var(--mut);
}
dd {
  font-weight: 560;
}
</style>
