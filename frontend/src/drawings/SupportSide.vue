<script setup lang="ts">
/** The vehicle from the side, and what stands under it or holds it from above; numbers as in the plan. */
import { computed } from 'vue'
import type { SupportDesk } from '@/api/client'
import { looseMarks, sideMarks, type Support } from './supports'

type Map = SupportDesk['map']
const props = defineProps<{ map: Map }>()
const X = (x: number) => 30 + x * 580
const FLOOR = 190
/** How high what carries a body reaches. */
const TOPS: Record<string, number> = { vehicle: 136, axle: 146 }
const onHook = (body: string) => props.map.supports.some((s) => s.carries === body && s.kind === 'hook')
/** A unit that stands on its own cradle is drawn behind the vehicle, not in its bay. */
const unit = (s: Support) => s.carries === 'engine' || s.carries === 'powertrain'
const apart = computed(
  () =>
    props.map.supports.some((s) => unit(s) && s.kind === 'cradle') &&
    !onHook('engine') &&
    !onHook('powertrain'),
)
const raised = computed(() => props.map.supports.some((s) => s.carries === 'vehicle' && s.kind !== 'wheels'))
const marks = computed(() =>
  sideMarks(props.map.supports, (s, x) => (apart.value && unit(s) ? 0.985 : x)).map((m) => ({
    ...m,
    x: X(m.x),
    top: TOPS[props.map.supports[m.numbers[0] - 1].carries] ?? 152,
  })),
)
const loose = computed(() => looseMarks(props.map.supports, 60))
const jack = (x: number, top: number) =>
  `M${x - 30} ${FLOOR - 4} H${x + 30} M${x - 18} ${FLOOR - 4} L${x} ${top} M${x - 12} ${top} H${x + 12}`
const colour = (stays: boolean) => (stays ? 'var(--ink)' : 'var(--out)')
</script>

<template>
  <svg
    class="from-side"
    viewBox="0 0 640 216"
    width="640"
    height="216"
    role="img"
    :aria-label="`From the side: ${map.line}`"
  >
    <path :d="`M0 ${FLOOR} H640`" stroke="var(--ink)" stroke-width="2.6" />
    <path
      v-for="k in 42"
      :key="k"
      :d="`M${k * 16 - 20} ${FLOOR + 14} l12 -13`"
      stroke="var(--metal)"
      stroke-width="1.4"
    />
    <g :transform="raised ? '' : 'translate(0 16)'" fill="none" stroke="var(--line)" stroke-width="2.4">
      <path d="M64 118 L76 84 L196 78 L236 36 H330 L338 78 V118 Z M338 78 H566 V118 H338" fill="var(--now)" />
      <path d="M214 76 L242 44 H278 V76 Z M286 44 H324 V76 H286 Z" fill="var(--zinc2)" stroke-width="1.6" />
      <path d="M60 124 H560" stroke-width="6" />
      <g v-for="cx in [123, 505]" :key="cx">
        <circle :cx="cx" cy="142" r="32" fill="var(--now)" />
        <circle :cx="cx" cy="142" r="13" fill="var(--zinc2)" />
      </g>
      <g
        stroke="var(--ink)"
        stroke-width="3"
        :transform="
          apart ? 'translate(476 8)' : onHook('engine') || onHook('powertrain') ? 'translate(0 -6)' : ''
        "
      >
        <path d="M92 92 H160 V140 H104 L92 128 Z" fill="var(--zinc2)" />
      </g>
      <path
        d="M166 104 L184 100 V138 L166 136 Z M184 108 H286 V130 H184 Z"
        fill="var(--zinc2)"
        stroke="var(--ink)"
        stroke-width="3"
      />
    </g>
    <g v-for="d in marks" :key="d.numbers[0]">
      <path
        v-if="d.kind === 'hook'"
        :d="`M${d.x} 4 V70 m0 0 l-16 20 m16 -20 l16 20`"
        fill="none"
        :stroke="colour(d.stays)"
        stroke-width="3"
      />
      <path
        v-else-if="d.kind === 'jack'"
        :d="jack(d.x, d.top)"
        fill="none"
        :stroke="colour(d.stays)"
        stroke-width="4"
      />
      <path
        v-else-if="d.kind === 'cradle'"
        :d="`M${d.x - 40} ${FLOOR} L${d.x - 28} ${d.top} H${d.x + 28} L${d.x + 40} ${FLOOR} Z`"
        :fill="d.stays ? 'var(--ink)' : 'var(--now)'"
        :stroke="colour(d.stays)"
        stroke-width="3"
      />
      <path
        v-else-if="d.kind === 'wheels'"
        :d="`M${d.x - 20} ${FLOOR - 3} H${d.x + 20}`"
        :stroke="colour(d.stays)"
        stroke-width="6"
      />
      <path
        v-else-if="d.kind === 'timber' || d.kind === 'ramp'"
        :d="`M${d.x - 26} ${FLOOR} V${d.top + 12} H${d.x + 26} V${FLOOR} Z`"
        :fill="d.stays ? 'var(--ink)' : 'var(--now)'"
        :stroke="colour(d.stays)"
        stroke-width="3"
      />
      <path
        v-else
        :d="`M${d.x - 18} ${FLOOR} L${d.x} ${d.top - 8} L${d.x + 18} ${FLOOR} Z`"
        :fill="d.stays ? 'var(--ink)' : 'var(--now)'"
        :stroke="colour(d.stays)"
        stroke-width="3"
      />
      <g>
        <rect
          :x="d.x - 6 - d.numbers.length * 6"
          :y="d.kind === 'hook' ? 26 : FLOOR - 26"
          :width="12 + d.numbers.length * 12"
          height="24"
          rx="12"
          fill="var(--now)"
          :stroke="colour(d.stays)"
          stroke-width="2"
        />
        <text
          :x="d.x"
          :y="(d.kind === 'hook' ? 26 : FLOOR - 26) + 18"
          text-anchor="middle"
          font-size="16"
          font-weight="800"
          :fill="colour(d.stays)"
        >
          {{ d.numbers.join(' ') }}
        </text>
      </g>
    </g>
    <g v-for="d in loose" :key="d.numbers[0]">
      <circle
        :cx="d.x"
        :cy="d.y"
        r="15"
        fill="var(--now)"
        :stroke="colour(d.stays)"
        stroke-width="2.4"
        stroke-dasharray="5 4"
      />
      <text
        :x="d.x"
        :y="d.y + 6"
        text-anchor="middle"
        font-size="16"
        font-weight="800"
        :fill="colour(d.stays)"
      >
        {{ d.numbers[0] }}
      </text>
    </g>
    <text v-if="loose.length" x="4" y="32" class="t16" fill="var(--ink)">where?</text>
  </svg>
</template>

<style scoped>
.from-side {
  display: block;
  max-width: 100%;
  height: auto;
}
</style>
