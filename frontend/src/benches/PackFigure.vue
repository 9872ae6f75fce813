<script setup lang="ts">
/** What to put on, large; what it leaves, and the working. */
import type { MeasureBenchView } from '@/api/client'
import LimitBar from '@/drawings/LimitBar.vue'
import WorkingLines from '@/shell/WorkingLines.vue'

defineProps<{
  pack: MeasureBenchView['packs'][number]
  row: MeasureBenchView['packs'][number]['rows'][number]
}>()
</script>

<template>
  <div class="put">
    <p class="t20">{{ row.pieces.length > 1 ? 'Put in, thick one first' : 'Put in' }}</p>
    <p class="huge">
      {{ row.pieces.length ? row.total_text : 'none' }}<span v-if="row.pieces.length" class="t24">mm</span>
    </p>
    <p v-if="row.pieces.length > 1" class="t24 b">{{ row.pieces.join(' + ') }}</p>
    <p class="t24 b" :class="row.judgement.verdict">
      {{ pack.limit.name }} {{ row.judgement.value_text }}, {{ row.judgement.words }}
    </p>
    <LimitBar
      :bar="row.judgement"
      :verdict="row.judgement.verdict"
      :side="row.judgement.side"
      :assumed="row.judgement.assumed"
      :lo-text="row.judgement.lo_text"
      :hi-text="row.judgement.hi_text"
      :words="row.judgement.words"
    />
    <p v-if="pack.check" class="t16">Then: {{ pack.check }}.</p>
    <WorkingLines :lines="row.judgement.working" />
  </div>
</template>

<style scoped>
.put {
  display: grid;
  gap: 4px;
}
.huge {
  font-size: 96px;
  font-weight: 850;
  line-height: 0.95;
  letter-spacing: -2px;
}
</style>
