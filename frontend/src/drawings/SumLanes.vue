<script setup lang="ts">
/** Every sum of the shims in hand on one ruler: its pieces, and the gap that is left with them in. */
import { computed, useId } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import { scale, whiskers } from './geometry'
import VerdictMark from './VerdictMark.vue'
import MetalPattern from './MetalPattern.vue'

type Row = MeasureBenchView['packs'][number]['rows'][number]
const props = defineProps<{ rows: Row[]; lo: number | null; hi: number | null; chosen: number | null }>()
const emit = defineEmits<{ choose: [total: number] }>()
const id = useId()
const W = 150
const ROW = 42
const values = computed(() => props.rows.map((row) => row.judgement.value ?? 0))
const domain = computed<[number, number]>(() => {
  const low = Math.min(...values.value, props.lo ?? Infinity)
  const high = Math.max(...values.value, props.hi ?? -Infinity)
  const room = (high - low || 1) * 0.12
  return [low - room, high + room]
})
const x = computed(() => scale(domain.value, W))
const xl = computed(() => (props.lo === null ? null : x.value(props.lo)))
const xh = computed(() => (props.hi === null ? null : x.value(props.hi)))
const tall = computed(() => props.rows.length * ROW)
</script>

<template>
  <div class="sums">
    <svg :width="W" :height="tall" :viewBox="`0 0 ${W} ${tall}`" aria-hidden="true">
      <defs>
        <MetalPattern :id="`m${id}`" soft />
      </defs>
      <rect :x="xl ?? 0" y="0" :width="(xh ?? W) - (xl ?? 0)" :height="tall" fill="var(--slot)" />
      <rect v-if="xl !== null" x="0" y="0" :width="xl" :height="tall" :fill="`url(#m${id})`" />
      <rect v-if="xh !== null" :x="xh" y="0" :width="W - xh" :height="tall" :fill="`url(#m${id})`" />
      <line
        v-for="(edge, k) in [xl, xh]"
        v-show="edge !== null"
        :key="k"
        :x1="edge ?? 0"
        :x2="edge ?? 0"
        y1="0"
        :y2="tall"
        stroke="var(--ink)"
        stroke-width="4"
      />
      <g v-for="(row, k) in rows" :key="row.total">
        <path
          v-if="row.judgement.U"
          :d="whiskers(x(values[k] - row.judgement.U), x(values[k] + row.judgement.U), k * ROW + ROW / 2, 8)"
          stroke="var(--metal)"
          stroke-width="2.4"
        />
        <circle :cx="x(values[k])" :cy="k * ROW + ROW / 2" r="12" fill="var(--now)" fill-opacity="0.85" />
        <VerdictMark
          :verdict="row.judgement.verdict"
          :side="row.judgement.side"
          :size="10"
          :x="x(values[k]) - 13"
          :y="k * ROW + ROW / 2 - 13"
        />
      </g>
    </svg>
    <ol>
      <li v-for="row in rows" :key="row.total">
        <button
          type="button"
          :class="{ best: row.best, chosen: row.total === chosen }"
          :aria-pressed="row.total === chosen"
          @click="emit('choose', row.total)"
        >
          <span class="total"
            ><b>{{ row.total_text }}</b> {{ row.words }}</span
          ><i /><b class="left" :class="row.judgement.verdict">{{ row.judgement.value_text }}</b>
        </button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.sums {
  position: relative;
  width: 330px;
}
.sums > svg {
  position: absolute;
  left: 116px;
  top: 0;
  pointer-events: none;
}
button {
  display: grid;
  grid-template-columns: 116px 150px 1fr;
  align-items: center;
  width: 100%;
  height: 42px;
  border: 0;
  border-bottom: 1px solid var(--hair);
  background: none;
  padding: 0;
  cursor: pointer;
  text-align: left;
}
.total {
  font-size: 16px;
  padding: 6px 4px;
  white-space: nowrap;
}
.total b {
  font-size: 20px;
  font-weight: 780;
}
.best .total {
  background: var(--yel);
  color: var(--onyel);
}
.chosen {
  box-shadow:
    inset 0 2px 0 var(--ink),
    inset 0 -2px 0 var(--ink);
}
.left {
  font-size: 20px;
  font-weight: 780;
  text-align: right;
}
</style>
