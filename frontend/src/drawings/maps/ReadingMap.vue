<script setup lang="ts">
/** All readings of a step on the drawing of their family; press a place to read it. */
import { computed } from 'vue'
import type { ReadingFacts } from '@/api/client'
import { PLACES, type Place } from './places'
import ReadingSpot from './ReadingSpot.vue'

const props = defineProps<{
  draw: string
  readings: readonly ReadingFacts[]
  at: string | null
  title: string
}>()
const emit = defineEmits<{ pick: [id: string] }>()

/** When all share their whole part, only the decimals stand on the drawing. */
const whole = computed(() => {
  const parts = [
    ...new Set(props.readings.filter((r) => r.value_text).map((r) => r.value_text.split('.')[0])),
  ]
  return props.draw !== 'cylinders' &&
    parts.length === 1 &&
    Number(parts[0]) >= 10 &&
    props.readings.filter((r) => r.value_text).every((r) => r.value_text.includes('.'))
    ? parts[0]
    : null
})
const unit = computed(() => props.readings.find((r) => r.unit)?.unit ?? '')
const short = (r: ReadingFacts) =>
  r.value_text ? (whole.value ? `.${r.value_text.split('.')[1]}` : r.value_text) : '–'
const drawn = computed(() =>
  props.draw in PLACES
    ? PLACES[props.draw](
        props.readings.map((r) => r.at),
        props.readings.map((r) => (r.value_text ? Number.parseFloat(r.value_text) : null)),
      )
    : null,
)
const place = (k: number): Place => drawn.value?.places[k] ?? { x: 0, y: 0 }
</script>

<template>
  <figure v-if="drawn" class="map">
    <svg :viewBox="`0 0 640 ${drawn.height}`" role="group" :aria-label="title">
      <defs>
        <pattern
          id="map-hatch"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <path d="M0 0V7" class="hatch" />
        </pattern>
      </defs>
      <path v-for="(d, k) in drawn.metal" :key="`m${k}`" :d="d" class="metal" />
      <path v-for="(d, k) in drawn.lines" :key="`l${k}`" :d="d" class="line" />
      <path v-for="(d, k) in drawn.centre" :key="`c${k}`" :d="d" class="centre" />
      <text
        v-for="(t, k) in drawn.words"
        :key="`w${k}`"
        :x="t.x"
        :y="t.y"
        :text-anchor="t.anchor ?? 'middle'"
        :class="{ b: t.bold }"
      >
        {{ t.text }}
      </text>
      <ReadingSpot
        v-for="(r, k) in readings"
        :key="r.id"
        :reading="r"
        :now="r.id === at"
        :x="place(k).x"
        :y="place(k).y"
        :w="place(k).w ?? 78"
        :text="short(r)"
        @pick="emit('pick', r.id)"
      />
    </svg>
    <figcaption v-if="whole || unit" class="t16 mut">
      {{ whole ? `add ${whole} ${unit}` : unit }}{{ drawn.says ? `. ${drawn.says}` : '' }}
    </figcaption>
  </figure>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
  display: block;
}
.hatch {
  stroke: var(--metal);
  stroke-width: 1.5;
}
.metal {
  fill: url(#map-hatch);
  stroke: var(--line);
  stroke-width: 1.4;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
  stroke-linejoin: round;
}
.centre {
  fill: none;
  stroke: var(--metal);
  stroke-width: 1.2;
  stroke-dasharray: 12 4 3 4;
}
text {
  font-size: 16px;
  fill: var(--mut);
}
.b {
  font-size: 20px;
  font-weight: 800;
  fill: var(--ink);
}
</style>
