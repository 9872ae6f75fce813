<script setup lang="ts">
/**
 * A way drawn from the side: the vehicle, the unit in ink, an arrow for the way it goes, what holds it. Own
 * line drawing.
 */
import { computed } from 'vue'

const props = defineProps<{ sketch: string }>()
const UNITS: Record<
  string,
  {
    x: number
    y: number
    tail: boolean
    arrow: 'up' | 'down' | null
    held: 'hook' | 'jack' | 'beam' | null
    raised: boolean
  }
> = {
  up_as_one: { x: 34, y: 6, tail: true, arrow: 'up', held: 'hook', raised: false },
  engine_up: { x: 34, y: 4, tail: false, arrow: 'up', held: 'hook', raised: false },
  down_as_one: { x: 34, y: 64, tail: true, arrow: 'down', held: 'jack', raised: true },
  engine_down: { x: 34, y: 64, tail: false, arrow: 'down', held: 'jack', raised: true },
  hoist: { x: 34, y: 34, tail: false, arrow: null, held: 'hook', raised: false },
  beam: { x: 34, y: 34, tail: false, arrow: null, held: 'beam', raised: false },
  jack: { x: 92, y: 52, tail: false, arrow: null, held: 'jack', raised: true },
}
const unit = computed(() => UNITS[props.sketch])
const lift = computed(() => (unit.value?.raised ? -12 : 0))
</script>

<template>
  <svg v-if="unit" class="sketch" viewBox="0 0 292 100" aria-hidden="true">
    <path d="M8 96 H284" stroke="var(--metal)" stroke-width="2" />
    <path :d="`M10 100 l6 -4${' m14 4 l6 -4'.repeat(11)}`" stroke="var(--metal)" stroke-width="1.2" />
    <g
      :transform="`translate(0 ${lift})`"
      fill="none"
      stroke="var(--line)"
      stroke-width="2.2"
      stroke-linejoin="round"
    >
      <path d="M22 74 V56 L74 50 L96 26 H150 L158 52 H262 V74 Z" fill="var(--zinc2)" />
      <path d="M84 48 L100 31 H120 V48 Z M126 48 V31 H146 L152 48 Z" fill="var(--now)" stroke-width="1.6" />
      <path d="M20 76 H264" stroke-width="3" />
      <circle v-if="!unit.raised" cx="58" cy="80" r="15" fill="var(--now)" />
      <circle cx="216" cy="80" r="15" fill="var(--now)" />
      <circle v-if="!unit.raised" cx="58" cy="80" r="7" />
      <circle cx="216" cy="80" r="7" />
      <path v-if="unit.raised" d="M60 76 L48 108 H72 Z" fill="var(--ink)" stroke="none" />
    </g>
    <g :transform="`translate(${unit.x} ${unit.y})`" fill="var(--ink)">
      <path d="M0 0 H38 V24 L30 32 H6 L0 24 Z" />
      <path v-if="unit.tail" d="M38 6 L52 10 H84 V20 H52 L38 26 Z" />
    </g>
    <path
      v-if="unit.held === 'hook'"
      :d="`M${unit.x + 19} ${unit.y} V0`"
      stroke="var(--ink)"
      stroke-width="2.4"
    />
    <path
      v-if="unit.held === 'beam'"
      :d="`M18 ${unit.y - 10} H98 M${unit.x + 19} ${unit.y - 10} V${unit.y}`"
      stroke="var(--ink)"
      stroke-width="4"
    />
    <path
      v-if="unit.held === 'jack'"
      :d="`M${unit.x + 4} 95 L${unit.x + 34} ${unit.y + 32} M${unit.x + 34} 95 L${unit.x + 4} ${unit.y + 32}`"
      stroke="var(--ink)"
      stroke-width="2.4"
    />
    <path
      v-if="unit.arrow === 'up'"
      d="M16 40 V8 M10 16 L16 6 L22 16"
      stroke="var(--ink)"
      stroke-width="3.4"
      fill="none"
    />
    <path
      v-if="unit.arrow === 'down'"
      d="M16 56 V88 M10 80 L16 90 L22 80"
      stroke="var(--ink)"
      stroke-width="3.4"
      fill="none"
    />
  </svg>
</template>

<style scoped>
.sketch {
  display: block;
  width: 100%;
  max-height: 100px;
}
</style>
