<script setup lang="ts">
/** A section through a slot: hatching is metal, the clear gap is what is allowed. It only takes numbers. */
import { computed, useId } from 'vue'
import { type Bar, domainOf, scale, whiskers } from './geometry'
import VerdictMark from './VerdictMark.vue'
import MetalPattern from './MetalPattern.vue'

const props = withDefaults(
  defineProps<{
    bar: Bar
    verdict: string
    side?: string | null
    assumed?: boolean
    accepted?: boolean
    size?: 's' | 'm' | 'l'
    width?: number
    loText?: string
    hiText?: string
    valueText?: string
    words?: string
    domain?: [number, number]
    first?: number | null // the figure of the first time: a hollow ring, and a line to what it is now
  }>(),
  { size: 'm', width: 308 },
)
const id = useId()
const tall = computed(() => ({ s: 24, m: 24, l: 46 })[props.size])
const head = computed(() => (props.size === 'l' ? 52 : 4))
const foot = computed(() => (props.size === 's' ? 4 : 26))
const half = computed(() => ({ s: 7, m: 8.5, l: 17 })[props.size])
const shownDomain = computed(() => props.domain ?? domainOf(props.bar))
const x = computed(() => scale(shownDomain.value, props.width))
const lo = computed(() => (props.bar.lo === null ? null : x.value(props.bar.lo)))
const hi = computed(() => (props.bar.hi === null ? null : x.value(props.bar.hi)))
const zero = computed(() =>
  props.bar.lo === null && shownDomain.value[0] < 0 && shownDomain.value[1] > 0 ? x.value(0) : null,
)
const pinned = computed(() => {
  const { value } = props.bar
  if (value === null) return 0
  if (value + (props.bar.U ?? 0) > shownDomain.value[1]) return 1
  return value - (props.bar.U ?? 0) < shownDomain.value[0] ? -1 : 0
})
const at = computed(() => {
  if (props.bar.value === null)
    return lo.value !== null && hi.value !== null ? (lo.value + hi.value) / 2 : props.width / 2
  if (pinned.value) return pinned.value > 0 ? props.width - 20 : 20
  return x.value(props.bar.value)
})
const began = computed(() => {
  if (props.first === null || props.first === undefined) return null
  return Math.min(Math.max(x.value(props.first), 6), props.width - 6)
})
const whisker = computed(() => {
  if (props.bar.value === null || !props.bar.U) return 0
  return pinned.value ? 16 : x.value(props.bar.value + props.bar.U) - x.value(props.bar.value)
})
const colour = computed(
  () =>
    ({ inside: 'var(--in)', too_close: 'var(--close)', outside: 'var(--out)' })[props.verdict] ??
    'var(--mut)',
)
const dash = computed(() => (props.assumed ? '5 3' : undefined))
const stroke = computed(() => (props.size === 'l' ? 4 : 2.6))
</script>

<template>
  <svg
    :width="width"
    :height="head + tall + foot"
    :viewBox="`0 0 ${width} ${head + tall + foot}`"
    role="img"
    :aria-label="words ?? 'limit'"
    class="bar"
  >
    <defs>
      <MetalPattern :id="`h${id}`" />
    </defs>
    <g :transform="`translate(0 ${head})`">
      <rect
        :x="lo ?? zero ?? 0"
        :y="0"
        :width="Math.max(0, (hi ?? width) - (lo ?? zero ?? 0))"
        :height="tall"
        fill="var(--slot)"
      />
      <g v-if="lo !== null">
        <rect x="0" y="0" :width="lo" :height="tall" :fill="`url(#h${id})`" />
        <path :d="`M0 0.7 H${lo} M0 ${tall - 0.7} H${lo}`" stroke="var(--line)" stroke-width="1.4" />
        <line
          :x1="lo"
          :x2="lo"
          y1="-2"
          :y2="tall + 2"
          stroke="var(--ink)"
          :stroke-width="stroke"
          :stroke-dasharray="dash"
        />
      </g>
      <g v-if="hi !== null">
        <rect :x="hi" y="0" :width="Math.max(0, width - hi)" :height="tall" :fill="`url(#h${id})`" />
        <path
          :d="`M${hi} 0.7 H${width} M${hi} ${tall - 0.7} H${width}`"
          stroke="var(--line)"
          stroke-width="1.4"
        />
        <line
          :x1="hi"
          :x2="hi"
          y1="-2"
          :y2="tall + 2"
          stroke="var(--ink)"
          :stroke-width="stroke"
          :stroke-dasharray="dash"
        />
      </g>
      <line
        v-if="zero !== null"
        :x1="zero"
        :x2="zero"
        y1="0"
        :y2="tall"
        stroke="var(--ink)"
        stroke-width="1.6"
      />
      <line
        v-if="bar.target !== null"
        :x1="x(bar.target)"
        :x2="x(bar.target)"
        y1="0"
        :y2="tall"
        stroke="var(--metal)"
        stroke-width="1.6"
        stroke-dasharray="7 3 2 3"
      />
      <path
        v-if="pinned"
        :d="`M${at - pinned * 26} ${tall} l6 ${-tall} M${at - pinned * 33} ${tall} l6 ${-tall}`"
        stroke="var(--now)"
        stroke-width="4"
      />
      <g v-if="began !== null">
        <path :d="`M${began} ${tall / 2} H${at}`" stroke="var(--ink)" stroke-width="3" />
        <circle :cx="began" :cy="tall / 2" r="5" fill="var(--now)" stroke="var(--ink)" stroke-width="2.4" />
      </g>
      <g v-if="whisker" :stroke="colour" fill="none">
        <path :d="`M${at - whisker} ${tall / 2} H${at + whisker}`" stroke="var(--now)" stroke-width="6.5" />
        <path :d="whiskers(at - whisker, at + whisker, tall / 2, pinned ? 0 : 6)" stroke-width="2.4" />
      </g>
      <circle
        v-if="bar.value !== null"
        :cx="at"
        :cy="tall / 2"
        :r="half + 2"
        fill="var(--now)"
        fill-opacity="0.85"
      />
      <VerdictMark
        :verdict="verdict"
        :side="side"
        :accepted="accepted"
        :size="half"
        :x="at - half * 1.3"
        :y="tall / 2 - half * 1.3"
      />
      <g v-if="size !== 's'" class="figures" text-anchor="middle">
        <text v-if="lo !== null" :x="Math.min(width - 24, Math.max(24, lo))" :y="tall + 21">
          {{ loText }}
        </text>
        <text v-if="hi !== null" :x="Math.max(24, Math.min(width - 24, hi))" :y="tall + 21">
          {{ hiText }}
        </text>
      </g>
      <text
        v-if="size === 'l' && valueText"
        :x="Math.max(60, Math.min(width - 60, at))"
        y="-14"
        text-anchor="middle"
        class="hero"
        :fill="colour"
      >
        {{ valueText }}
      </text>
    </g>
  </svg>
</template>

<style scoped>
.bar {
  display: block;
  max-width: 100%;
}
.figures text {
  font-size: 16px;
  fill: var(--ink);
  font-weight: 560;
}
.hero {
  font-size: 36px;
  font-weight: 780;
}
</style>
