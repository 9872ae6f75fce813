<script setup lang="ts">
/** One time axis for all courses; what is not allowed is metal, also the time after the limit. */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

export interface Track {
  key: string
  name: string
  unit: string
  lo: number | null
  hi: number | null
  lo_from: number
  samples: [number, number][]
  verdict: string
}
const props = defineProps<{ tracks: Track[]; limit: number; now: number }>()
const id = useId()
const W = 430
const ROW = 84
const span = computed(() => (Math.max(props.limit, props.now * 0.98, 1) * 7) / 6)
const x = (t: number) => (Math.min(t, span.value) / span.value) * W
function top(track: Track): number {
  const most = Math.max(...track.samples.map((s) => s[1]), 0)
  return Math.max((track.hi ?? 0) * 1.2, (track.lo ?? 0) * 3, most * 1.2, 1)
}
const y = (track: Track, value: number) => ROW - 8 - (Math.max(0, value) / top(track)) * (ROW - 16)
const path = (track: Track) =>
  track.samples.map(([t, v], k) => `${k ? 'L' : 'M'}${x(t).toFixed(1)} ${y(track, v).toFixed(1)}`).join(' ')
const tall = computed(() => props.tracks.length * (ROW + 10))
const last = (track: Track) => track.samples[track.samples.length - 1]
const colour = (verdict: string) =>
  verdict === 'outside' ? 'var(--out)' : verdict === 'inside' ? 'var(--in)' : 'var(--mut)'
</script>

<template>
  <div class="chart">
    <ul>
      <li v-for="track in tracks" :key="track.key">
        <span class="b">{{ track.name }}</span>
        <span class="value nowrap" :class="track.verdict"
          >{{ last(track)?.[1] ?? '–' }} <small>{{ track.unit }}</small></span
        >
        <small
          >{{ track.lo !== null ? `from ${track.lo}` : ''
          }}{{ track.hi !== null ? `to ${track.hi}` : '' }}</small
        >
      </li>
    </ul>
    <svg
      :viewBox="`0 0 ${W} ${tall + 22}`"
      role="img"
      aria-label="Courses over time; the figures stand beside them"
    >
      <defs>
        <MetalPattern :id="`c${id}`" />
      </defs>
      <g v-for="(track, k) in tracks" :key="track.key" :transform="`translate(0 ${k * (ROW + 10)})`">
        <rect x="0" y="0" :width="W" :height="ROW" fill="var(--slot)" />
        <g v-if="track.hi !== null">
          <rect x="0" y="0" :width="x(limit)" :height="y(track, track.hi)" :fill="`url(#c${id})`" />
          <line
            x1="0"
            :x2="x(limit)"
            :y1="y(track, track.hi)"
            :y2="y(track, track.hi)"
            stroke="var(--ink)"
            stroke-width="2.6"
          />
        </g>
        <g v-if="track.lo !== null">
          <rect
            :x="x(track.lo_from)"
            :y="y(track, track.lo)"
            :width="Math.max(0, x(limit) - x(track.lo_from))"
            :height="ROW - y(track, track.lo)"
            :fill="`url(#c${id})`"
          />
          <path
            :d="`M${x(track.lo_from)} ${ROW} V${y(track, track.lo)} H${x(limit)}`"
            stroke="var(--ink)"
            stroke-width="2.6"
            fill="none"
          />
        </g>
        <path d="M0 0 V84" stroke="var(--ink)" stroke-width="1.4" />
        <path :d="path(track)" stroke="var(--now)" stroke-width="8" fill="none" />
        <path :d="path(track)" stroke="var(--ink)" stroke-width="3.4" fill="none" />
        <circle
          v-if="last(track)"
          :cx="x(last(track)[0])"
          :cy="y(track, last(track)[1])"
          r="8"
          :fill="colour(track.verdict)"
          stroke="var(--now)"
          stroke-width="2"
        />
      </g>
      <rect :x="x(limit)" y="0" :width="W - x(limit)" :height="tall - 10" :fill="`url(#c${id})`" />
      <line :x1="x(limit)" :x2="x(limit)" y1="0" :y2="tall - 10" stroke="var(--ink)" stroke-width="5" />
      <line
        :x1="x(now)"
        :x2="x(now)"
        y1="0"
        :y2="tall - 10"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="2 4"
      />
      <text x="0" :y="tall + 12" class="axis">0</text>
      <text :x="x(limit)" :y="tall + 12" text-anchor="middle" class="axis">{{ limit }} s</text>
    </svg>
  </div>
</template>

<style scoped>
.chart {
  display: grid;
  grid-template-columns: 132px 1fr;
  gap: 10px;
}
li {
  height: 94px;
  line-height: 1.15;
  overflow: hidden;
}
li > span {
  display: block;
}
.nowrap {
  white-space: nowrap;
}
.value {
  font-size: 28px;
  font-weight: 820;
}
small {
  font-size: 16px;
  font-weight: 460;
  color: var(--mut);
}
svg {
  width: 100%;
}
.axis {
  font-size: 16px;
  fill: var(--ink);
}
</style>
