<script setup lang="ts">
/**
 * The way of the oil through a unit: what failed, what lies downstream in its order, and which flows were
 * followed.
 */
import { computed } from 'vue'
import type { Trace } from '@/api/client'
import { arrow } from './geometry'

const props = defineProps<{ trace: Trace; at: string | null }>()
const emit = defineEmits<{ pick: [station: string] }>()
const place = computed(() => new Map(props.trace.stations.map((s) => [s.id, s])))
const R = 14

const flows = computed(() =>
  props.trace.flows
    .map((flow) => {
      const a = place.value.get(flow.start)
      const b = place.value.get(flow.to)
      if (!a || !b) return null
      const on =
        props.trace.reached.includes(flow.start) &&
        props.trace.reached.includes(flow.to) &&
        props.trace.failed !== flow.to
      return {
        key: `${flow.start}-${flow.to}`,
        ...arrow(a, b, R),
        on,
        followed: on && props.trace.seen[flow.to],
      }
    })
    .filter((f) => f !== null),
)
const outline = computed(() =>
  props.trace.outline.map((line) => 'M' + line.map(([x, y]) => `${x} ${y}`).join(' L')),
)
const words = computed(() =>
  props.trace.stations
    .filter((s) => props.trace.marks[s.id])
    .map((s) =>
      [
        props.trace.marks[s.id] === 'F' ? 'failed' : props.trace.marks[s.id],
        `${s.name},`,
        props.trace.seen[s.id] ? 'seen' : 'not wholly seen',
      ].join(' '),
    )
    .join('; '),
)
function pressed(station: Trace['stations'][number]): string {
  const mark = props.trace.marks[station.id] ? `${props.trace.marks[station.id]} ` : ''
  const failed = props.trace.failed === station.id ? ', failed' : ''
  return `${mark}${station.name}${failed}: press if this broke up`
}
</script>

<template>
  <figure class="trace">
    <svg viewBox="0 0 640 160" role="group" :aria-label="trace.words">
      <path v-for="(d, k) in outline" :key="k" :d="d" class="body" :class="{ inner: k > 0 }" />
      <template v-for="flow in flows" :key="flow.key">
        <path v-if="flow.on" :d="flow.d" class="halo" />
        <path :d="flow.d" class="flow" :class="{ on: flow.on, followed: flow.followed }" />
        <path
          v-if="flow.on"
          d="M-9 -5 L0 0 L-9 5 Z"
          class="tip"
          :transform="`translate(${flow.tip.x} ${flow.tip.y}) rotate(${flow.turn})`"
        />
      </template>
      <g
        v-for="s in trace.stations"
        :key="s.id"
        :transform="`translate(${s.x} ${s.y})`"
        class="station"
        :class="{
          failed: trace.failed === s.id,
          inhand: at !== null && s.part === at && trace.failed !== s.id,
          off: trace.failed !== null && !trace.marks[s.id],
        }"
        role="button"
        tabindex="0"
        :aria-label="pressed(s)"
        @click="emit('pick', s.id)"
        @keydown.enter.prevent="emit('pick', s.id)"
        @keydown.space.prevent.stop="emit('pick', s.id)"
      >
        <circle :r="22" class="touch" />
        <rect v-if="s.filter" :x="-R" :y="-R" :width="2 * R" :height="2 * R" class="spot" />
        <circle v-else :r="R" class="spot" />
        <text v-if="trace.marks[s.id]" text-anchor="middle" dy="6">{{ trace.marks[s.id] }}</text>
        <path v-else-if="s.filter" d="M-8 -8 L8 8 M8 -8 L-8 8" class="mesh" />
        <title>{{ s.name }}</title>
      </g>
    </svg>
    <figcaption>
      <b>{{ trace.words }}</b><span v-if="trace.failed" class="t16 mut"
        >Solid: followed, dashed: not yet. A square holds chips back, for a while.</span
      ><span class="sr">{{ words }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.trace {
  min-width: 0;
}
svg {
  width: 100%;
  height: auto;
  display: block;
  max-height: 190px;
}
.body {
  fill: var(--zinc2);
  stroke: var(--line);
  stroke-width: 2.4;
  stroke-linejoin: round;
}
.inner {
  fill: none;
  stroke: var(--metal);
  stroke-width: 1.4;
  stroke-dasharray: 14 4 3 4;
}
.halo {
  fill: none;
  stroke: var(--now);
  stroke-width: 8;
}
.flow {
  fill: none;
  stroke: var(--metal);
  stroke-width: 1.4;
}
.flow.on {
  stroke: var(--ink);
  stroke-width: 3.2;
  stroke-dasharray: 7 5;
}
.flow.followed {
  stroke-dasharray: none;
}
.tip {
  fill: var(--ink);
}
.station {
  cursor: pointer;
}
.touch {
  fill: transparent;
}
.spot {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 2.2;
}
.off .spot {
  stroke: var(--metal);
}
.failed .spot {
  fill: var(--out);
}
.failed text {
  fill: var(--now);
}
.inhand .spot {
  fill: var(--yel);
  stroke-width: 3;
}
.inhand text {
  fill: var(--onyel);
}
.mesh {
  stroke: var(--metal);
  stroke-width: 1.4;
  fill: none;
}
text {
  font-size: 18px;
  font-weight: 800;
  fill: var(--ink);
}
figcaption {
  font-size: 18px;
  line-height: 1.25;
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: baseline;
}
.station:focus-visible {
  outline: none;
}
.station:focus-visible .spot {
  stroke-width: 5;
}
</style>
