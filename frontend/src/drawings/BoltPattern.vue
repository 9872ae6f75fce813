<script setup lang="ts">
/**
 * The joint from above, its bolts with their states, the next one highlighted. It only takes numbers and
 * words.
 */
import { computed } from 'vue'
import { arc, fit } from './geometry'

export interface DrawnBolt {
  number: number
  x: number
  y: number
  stage: number
  stages: string[]
  tightness: string
  verdict: string
  side: string | null
  gets: string
  marked: boolean
  locked: boolean
  waits: boolean
  recheck: boolean
}

const props = defineProps<{
  bolts: DrawnBolt[]
  stageCount: number
  stageNow: number | null
  next: number | null
  layout: string
  sides: [string, string] | null
}>()
const emit = defineEmits<{ press: [number: number] }>()

const W = 640
const H = 296
const flat = computed(() => new Set(props.bolts.map((b) => b.y)).size === 1)
const small = computed(() => props.bolts.length > 12)
const r = computed(() => (small.value ? 20 : 31))
const places = computed(() =>
  fit(props.bolts, W - 50, flat.value ? 130 : H - 46, small.value ? 36 : 76).map((p) => ({
    x: p.x + 34,
    y: p.y + (flat.value ? 94 : 22),
  })),
)
const nextAt = computed(() => places.value[props.bolts.findIndex((b) => b.number === props.next)])
const before = computed(() => {
  if (props.next === null) return undefined
  const index = props.bolts.findIndex((b) => b.number === (props.next ?? 0) - 1)
  return index >= 0 ? places.value[index] : undefined
})
const body = computed(() => {
  const xs = places.value.map((p) => p.x)
  const ys = places.value.map((p) => p.y)
  const pad = props.layout === 'circle' ? 40 : 30
  return {
    x: Math.max(30, Math.min(...xs) - pad - 16),
    y: Math.min(...ys) - pad,
    w: Math.max(...xs) - Math.min(...xs) + 2 * pad + 32,
    h: Math.max(...ys) - Math.min(...ys) + 2 * pad,
  }
})
const middle = computed(() => body.value.y + body.value.h / 2)

function arrow(): string {
  const [a, b] = [before.value, nextAt.value]
  if (!a || !b) return ''
  const length = Math.hypot(b.x - a.x, b.y - a.y)
  const [ux, uy] = [(b.x - a.x) / length, (b.y - a.y) / length]
  return `M${a.x + ux * 40} ${a.y + uy * 40} L${b.x - ux * 56} ${b.y - uy * 56}`
}
function ring(index: number): { d: string; colour: string }[] {
  const bolt = props.bolts[index]
  const place = places.value[index]
  const radius = bolt.number === props.next ? r.value + 15 : r.value
  const n = props.stageCount
  const gap = n > 1 ? 0.035 : 0.001
  return Array.from({ length: n }, (_, k) => ({
    d: arc(place.x, place.y, radius, k / n + gap / 2, (k + 1) / n - gap / 2),
    colour: k < bolt.stage ? (bolt.stages[k] === 'outside' ? 'var(--out)' : 'var(--ink)') : 'var(--hair)',
  }))
}
function centre(bolt: DrawnBolt): string {
  if (bolt.number === props.next) return 'var(--yel)'
  const here = props.stageNow !== null && bolt.stage >= props.stageNow
  const done = here || (props.stageNow === null && bolt.stage > 0)
  return done && bolt.verdict !== 'outside' ? 'var(--ink)' : 'var(--now)'
}
function ink(bolt: DrawnBolt): string {
  if (bolt.number === props.next) return 'var(--onyel)'
  if (bolt.verdict === 'outside') return 'var(--out)'
  return centre(bolt) === 'var(--ink)' ? 'var(--now)' : 'var(--ink)'
}
const quarter: Record<string, number> = { 'by hand': 0.25, snug: 0.5, cinched: 0.75 }
function labelY(index: number): number {
  const place = places.value[index]
  const up = place.y < middle.value || flat.value
  return up ? place.y - r.value - 26 : place.y + r.value + 42
}
function wedge(at: { x: number; y: number }, turn: number): string {
  return `${arc(at.x, at.y, r.value - 7, 0, turn)} L${at.x} ${at.y} Z`
}
</script>

