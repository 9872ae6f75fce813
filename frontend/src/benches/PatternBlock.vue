<script setup lang="ts">
/** Where the paste is worn off on both sides of the teeth, and what that asks for. */
import { ref, watch } from 'vue'
import type { CheckBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import ToothPattern from '@/drawings/ToothPattern.vue'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

const props = defineProps<{
  pattern: NonNullable<CheckBenchView['pattern']>
  step: string
  settled: boolean
}>()
const book = useBook()
const { problem, served } = useServer()
const drive = ref(props.pattern.drive_side)
const coast = ref(props.pattern.coast_side)
watch(
  () => props.step,
  () => {
    drive.value = props.pattern.drive_side
    coast.value = props.pattern.coast_side
  },
)
const write = () =>
  served(() =>
    book.write({
      kind: 'pattern seen',
      step: props.step,
      drive_side: drive.value ?? '',
      coast_side: coast.value ?? '',
    }),
  )
</script>

<template>
  <section class="pattern" aria-label="Contact pattern">
    <div class="sides">
      <ToothPattern side="drive" :at="drive" @pick="drive = $event" />
      <ToothPattern side="coast" :at="coast" @pick="coast = $event" />
    </div>
    <p v-if="pattern.words" class="t20 b" :class="pattern.right ? 'inside' : 'outside'">
      {{ capital(pattern.words) }}.
      <span class="t16 mut">round {{ pattern.rounds }}, {{ pattern.who }}</span>
    </p>
    <p v-else class="t20">Touch where the paste is worn off, on each side.</p>
    <button v-if="!settled" type="button" class="btn" :disabled="!drive || !coast" @click="write">
      So it bears
    </button>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.pattern {
  display: grid;
  gap: 8px;
}
.sides {
  display: flex;
  gap: 24px;
  flex-wrap: wrap;
}
</style>
