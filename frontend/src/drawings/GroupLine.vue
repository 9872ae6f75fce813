<script setup lang="ts">
/**
 * A group in line: its locks with their letters in the order of locking, its adjuster as an open arrow.
 * Nothing is both.
 */
import { computed } from 'vue'
import type { TightenBenchView } from '@/api/client'

type Group = NonNullable<TightenBenchView['group']>
const props = defineProps<{ group: Group }>()
const W = 640
const Y = 96
const placed = computed(() => {
  const order = props.group.along
  const line = [...props.group.members].sort((a, b) => order.indexOf(a.joint) - order.indexOf(b.joint))
  const from = props.group.ends ? 110 : 60
  const pitch = line.length > 1 ? (W - 2 * from) / (line.length - 1) : 0
  return line.map((member, k) => ({ member, x: line.length > 1 ? from + k * pitch : W / 2 }))
})
/** Between the two members that lie furthest apart, where an arrow has room. */
const arrow = computed(() => {
  const xs = placed.value.map((p) => p.x)
  if (xs.length < 2) return W / 2 + 120
  let best = (xs[0] + xs[1]) / 2
  let wide = 0
  xs.slice(1).forEach((x, k) => {
    if (x - xs[k] > wide) {
      wide = x - xs[k]
      best = (x + xs[k]) / 2
    }
  })
  return best
})
const kinds = { slides: 'slides', turns: 'turns', stack: 'takes shims' }
</script>

<template>
  <svg :width="W" height="150" :viewBox="`0 0 ${W} 150`" role="img" class="line" :aria-label="group.title">
    <path
      :d="`M${group.ends ? 84 : 20} ${Y} H${W - (group.ends ? 84 : 20)}`"
      stroke="var(--line)"
      stroke-width="18"
    />
    <path
      :d="`M${group.ends ? 84 : 20} ${Y} H${W - (group.ends ? 84 : 20)}`"
      stroke="var(--now)"
      stroke-width="13"
    />
    <g v-if="group.ends">
      <rect
        x="4"
        :y="Y - 22"
        width="80"
        height="44"
        fill="var(--slot)"
        stroke="var(--line)"
        stroke-width="2.6"
      />
      <rect
        :x="W - 84"
        :y="Y - 22"
        width="80"
        height="44"
        fill="var(--slot)"
        stroke="var(--line)"
        stroke-width="2.6"
      />
      <text x="44" y="144" text-anchor="middle">{{ group.ends[0] }}</text>
      <text :x="W - 44" y="144" text-anchor="middle">{{ group.ends[1] }}</text>
    </g>
    <g v-for="{ member, x } in placed" :key="member.letter" :class="`m-${member.state}`">
      <rect
        :x="x - 24"
        :y="Y - 18"
        width="48"
        height="36"
        fill="var(--now)"
        stroke="var(--line)"
        stroke-width="2.6"
      />
      <path :d="`M${x} ${Y - 18} V${Y - 34}`" stroke="var(--line)" stroke-width="2.6" />
      <circle :cx="x" :cy="Y - 52" r="20" class="head" />
      <path
        v-if="member.state === 'locked'"
        :d="`M${x - 17.3} ${Y - 42} A20 20 0 0 0 ${x + 17.3} ${Y - 42} Z`"
        fill="var(--ink)"
      />
      <text :x="x" :y="Y - 45" text-anchor="middle" class="letter">{{ member.letter }}</text>
    </g>
    <g v-for="(a, k) in group.adjust" :key="a.name" :transform="`translate(${arrow} ${Y + 34 + k * 22})`">
      <path
        v-if="a.how === 'slides'"
        d="M-36 0 L-22 -10 V-4 H22 V-10 L36 0 L22 10 V4 H-22 V10 Z"
        fill="var(--now)"
        stroke="var(--ink)"
        stroke-width="2"
      />
      <path
        v-else-if="a.how === 'turns'"
        d="M-16 4 A16 12 0 1 1 14 6 M14 6 l-10 -4 M14 6 l3 -10"
        fill="none"
        stroke="var(--ink)"
        stroke-width="2.6"
      />
      <path v-else d="M-24 -8 h48 M-24 0 h48 M-24 8 h48" stroke="var(--ink)" stroke-width="4" />
      <text x="46" y="6" class="b">{{ a.name }} {{ kinds[a.how] }}: this sets</text>
    </g>
  </svg>
</template>

<style scoped>
.line {
  max-width: 100%;
  height: auto;
}
text {
  font-size: 16px;
  fill: var(--ink);
}
.b {
  font-weight: 680;
}
.letter {
  font-size: 20px;
  font-weight: 780;
}
.head {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 2.6;
}
.m-now .head {
  fill: var(--yel);
  stroke: var(--yeledge);
  stroke-width: 3;
}
.m-now .letter {
  fill: var(--onyel);
}
.m-early .head {
  stroke: var(--out);
  stroke-width: 5;
}
.m-early .letter {
  fill: var(--out);
}
</style>
