<script setup lang="ts">
/** A load on its sling, legs at their true angle; the arc shows where a leg may lie and where it may not. */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

const props = defineProps<{
  angle: number | null
  flattest: number
  legs: number
  what: string
  legLoad: string
  stopped: boolean
}>()
const id = useId()
const W = 640
const H = 216
const EYE = 176 // where the load's upper edge lies
const drawn = computed(() => Math.min(Math.max(props.angle ?? 60, 5), 90))
/** Half the distance between the eyes and the height of the hook, so that both fit and the angle is true. */
const half = computed(() => {
  const slope = Math.tan((drawn.value * Math.PI) / 180)
  return props.legs === 1 || drawn.value >= 89.9 ? 0 : Math.min(190, 118 / slope)
})
const height = computed(() => (half.value ? half.value * Math.tan((drawn.value * Math.PI) / 180) : 118))
const hook = computed(() => EYE - height.value)
const eyes = computed(() => (half.value ? [W / 2 - half.value, W / 2 + half.value] : [W / 2]))
const R = 96
const at = (degrees: number) => {
  const rad = (degrees * Math.PI) / 180
  return `${eyes.value[0] + R * Math.cos(rad)} ${EYE - R * Math.sin(rad)}`
}
const sector = (from: number, to: number) =>
  `M${eyes.value[0]} ${EYE} L${at(from)} A${R} ${R} 0 0 0 ${at(to)} Z`
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    :aria-label="`${what}, ${angle === null ? 'angle not known' : `legs at ${angle}° to the horizontal`}`"
  >
    <defs>
      <MetalPattern :id="`m${id}`" />
    </defs>
    <template v-if="half">
      <path :d="sector(flattest, 90)" fill="var(--slot)" />
      <path :d="sector(0, flattest)" :fill="`url(#m${id})`" />
      <line
        :x1="eyes[0]"
        :y1="EYE"
        :x2="at(flattest).split(' ')[0]"
        :y2="at(flattest).split(' ')[1]"
        class="rule"
      />
    </template>
    <line :x1="W / 2" :x2="W / 2" y1="0" :y2="hook" class="leg" />
    <line
      v-for="eye in eyes"
      :key="eye"
      :x1="W / 2"
      :x2="eye"
      :y1="hook"
      :y2="EYE"
      class="leg"
      :class="{ stopped, unknown: angle === null }"
    />
    <circle :cx="W / 2" :cy="hook" r="8" class="ring" />
    <circle v-for="eye in eyes" :key="`e${eye}`" :cx="eye" :cy="EYE" r="6" class="ring" />
    <rect :x="W / 2 - 225" :y="EYE" width="450" height="34" class="load" />
    <text :x="W / 2" :y="EYE + 23" text-anchor="middle">{{ what }}</text>
    <text v-if="legLoad" :x="W - 12" y="40" text-anchor="end" class="figure">{{ legLoad }}</text>
    <text v-if="legLoad" :x="W - 12" y="62" text-anchor="end">
      {{ legs === 1 ? 'on the leg' : 'in each leg' }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  width: 100%;
  max-width: 660px;
  height: auto;
}
.leg {
  stroke: var(--ink);
  stroke-width: 5;
}
.leg.stopped {
  stroke: var(--out);
}
.leg.unknown {
  stroke-dasharray: 8 8;
}
.rule {
  stroke: var(--ink);
  stroke-width: 4;
}
.ring {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 4;
}
.load {
  fill: var(--zinc2);
  stroke: var(--line);
  stroke-width: 2.5;
}
text {
  font-size: 17px;
  fill: var(--ink);
}
.figure {
  font-size: 28px;
  font-weight: 780;
}
</style>
