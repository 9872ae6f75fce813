<script setup lang="ts">
/**
 * The bolts of a joint in one line, in the order of the joint: more than eight are six and how many more.
 * Final is solid with its number, a stage is a ring filled so far, by hand is half full, loosened again is
 * an open ring that turns back, out is dashed, empty is struck through, not locked has an open square.
 */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { arc } from './geometry'

const props = defineProps<{ bolts: readonly Schemas['BoltState'][] }>()
const [R, PITCH, MOST] = [11, 26.5, 8]
const shown = computed(() => (props.bolts.length > MOST ? props.bolts.slice(0, MOST - 2) : props.bolts))
const more = computed(() => props.bolts.length - shown.value.length)
const words = computed(() => props.bolts.map((b) => `${b.number} ${b.words}`).join(', '))
const solid = (state: string) => state === 'final' || state === 'unlocked'
</script>

<template>
  <svg
    :width="shown.length * PITCH + 6 + (more ? 56 : 0)"
    height="32"
    :viewBox="`0 0 ${shown.length * PITCH + 6 + (more ? 56 : 0)} 32`"
    role="img"
    :aria-label="words"
  >
    <g
      v-for="(b, k) in shown"
      :key="b.number"
      :transform="`translate(${R + 3 + k * PITCH} 15)`"
      :class="b.state"
    >
      <circle v-if="solid(b.state)" :r="R" class="full" />
      <template v-else-if="b.state === 'hand' || b.state === 'snug'">
        <circle :r="R" class="ring" />
        <path
          :d="`M${-R} ${b.state === 'hand' ? 3 : -3} A${R} ${R} 0 1 0 ${R} ${b.state === 'hand' ? 3 : -3} Z`"
          class="part"
        />
      </template>
      <template v-else-if="b.state === 'stage'">
        <circle :r="R - 1.5" class="groove" />
        <path :d="arc(0, 0, R - 1.5, 0, b.stage / b.stages)" class="turned" />
      </template>
      <path
        v-else-if="b.state === 'loosened'"
        :d="`M6 -9 A${R} ${R} 0 1 1 -6 -9 M6 -9 l-1 -5 M6 -9 l-6 1`"
        class="ring"
      />
      <template v-else-if="b.state === 'held'">
        <circle :r="R" class="wrong" />
        <path d="M0 -6 V2 M0 5 V6" class="wrong" />
      </template>
      <template v-else>
        <circle :r="R" class="ring dash" />
        <path v-if="b.state === 'empty'" d="M-8 8 L8 -8" class="ring" />
      </template>
      <rect v-if="b.state === 'unlocked'" x="4" y="4" width="10" height="10" class="open" />
      <text
        v-if="b.state === 'final' || b.state === 'stage'"
        text-anchor="middle"
        dy="5"
        :class="b.state === 'final' ? 'on' : 'ink'"
      >
        {{ b.number }}
      </text>
    </g>
    <text v-if="more" :x="shown.length * PITCH + 8" y="20" class="more">and {{ more }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
  max-width: 100%;
}
.full,
.part {
  fill: var(--ink);
}
.ring,
.turned,
.groove,
.wrong {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.groove,
.turned {
  stroke-width: 4;
}
.groove {
  stroke: var(--hair);
}
.dash {
  stroke-dasharray: 3 3;
}
.wrong {
  stroke: var(--out);
  stroke-width: 2.4;
}
.open {
  fill: var(--now);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font-size: 14px;
  font-weight: 760;
}
.on {
  fill: var(--now);
}
.ink,
.more {
  fill: var(--ink);
}
.more {
  font-size: 18px;
  font-weight: 560;
}
</style>
