<script setup lang="ts">
/** The hours of one evening: work as slugs from the left, metal before, after and where it must be quiet. */
import { computed } from 'vue'

const props = defineProps<{
  start: number
  end: number
  quiet: number | null
  slugs: readonly { row: number; start: number; end: number; title: string; noisy: boolean }[]
}>()
const W = 580
const LEFT = 30
const WIDE = 520
const KEYS = 4 // so many rows have a key
const px = (minute: number) => LEFT + ((minute - props.start) / (props.end - props.start)) * WIDE
const hours = computed(() => {
  const first = Math.ceil((props.start + 1) / 60)
  const last = Math.floor((props.end - 1) / 60)
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k) => (first + k) * 60)
})
const clock = (minute: number) =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
const marks = computed(() => [
  props.start,
  ...hours.value.filter((h) => px(h) - px(props.start) > 70 && px(props.end) - px(h) > 70),
  props.end,
])
const cut = (x: number, y: number, w: number, h: number) => {
  const c = w < 30 ? Math.min(5, w / 3) : 8
  return `M${x} ${y} H${x + w - c} L${x + w} ${y + c} V${y + h - c} L${x + w - c} ${y + h} H${x} Z`
}
const boxes = computed(() =>
  props.slugs.map((s, k) => {
    const x = px(s.start) + 1
    const w = Math.max(6, px(s.end) - px(s.start) - 3)
    const high = s.noisy ? 54 : 31
    const room = Math.floor((w - 30) / 9)
    const words = room >= 5 ? (s.title.length <= room ? s.title : `${s.title.slice(0, room - 1)}…`) : ''
    return { ...s, first: k === 0, x, w, y: 60 - high - 1, high, words }
  }),
)
const id = `shut${Math.random().toString(36).slice(2)}`
</script>

<template>
  <svg :viewBox="`0 -2 ${W} 92`" role="img" :aria-label="`The evening, ${clock(start)} to ${clock(end)}`">
    <defs>
      <pattern :id="id" width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
        <path d="M0 0 H9" stroke="var(--metal)" stroke-width="1.5" />
      </pattern>
    </defs>
    <rect x="0" y="0" :width="W" height="60" :fill="`url(#${id})`" />
    <rect :x="LEFT" y="0" :width="WIDE" height="60" fill="var(--slot)" />
    <path :d="`M0 0 H${W} M0 60 H${W}`" stroke="var(--line)" stroke-width="1.5" />
    <template v-if="quiet !== null && quiet < end">
      <rect :x="px(quiet)" y="0" :width="px(end) - px(quiet)" height="24" :fill="`url(#${id})`" />
      <path :d="`M${px(quiet)} 0 V24 H${px(end)}`" fill="none" stroke="var(--ink)" stroke-width="3" />
      <text :x="(px(quiet) + px(end)) / 2" y="17" text-anchor="middle" class="t16 plate">no noise</text>
    </template>
    <g v-for="b in boxes" :key="b.row">
      <path
        :d="cut(b.x, b.y, b.w, b.high)"
        :fill="b.first ? 'var(--yel)' : 'var(--zinc2)'"
        :stroke="b.first ? 'var(--yeledge)' : 'var(--line)'"
        stroke-width="1.8"
      />
      <text :x="b.x + 8" y="51" class="row" :fill="b.first ? 'var(--onyel)' : 'var(--ink)'">
        {{ b.w > 18 && b.row <= KEYS ? b.row : '' }}
      </text>
      <text
        v-if="b.words"
        :x="b.x + (b.row <= KEYS ? 24 : 8)"
        y="50"
        class="t16"
        :fill="b.first ? 'var(--onyel)' : 'var(--ink)'"
      >
        {{ b.words }}
      </text>
    </g>
    <path :d="`M${LEFT} -2 V62 M${LEFT + WIDE} -2 V62`" stroke="var(--ink)" stroke-width="4" />
    <text v-for="m in marks" :key="m" :x="px(m)" y="82" text-anchor="middle" class="t16" fill="var(--ink)">
      {{ clock(m) }}
    </text>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 580px;
  display: block;
}
.row {
  font-size: 18px;
  font-weight: 800;
}
.plate {
  paint-order: stroke;
  stroke: var(--now);
  stroke-width: 6px;
  fill: var(--ink);
}
</style>
