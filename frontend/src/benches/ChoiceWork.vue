<script setup lang="ts">
/**
 * What is chosen at the step, drawn: shims of a gap, pistons and bores, shims of valves,
 * packs of a carrier. */
import type { MeasureBenchView } from '@/api/client'
import type { Choices } from '@/composables/choices'
import CarrierBench from './CarrierBench.vue'
import MatchBench from './MatchBench.vue'
import PackBench from './PackBench.vue'
import SwapTable from './SwapTable.vue'

defineProps<{ bench: MeasureBenchView; choices: Choices }>()
const emit = defineEmits<{ form: [open: boolean]; total: [total: number] }>()
</script>

<template>
  <PackBench
    v-if="choices.pack"
    :bench="bench"
    :pack="choices.pack"
    :chosen="choices.row"
    :form="choices.form"
    @choose="emit('total', $event)"
    @done="emit('form', false)"
  />
  <MatchBench
    v-else-if="choices.match"
    :match="choices.match"
    :chosen="choices.inners"
    @choose="choices.swapTo"
  />
  <SwapTable
    v-else-if="choices.table"
    :table="choices.table"
    :step="bench.base.step"
    :tools="bench.kit_tools"
    :form="choices.form"
    @done="emit('form', false)"
  />
  <CarrierBench
    v-else-if="choices.carrier"
    :carrier="choices.carrier"
    :step="bench.base.step"
    :tools="bench.kit_tools"
    :form="choices.form"
    @done="emit('form', false)"
  />
</template>
