<script setup lang="ts">
/** The move of one shim, large: from which side to which, both packs after it, what to expect. */
import type { MeasureBenchView } from '@/api/client'
import WorkingLines from '@/shell/WorkingLines.vue'

defineProps<{ carrier: NonNullable<MeasureBenchView['carrier']> }>()
</script>

<template>
  <section aria-label="What it takes">
    <p v-if="carrier.lash_text" class="t28 b" :class="carrier.ready ? carrier.verdict : ''">
      {{ carrier.lash_text }}
    </p>
    <p v-if="carrier.target_text" class="t16">to {{ carrier.target_text }}, the middle</p>
    <template v-if="carrier.move_text">
      <p class="t20 b">{{ carrier.move_text }}</p>
      <dl>
        <dt>{{ carrier.near_name }}</dt>
        <dd>{{ carrier.near_after }}</dd>
        <dt>{{ carrier.far_name }}</dt>
        <dd>{{ carrier.far_after }}</dd>
        <dt>to expect</dt>
        <dd>{{ carrier.predicted }}</dd>
      </dl>
      <p class="t16 mut">
        What one side gets the other gives: the preload stays. Read all teeth again after it.
      </p>
      <WorkingLines :lines="carrier.working" />
    </template>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
}
dd {
  font-weight: 780;
  font-size: 22px;
}
</style>
