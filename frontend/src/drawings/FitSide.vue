<script setup lang="ts">
/** The unit at its true offset from its seat, side view, to one scale; the move that was made last. */
import { computed } from 'vue'

const props = defineProps<{
  toGo: readonly { way: string; left: number; known: boolean }[]
  last: string | null
  lastBy: string
  what: string
}>()
const [W, H, UW, UH] = [640, 230, 190, 110]
const of = (a: string, b: string) => {
  const axis = props.toGo.find((t) => t.way === a || t.way === b)
  if (!axis) return 0
  return axis.way === a ? axis.left : -axis.left
}
const up = computed(() => of('down', 'up'))
const away = computed(() => of('in', 'out'))
const nose = computed(() => of('nose down', 'nose up'))
/** One scale for both, so that nothing leaves the drawing. */
const scale = computed(() =>
  Math.min(0.7, 62 / Math.max(Math.abs(up.value), 1), 110 / Math.max(Math.abs(away.value), 1)),
)
const SEAT = { x: 230, y: 84 }
const at = computed(() => ({ x: SEAT.x - away.value * scale.value, y: SEAT.y - up.value * scale.value }))
const sling = computed(() => {
  const [x, y] = [at.value.x + UW / 2, at.value.y]
  return `M${x} 0 V${y - 16} L${x - 55} ${y} M${x} ${y - 16} L${x + 55} ${y}`
})
const ARROWS: Record<string, [number, number]> = { up: [0, -1], down: [0, 1], in: [1, 0], out: [-1, 0] }
const arrow = computed(() => ARROWS[props.last ?? ''] ?? null)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    :aria-label="`${what}, where it hangs above its seat`"
    class="side"
  >
    <path d="M20 206 H620" class="floor" />
    <path d="M180 212 l-14 16 h28 z M520 212 l-14 16 h28 z" class="stand" />
    <rect :x="SEAT.x" :y="SEAT.y" :width="UW" :height="UH" class="seat" />
    <text :x="SEAT.x + UW + 10" :y="SEAT.y + UH" class="word mut">its seat</text>
    <path :d="sling" class="sling" />
    <g :transform="`rotate(${-nose} ${at.x + UW / 2} ${at.y + UH / 2})`">
      <rect :x="at.x" :y="at.y" :width="UW" :height="UH" class="unit" />
      <text :x="at.x + UW / 2" :y="at.y + UH / 2 + 6" text-anchor="middle" class="word">{{ what }}</text>
    </g>
    <g
      v-if="arrow"
      :transform="`translate(60 90) rotate(${(Math.atan2(arrow[1], arrow[0]) * 180) / Math.PI})`"
    >
      <path d="M-34 -10 H6 V-22 L34 0 L6 22 V10 H-34 Z" class="moved" />
    </g>
    <text v-if="last" x="60" y="150" text-anchor="middle" class="word">{{ last }} {{ lastBy }}</text>
  </svg>
</template>

<style scoped>
.side {
  width: 100%;
}
.unit {
  fill: var(--zinc2);
  stroke: var(--ink);
  stroke-width: 3;
}
.seat {
  fill: none;
  stroke: var(--mut);
  stroke-width: 2;
  stroke-dasharray: 8 5;
}
.floor,
.sling {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
}
.stand {
  fill: var(--ink);
}
.moved {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 2.6;
}
.word {
  font-size: 18px;
  fill: var(--ink);
  font-style: normal;
}
.mut {
  fill: var(--mut);
}
</style>
