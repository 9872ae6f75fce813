<script setup lang="ts">
/** A build as a tape of nine stages with its pointer, its strands and the gate at Wake. */
import { computed } from 'vue'

const props = defineProps<{
  stages: { id: string; done: number; total: number }[]
  strands: { stage: string; what: string }[]
  current: string
}>()
const W = 672
const part = W / 9
const STAGES = ['plan', 'take_down', 'inspect', 'order', 'prepare', 'build_up', 'fit_in', 'wake', 'settle']
const place = computed(() => {
  const index = STAGES.indexOf(props.current)
  const stage = props.stages[index]
  return index * part + (stage?.total ? (stage.done / stage.total) * part : 0)
})
const lines = computed(() =>
  props.strands.slice(0, 5).map((s, k) => ({
    from: Math.max(0, STAGES.indexOf(s.stage)) * part + 12 + k * 5,
    y: 46 + k * 8,
    what: s.what,
    dashed: k % 2 === 1,
  })),
)
const gate = 7 * part + 6
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${50 + Math.max(1, lines.length) * 8}`" aria-hidden="true" class="tape">
    <path
      :d="
        Array.from(
          { length: 28 },
          (_, k) => `M${Math.min(W - 1, Math.max(1, (k * W) / 27))} ${k % 3 ? 8 : 2} V18`,
        ).join(' ')
      "
      stroke="var(--line)"
      stroke-width="2"
    />
    <rect x="0" y="20" :width="W" height="10" fill="var(--hair)" />
    <rect x="0" y="20" :width="place" height="10" fill="var(--ink)" />
    <path
      v-for="line in lines"
      :key="line.what"
      :d="`M${line.from} ${line.y} H${Math.max(gate - 4, line.from + 8)}`"
      stroke="var(--vio)"
      stroke-width="3.4"
      :stroke-dasharray="line.dashed ? '13 4' : undefined"
    />
    <circle
      v-for="line in lines"
      :key="`c${line.what}`"
      :cx="line.from - 2"
      :cy="line.y"
      r="4.2"
      fill="var(--now)"
      stroke="var(--vio)"
      stroke-width="2.6"
    />
    <rect v-if="lines.length" :x="gate" y="40" width="7" :height="lines.length * 8 + 6" fill="var(--ink)" />
    <path
      :d="`M${Math.max(12, place) - 11} 6 h22 v20 l-11 10 l-11 -10 Z`"
      fill="var(--yel)"
      stroke="var(--onyel)"
      stroke-width="2"
    />
  </svg>
</template>

<style scoped>
.tape {
  display: block;
  width: 100%;
}
</style>
