<script setup lang="ts">
/**
 * A gap in section: two faces, the shims in hand on the lower one, what is left between. Only the gap and
 * the shims are to scale.
 */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

const props = defineProps<{
  sketch: 'bell' | 'plain'
  labels: [string, string]
  bare: number
  shims: string[]
  thick: number[]
  gapText: string
  sumText: string
}>()
const id = useId()
const W = 266
const ROOM = 190 // of the gap, in px
const gap = computed(() => Math.max(props.bare, 0.001))
const sum = computed(() => props.thick.reduce((a, b) => a + b, 0))
const per = computed(() => ROOM / Math.max(gap.value, sum.value))
const base = 340
const top = computed(() => base - gap.value * per.value)
const layers = computed(() => {
  let y = base
  return props.thick.map((t, k) => {
    y -= t * per.value
    return { y, h: t * per.value, name: props.shims[k] }
  })
})
const leftTop = computed(() => base - sum.value * per.value)
const tip = computed(() => (props.sketch === 'bell' ? 148 : 184))
const middle = computed(() => (leftTop.value + top.value) / 2)
const half = computed(() => (leftTop.value + base) / 2)
const overlap = computed(() => leftTop.value < top.value)
</script>

<template>
  <svg
    :width="W"
    height="410"
    :viewBox="`0 0 ${W} 410`"
    role="img"
    :aria-label="`In section: ${labels[0]}, ${labels[1]}, shims ${sumText}, left ${gapText}`"
  >
    <defs>
      <MetalPattern :id="`s${id}`" />
    </defs>
    <g :fill="`url(#s${id})`" stroke="var(--line)" stroke-width="2.6">
      <template v-if="sketch === 'bell'">
        <path d="M4 40 H36 V384 H112 V410 H4 Z" />
        <path :d="`M232 40 H264 V${top - 66} L200 ${top} H58 V${top - 22} H186 L232 ${top - 74} Z`" />
      </template>
      <template v-else>
        <path :d="`M40 60 H232 V${top} H40 Z`" />
      </template>
      <path v-if="sketch === 'bell'" :d="`M58 ${base} H146 V384 H58 Z`" />
      <path v-else :d="`M20 ${base} H252 V400 H20 Z`" />
    </g>
    <circle
      v-if="sketch === 'bell'"
      cx="102"
      :cy="base + 22"
      r="12"
      fill="var(--now)"
      stroke="var(--line)"
      stroke-width="2.6"
    />
    <line
      v-if="sketch === 'bell'"
      x1="0"
      y1="40"
      :x2="W"
      y2="40"
      stroke="var(--metal)"
      stroke-dasharray="9 3 2 3"
    />
    <rect
      v-if="!overlap"
      :x="sketch === 'bell' ? 58 : 90"
      :y="top"
      :width="sketch === 'bell' ? 88 : 92"
      :height="Math.max(0, leftTop - top)"
      fill="var(--slot)"
    />
    <g v-for="(layer, k) in layers" :key="k">
      <rect
        :x="sketch === 'bell' ? 58 : 90"
        :y="layer.y"
        :width="sketch === 'bell' ? 88 : 92"
        :height="layer.h"
        fill="var(--yel)"
        stroke="var(--yeledge)"
        stroke-width="2"
      />
    </g>
    <g class="says" :class="{ over: overlap }">
      <path :d="`M${tip} ${middle} h20 M${tip} ${half} h20`" stroke="var(--ink)" stroke-width="1.6" />
      <text :x="tip + 24" :y="middle + 6" class="b">{{ gapText }}</text>
      <text v-if="thick.length" :x="tip + 24" :y="Math.max(half + 6, middle + 30)">{{ sumText }}</text>
    </g>
    <text x="4" y="28" class="name">{{ labels[0] }}</text>
    <text :x="W" :y="sketch === 'bell' ? 28 : 404" text-anchor="end" class="name">
      {{ sketch === 'bell' ? '' : labels[1] }}
    </text>
  </svg>
</template>

<style scoped>
text {
  font-size: 16px;
  fill: var(--ink);
}
.b {
  font-weight: 780;
  font-size: 18px;
}
.over .b {
  fill: var(--out);
}
.name {
  font-weight: 560;
}
</style>
