<script setup lang="ts">
/**
 * One lane a cylinder: every piston that could go in, at the clearance that it gives; the proposed one on
 * yellow, the chosen one ringed.
 */
import { computed, useId } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import { scale } from './geometry'
import MetalPattern from './MetalPattern.vue'

type Match = NonNullable<MeasureBenchView['match']>
const props = defineProps<{ match: Match; chosen: readonly string[] }>()
const emit = defineEmits<{ choose: [lane: number, inner: string] }>()
const id = useId()
const W = 320
const ROW = 58
const judged = computed(() => props.match.lanes.flatMap((lane) => lane.options.map((o) => o.judgement)))
const lo = computed(() => judged.value[0]?.lo ?? null)
const hi = computed(() => judged.value[0]?.hi ?? null)
const target = computed(() => judged.value[0]?.target ?? null)
const domain = computed<[number, number]>(() => {
  const all = [...judged.value.map((j) => j.value ?? 0), lo.value ?? 0, hi.value ?? 0]
  const low = Math.min(...all)
  const high = Math.max(...all)
  const room = (high - low || 0.01) * 0.12
  return [low - room, high + room]
})
const x = computed(() => scale(domain.value, W))
const tall = computed(() => props.match.lanes.length * ROW)
const number = (inner: string) => props.match.lanes[0].options.findIndex((o) => o.inner === inner) + 1
/** The chosen one is drawn last, over its neighbours. */
function onTop(options: Match['lanes'][number]['options'], lane: number) {
  const last = (inner: string) => Number(inner === props.chosen[lane])
  return [...options].sort((a, b) => last(a.inner) - last(b.inner))
}
const taken = computed(() =>
  props.match.lanes.map((lane, k) => lane.options.find((o) => o.inner === props.chosen[k]) ?? null),
)
</script>

<template>
  <div class="pairs">
    <svg :width="W" :height="tall" :viewBox="`0 0 ${W} ${tall}`">
      <defs>
        <MetalPattern :id="`p${id}`" soft />
      </defs>
      <rect
        v-if="lo !== null && hi !== null"
        :x="x(lo)"
        y="0"
        :width="x(hi) - x(lo)"
        :height="tall"
        fill="var(--slot)"
      />
      <rect v-if="lo !== null" x="0" y="0" :width="x(lo)" :height="tall" :fill="`url(#p${id})`" />
      <rect v-if="hi !== null" :x="x(hi)" y="0" :width="W - x(hi)" :height="tall" :fill="`url(#p${id})`" />
      <line
        v-if="target !== null"
        :x1="x(target)"
        :x2="x(target)"
        y1="0"
        :y2="tall"
        stroke="var(--metal)"
        stroke-width="1.6"
        stroke-dasharray="7 3 2 3"
      />
      <g v-for="(lane, k) in match.lanes" :key="lane.result">
        <line x1="0" :x2="W" :y1="k * ROW + ROW" :y2="k * ROW + ROW" stroke="var(--hair)" />
        <g
          v-for="o in onTop(lane.options, k)"
          :key="o.inner"
          class="option"
          :class="{ best: o.best, ring: o.inner === chosen[k] }"
          :transform="`translate(${x(o.judgement.value ?? 0)} ${k * ROW + ROW / 2})`"
          @click="emit('choose', k, o.inner)"
        >
          <circle r="14" />
          <text y="6" text-anchor="middle">{{ number(o.inner) }}</text>
        </g>
      </g>
    </svg>
    <ol>
      <li v-for="(lane, k) in match.lanes" :key="lane.result">
        <b>{{ lane.outer_text }}</b><i />
        <span
          ><b>{{ match.inner }} {{ taken[k] ? number(taken[k]!.inner) : '–' }}</b
          ><em :class="taken[k]?.judgement.verdict">{{ taken[k]?.judgement.value_text }}</em></span
        >
      </li>
    </ol>
  </div>
</template>

<style scoped>
.pairs {
  position: relative;
  min-width: 600px;
}
.pairs > svg {
  position: absolute;
  left: 110px;
  top: 0;
}
li {
  display: grid;
  grid-template-columns: 110px 320px 1fr;
  height: 58px;
  align-items: center;
}
em {
  display: block;
  font-style: normal;
  font-size: 20px;
  font-weight: 780;
}
li span {
  padding-left: 12px;
  line-height: 1.15;
}
.option {
  cursor: pointer;
}
.option circle {
  fill: var(--now);
  stroke: var(--line);
  stroke-width: 1.6;
}
.option text {
  font-size: 16px;
  font-weight: 680;
  fill: var(--ink);
}
.best circle {
  fill: var(--yel);
}
.best text {
  fill: var(--onyel);
}
.ring circle {
  stroke: var(--ink);
  stroke-width: 4;
}
</style>
