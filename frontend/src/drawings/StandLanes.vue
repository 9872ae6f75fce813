<script setup lang="ts">
/**
 * Where a group may stand: one lane a condition, metal where it fails, and the slot that all of them leave.
 * Nought is where it stands now.
 */
import { computed, useId } from 'vue'
import type { TightenBenchView } from '@/api/client'
import { scale } from './geometry'
import MetalPattern from './MetalPattern.vue'

type Group = NonNullable<TightenBenchView['group']>
const props = defineProps<{ group: Group }>()
const id = useId()
const W = 300
const ROW = 34
const lanes = computed(() => [
  ...props.group.lanes,
  {
    name: props.group.lanes.length > 2 ? 'All of them' : 'Both',
    value_text: '',
    words: '',
    verdict: '',
    least: props.group.least,
    most: props.group.most,
  },
])
const domain = computed<[number, number]>(() => {
  const known = lanes.value.flatMap((l) => [l.least, l.most]).filter((v): v is number => v !== null)
  const low = Math.min(0, ...known)
  const high = Math.max(0, ...known)
  const room = (high - low || 4) * 0.3
  return [low - room, high + room]
})
const x = computed(() => scale(domain.value, W))
const none = computed(
  () => props.group.least !== null && props.group.most !== null && props.group.least > props.group.most,
)
</script>

<template>
  <div class="stand">
    <p class="t16 mut">0 = where it stands now, mm{{ group.towards ? `, right is ${group.towards}` : '' }}</p>
    <div class="rows">
      <ol>
        <li v-for="(lane, k) in lanes" :key="k" :style="{ height: `${ROW}px` }">
          <span :class="{ b: k === lanes.length - 1 }">{{ lane.name }}</span><i /><b :class="lane.verdict">{{
            lane.value_text
          }}</b>
        </li>
      </ol>
      <svg
        :width="W"
        :height="lanes.length * ROW"
        :viewBox="`0 0 ${W} ${lanes.length * ROW}`"
        aria-hidden="true"
      >
        <defs>
          <MetalPattern :id="`g${id}`" />
        </defs>
        <g v-for="(lane, k) in lanes" :key="k" :transform="`translate(0 ${k * ROW + 4})`">
          <rect x="0" y="0" :width="W" :height="ROW - 8" fill="var(--slot)" />
          <rect
            v-if="k === lanes.length - 1 && none"
            x="0"
            y="0"
            :width="W"
            :height="ROW - 8"
            :fill="`url(#g${id})`"
          />
          <template v-else>
            <rect
              v-if="lane.least !== null"
              x="0"
              y="0"
              :width="Math.max(0, x(lane.least))"
              :height="ROW - 8"
              :fill="`url(#g${id})`"
            />
            <rect
              v-if="lane.most !== null"
              :x="x(lane.most)"
              y="0"
              :width="Math.max(0, W - x(lane.most))"
              :height="ROW - 8"
              :fill="`url(#g${id})`"
            />
            <path
              v-for="(edge, e) in [lane.least, lane.most].filter((v) => v !== null)"
              :key="e"
              :d="`M${x(edge)} -2 V${ROW - 6}`"
              stroke="var(--ink)"
              stroke-width="4"
            />
          </template>
        </g>
        <path :d="`M${x(0)} 0 V${lanes.length * ROW}`" stroke="var(--in)" stroke-width="3" />
        <circle
          :cx="x(0)"
          :cy="lanes.length * ROW - ROW / 2"
          r="9"
          fill="var(--in)"
          stroke="var(--now)"
          stroke-width="2"
        />
      </svg>
    </div>
  </div>
</template>

<style scoped>
.rows {
  position: relative;
}
.rows svg {
  position: absolute;
  left: 220px;
  top: 0;
}
li {
  display: grid;
  grid-template-columns: 220px 300px 1fr;
  align-items: center;
  font-size: 16px;
  line-height: 1.05;
}
li b {
  padding-left: 10px;
  white-space: nowrap;
}
@media (max-width: 600px) {
  .rows {
    overflow-x: auto;
  }
}
</style>