<template>
  <svg
    class="pattern"
    :viewBox="`0 0 ${W} ${H}`"
    role="group"
    aria-label="Bolts of the joint, seen from above"
  >
    <defs>
      <marker
        id="arrowhead"
        viewBox="0 0 10 10"
        refX="8"
        refY="5"
        markerWidth="5"
        markerHeight="5"
        orient="auto"
      >
        <path d="M0 0 L10 5 L0 10 Z" fill="var(--ink)" />
      </marker>
    </defs>
    <g v-if="layout === 'head'">
      <rect
        :x="body.x"
        :y="body.y"
        :width="body.w"
        :height="body.h"
        fill="var(--zinc2)"
        stroke="var(--line)"
        stroke-width="2.4"
      />
      <circle
        v-for="(place, k) in places"
        :key="`b${k}`"
        :cx="place.x"
        :cy="place.y"
        r="44"
        fill="var(--zinc2)"
        stroke="var(--line)"
        stroke-width="2.4"
      />
      <rect
        :x="body.x + 1.4"
        :y="body.y + 1.4"
        :width="body.w - 2.8"
        :height="body.h - 2.8"
        fill="var(--zinc2)"
      />
      <line
        :x1="body.x - 10"
        :x2="body.x + body.w + 10"
        :y1="middle"
        :y2="middle"
        stroke="var(--metal)"
        stroke-width="1.1"
        stroke-dasharray="13 3 3 3"
      />
      <g v-for="k in 4" :key="`w${k}`" fill="var(--now)" stroke="var(--metal)" stroke-width="1.4">
        <circle :cx="(places[0]?.x ?? 320) - 256 + (k - 0.5) * 128" :cy="middle" r="17" />
        <circle :cx="(places[0]?.x ?? 320) - 256 + (k - 0.5) * 128" :cy="middle" r="9" />
      </g>
      <g class="front">
        <rect
          :x="body.x - 30"
          :y="middle - 50"
          width="30"
          height="100"
          fill="var(--now)"
          stroke="var(--line)"
          stroke-width="1.4"
        />
        <text :transform="`translate(${body.x - 10} ${middle}) rotate(-90)`" text-anchor="middle">front</text>
      </g>
    </g>
    <rect
      v-else-if="layout !== 'circle'"
      :x="body.x"
      :y="body.y"
      :width="body.w"
      :height="body.h"
      rx="3"
      fill="var(--zinc2)"
      stroke="var(--line)"
      stroke-width="2.4"
    />
    <circle
      v-else
      :cx="body.x + body.w / 2"
      :cy="middle"
      :r="Math.min(body.w, body.h) / 2"
      fill="var(--zinc2)"
      stroke="var(--line)"
      stroke-width="2.4"
    />
    <g v-if="sides" class="sides">
      <text :transform="`translate(${W - 20} ${middle - 58}) rotate(90)`" text-anchor="middle">
        {{ sides[0] }}
      </text>
      <text :transform="`translate(${W - 20} ${middle + 58}) rotate(90)`" text-anchor="middle">
        {{ sides[1] }}
      </text>
    </g>
    <path
      v-if="before && nextAt && stageNow !== null"
      :d="arrow()"
      stroke="var(--ink)"
      stroke-width="3"
      stroke-dasharray="8 5"
      fill="none"
      marker-end="url(#arrowhead)"
    />
    <g v-for="(bolt, k) in bolts" :key="bolt.number" class="bolt" @click="emit('press', bolt.number)">
      <circle
        :cx="places[k].x"
        :cy="places[k].y"
        :r="bolt.number === next ? 50 : Math.max(31, r + 5)"
        fill="var(--now)"
      />
      <circle
        v-if="bolt.waits"
        :cx="places[k].x"
        :cy="places[k].y"
        :r="r + 9"
        fill="none"
        stroke="var(--vio)"
        stroke-width="4"
      />
      <circle
        v-if="bolt.recheck"
        :cx="places[k].x"
        :cy="places[k].y"
        :r="r + 9"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2.4"
        stroke-dasharray="6 5"
      />
      <path
        v-for="(part, p) in ring(k)"
        :key="p"
        :d="part.d"
        :stroke="part.colour"
        fill="none"
        :stroke-width="bolt.number === next ? 7 : small ? 4 : 6"
      />
      <circle
        v-if="bolt.tightness === 'out'"
        :cx="places[k].x"
        :cy="places[k].y"
        :r="r - 8"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2"
        stroke-dasharray="4 4"
      />
      <circle
        v-else
        :cx="places[k].x"
        :cy="places[k].y"
        :r="bolt.number === next ? 38 : r - 7"
        :fill="centre(bolt)"
        :stroke="bolt.verdict === 'outside' ? 'var(--out)' : 'var(--ink)'"
        :stroke-width="bolt.number === next || bolt.verdict === 'outside' ? 3 : 1.4"
      />
      <path
        v-if="quarter[bolt.tightness] && bolt.number !== next"
        :d="wedge(places[k], quarter[bolt.tightness])"
        fill="var(--hair)"
      />
      <line
        v-if="bolt.tightness === 'left out on purpose'"
        :x1="places[k].x - r"
        :x2="places[k].x + r"
        :y1="places[k].y + r"
        :y2="places[k].y - r"
        stroke="var(--ink)"
        stroke-width="3"
      />
      <path
        v-if="bolt.tightness === 'loosened again'"
        :d="arc(places[k].x, places[k].y, r - 3, 0.1, 0.8)"
        stroke="var(--vio)"
        stroke-width="3"
        fill="none"
        marker-start="url(#arrowhead)"
      />
      <line
        v-if="bolt.marked"
        :x1="places[k].x + r * 0.5"
        :x2="places[k].x + r * 1.1"
        :y1="places[k].y + r * 0.5"
        :y2="places[k].y + r * 1.1"
        stroke="var(--ink)"
        stroke-width="4"
      />
      <rect
        v-if="bolt.locked"
        :x="places[k].x + r * 0.5"
        :y="places[k].y + r * 0.6"
        width="12"
        height="10"
        fill="var(--ink)"
      />
      <text
        :x="places[k].x"
        :y="places[k].y"
        :class="bolt.number === next ? 'n44' : 'n24'"
        :fill="ink(bolt)"
        text-anchor="middle"
        dominant-baseline="central"
      >
        {{ bolt.number }}
      </text>
      <text
        v-if="bolt.number === next"
        :x="places[k].x"
        :y="labelY(k) + (labelY(k) > places[k].y ? 6 : -6)"
        class="n24 b8"
        text-anchor="middle"
      >
        next
      </text>
      <text
        v-else-if="bolt.gets && !small"
        :x="places[k].x"
        :y="labelY(k)"
        class="n24"
        :class="{ b8: bolt.stage === stageNow || bolt.verdict === 'outside' }"
        :fill="
          bolt.verdict === 'outside' ? 'var(--out)' : bolt.stage === stageNow ? 'var(--ink)' : 'var(--mut)'
        "
        text-anchor="middle"
      >
        {{ bolt.verdict === 'outside' ? (bolt.side === 'low' ? '◂ ' : '▸ ') : '' }}{{ bolt.gets }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.pattern {
  display: block;
  width: 100%;
  max-height: 340px;
}
.bolt {
  cursor: pointer;
}
.n24 {
  font-size: 24px;
  font-weight: 600;
}
.n44 {
  font-size: 44px;
  font-weight: 800;
}
.b8 {
  font-weight: 800;
}
.front text,
.sides text {
  font-size: 18px;
  fill: var(--mut);
}
.front text {
  fill: var(--ink);
}
</style>
