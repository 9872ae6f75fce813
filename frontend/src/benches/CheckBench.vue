<script setup lang="ts">
/** Check, connect, fit, inspect and wait: the instruction, the reason, one tick. */
import { ref } from 'vue'
import type { CheckBenchView } from '@/api/client'
import BenchFrame from './BenchFrame.vue'
import StepWords from './StepWords.vue'

defineProps<{ bench: CheckBenchView }>()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
</script>

<template>
  <BenchFrame ref="frame" :bench="bench" @primary="frame?.done()">
    <template #work><StepWords :bench="bench" large /></template>
  </BenchFrame>
</template>
