<script setup lang="ts">
/**
 * The joint from above, its bolts with their states, the next one highlighted. It only takes numbers and
 * words.
 */
import { computed } from 'vue'
import { arc } from './geometry'
import * as pattern from './pattern'

const props = defineProps<{
  bolts: pattern.DrawnBolt[]
  stageCount: number
  stageNow: number | null
  next: number | null
  layout: string
  sides: [string, string] | null
}>()
const emit = defineEmits<{ press: [number: number] }>()

const { WIDTH: W, TURN: quarter } = pattern
const round = computed(() => props.layout === 'circle' || props.layout === 'circles')
const one = computed(() => props.layout === 'circle')
const flat = computed(() => pattern.isFlat(props.bolts))
const r = computed(() => pattern.radius(props.bolts, round.value))
const small = computed(() => pattern.areMany(props.bolts))
const places = computed(() => pattern.placesOf(props.bolts, round.value))
const placeOf = (number: number | null) => places.value[props.bolts.findIndex((b) => b.number === number)]
const nextAt = computed(() => placeOf(props.next))
const body = computed(() => pattern.outline(places.value, one.value))
const middle = computed(() => body.value.y + body.value.h / 2)

const arrow = () => pattern.way(placeOf((props.next ?? 0) - 1), nextAt.value)
const inHand = (bolt: pattern.DrawnBolt) => bolt.number === props.next
const ring = (k: number) =>
  pattern.ring(props.bolts[k], places.value[k], r.value + (inHand(props.bolts[k]) ? 15 : 0), props.stageCount)
const centre = (bolt: pattern.DrawnBolt) => pattern.centre(bolt, inHand(bolt), props.stageNow)
const ink = (bolt: pattern.DrawnBolt) => pattern.ink(bolt, inHand(bolt), props.stageNow)
const label = (k: number) =>
  pattern.labelAt(places.value[k], r.value, places.value[k].y < middle.value || flat.value, one.value)
const wedge = (at: pattern.Place, turn: number) => pattern.wedge(at, r.value, turn)
</script>

<template>
  <svg
    class="pattern"
    :viewBox="`0 0 ${W} ${pattern.heightOf(round)}`"
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
      v-else-if="!one"
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
      v-if="arrow() && stageNow !== null"
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
        :x="label(k).x"
        :y="label(k).y + (label(k).y > places[k].y ? 6 : -6)"
        class="n24 b8"
        text-anchor="middle"
      >
        next
      </text>
      <text
        v-else-if="bolt.gets && !small"
        :x="label(k).x"
        :y="label(k).y"
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
