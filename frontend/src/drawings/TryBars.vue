<script setup lang="ts">
/** Tries at one fault on one scale: the slot is in time, metal is late; the last three. */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

const props = defineProps<{ tries: readonly { late: number | null; ok: boolean }[]; grace: number }>()
const id = useId()
const [W, SLOT] = [118, 36]
const last = computed(() => {
  const from = Math.max(0, props.tries.length - 3)
  return props.tries.slice(from).map((t, k) => ({ ...t, number: from + k + 1 }))
})
const most = computed(() => Math.max(...last.value.map((t) => t.late ?? 0), props.grace * 3))
const x = (late: number) =>
  late <= props.grace
    ? (late / props.grace) * SLOT
    : SLOT + ((late - props.grace) / (most.value - props.grace)) * (W - SLOT - 12)
</script>

<template>
  <ol class="tries">
    <li v-for="t in last" :key="t.number">
      <b>{{ t.number }}</b>
      <svg :width="W" height="24" :viewBox="`0 0 ${W} 24`" aria-hidden="true">
        <defs><MetalPattern :id="`t${id}`" /></defs>
        <rect x="0" y="1" :width="SLOT" height="22" fill="var(--slot)" />
        <rect :x="SLOT" y="1" :width="W - SLOT" height="22" :fill="`url(#t${id})`" />
        <path :d="`M${SLOT} 0 V24`" stroke="var(--ink)" stroke-width="3" />
        <circle v-if="t.ok" :cx="Math.max(8, x(t.late ?? 0))" cy="12" r="7" fill="var(--in)" />
        <path v-else-if="t.late !== null" :d="`M${x(t.late)} 4 l13 8 l-13 8 z`" fill="var(--out)" />
      </svg>
      <span>{{ t.ok ? 'in time' : t.late === null ? 'too early' : `${t.late.toFixed(1)} s` }}</span>
    </li>
  </ol>
</template>

<style scoped>
.tries span {
  white-space: nowrap;
}
.tries li {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
