<script setup lang="ts">
/** A start that was played: revs, oil, what told and when; where the hand looked, when the key was back. */
import { computed, useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

interface Tell {
  at_s: number
  words: string
}
const props = defineProps<{
  rpm: readonly number[]
  oil: readonly (number | null)[]
  beat: number
  due: number | null
  keyAt: number | null
  looked: number | null
  tells: readonly Tell[]
  late: boolean
}>()
const id = useId()
const [LEFT, W, REVS, OIL] = [120, 508, 52, 66]
const end = computed(() => {
  const until = Math.max(props.due ?? 0, props.keyAt ?? (props.rpm.length - 1) * props.beat) + 2
  return Math.min(until, (props.rpm.length - 1) * props.beat)
})
const x = (t: number) => LEFT + (Math.min(t, end.value) / end.value) * W
const most = computed(() => Math.max(...props.rpm, 1) * 1.15)
const oilMost = computed(() => Math.max(...props.oil.map((v) => v ?? 0), 2) * 1.15)
function line(values: readonly (number | null)[], top: number, high: number, full: number) {
  let pen = 'M'
  return values
    .map((v, k) => {
      if (v === null || k * props.beat > end.value) {
        pen = 'M'
        return ''
      }
      const point = `${pen}${x(k * props.beat).toFixed(1)} ${(top + high - (v / full) * high).toFixed(1)}`
      pen = 'L'
      return point
    })
    .join(' ')
}
const ticks = computed(() => {
  const step = end.value > 20 ? 5 : 2
  return Array.from({ length: Math.floor(end.value / step) + 1 }, (_, k) => k * step)
})
const back = computed(() => props.keyAt ?? end.value)
</script>

<template>
  <svg viewBox="0 0 640 276" role="img" aria-label="What was played, over time" class="hand">
    <defs><MetalPattern :id="`h${id}`" /></defs>
    <text x="0" y="50" class="name">Revs</text>
    <rect :x="LEFT" y="22" :width="W" :height="REVS" fill="var(--slot)" />
    <path :d="line(rpm, 22, REVS, most)" class="course" />
    <text x="0" y="108" class="name">Oil</text>
    <rect :x="LEFT" y="80" :width="W" :height="OIL" fill="var(--slot)" />
    <path :d="line(oil, 80, OIL, oilMost)" class="course" />
    <text x="0" y="176" class="name">It told you</text>
    <rect :x="LEFT" y="154" :width="W" height="34" fill="var(--zinc2)" />
    <g v-for="(t, k) in tells" :key="t.words">
      <path :d="`M${x(t.at_s)} 154 v34`" class="mark" />
      <text :x="x(t.at_s) + 6" :y="k % 2 ? 186 : 168" class="told">{{ t.words }}</text>
    </g>
    <text x="0" y="220" class="name">Your hand</text>
    <rect :x="LEFT" y="198" :width="W" height="34" fill="var(--slot)" />
    <rect
      v-if="due !== null"
      :x="x(due)"
      y="198"
      :width="LEFT + W - x(due)"
      height="34"
      :fill="`url(#h${id})`"
    />
    <path :d="`M${LEFT} 215 H${x(back)}`" class="bar" :class="{ late }" />
    <path v-if="keyAt !== null" :d="`M${x(back) - 4} 204 l16 11 l-16 11 z`" class="tip" :class="{ late }" />
    <circle v-if="looked !== null" :cx="x(looked)" cy="215" r="8" class="ring" />
    <g v-if="due !== null">
      <path :d="`M${x(due)} 18 V234`" class="due" />
      <text :x="x(due)" y="14" text-anchor="middle" class="told">due {{ due.toFixed(1) }}</text>
    </g>
    <g v-if="keyAt !== null && Math.abs(keyAt - (due ?? -9)) > 1.2">
      <path :d="`M${x(keyAt)} 18 V234`" class="due" :class="{ late }" />
      <text :x="x(keyAt)" y="14" text-anchor="middle" class="told" :class="{ late }">
        key back {{ keyAt.toFixed(1) }}
      </text>
    </g>
    <text v-for="t in ticks" :key="t" :x="x(t)" y="256" text-anchor="middle" class="tick">{{ t }} s</text>
  </svg>
</template>

<style scoped>
.hand {
  width: 100%;
}
text {
  font-variation-settings: 'slnt' 0;
  font-style: normal;
}
.name {
  font-size: 18px;
  font-weight: 680;
  fill: var(--ink);
}
.told,
.tick {
  font-size: 15px;
  fill: var(--ink);
}
.told.late {
  fill: var(--out);
  font-weight: 700;
}
.course {
  fill: none;
  stroke: var(--ink);
  stroke-width: 3;
}
.mark {
  stroke: var(--ink);
  stroke-width: 4;
}
.bar {
  stroke: var(--in);
  stroke-width: 8;
}
.bar.late {
  stroke: var(--out);
}
.tip {
  fill: var(--in);
}
.tip.late {
  fill: var(--out);
}
.ring {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 3;
}
.due {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 2 5;
}
.due.late {
  stroke: var(--out);
}
</style>
