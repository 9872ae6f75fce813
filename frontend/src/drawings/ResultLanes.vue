<script setup lang="ts">
/**
 * Several results of one limit on one ruler: metal and slot once through all lanes, a mark and whisker in
 * each.
 */
import { computed, useId } from 'vue'
import { scale, whiskers } from './geometry'
import type { Lane } from './lanes'
import VerdictMark from './VerdictMark.vue'
import MetalPattern from './MetalPattern.vue'

const props = defineProps<{
  lanes: Lane[]
  lo: number | null
  hi: number | null
  target: number | null
  loText: string
  hiText: string
  assumed: boolean
  chosen?: string | null
}>()
const emit = defineEmits<{ choose: [id: string] }>()
const id = useId()
const W = 300
const ROW = 44
const domain = computed<[number, number]>(() => {
  const hi = props.hi ?? (props.lo ?? 1) * 1.5
  const lo = props.lo ?? 0
  const band = hi - lo || 1
  return [props.lo === null ? -0.06 * band : lo - 0.55 * band, hi + (props.lo === null ? 0.8 : 0.55) * band]
})
const x = computed(() => scale(domain.value, W))
const tall = computed(() => props.lanes.length * ROW)
const xl = computed(() => (props.lo === null ? null : x.value(props.lo)))
const xh = computed(() => (props.hi === null ? null : x.value(props.hi)))
const left = computed(() => xl.value ?? (props.lo === null ? Math.max(0, x.value(0)) : 0))
const at = (value: number) => Math.max(16, Math.min(W - 16, x.value(value)))
const colour = (verdict: string) =>
  ({ inside: 'var(--in)', too_close: 'var(--close)', outside: 'var(--out)' })[verdict] ?? 'var(--mut)'
</script>

<template>
  <div class="lanes">
    <div class="ruler" aria-hidden="true">
      <span v-if="xl !== null" :style="{ left: `${xl}px` }">{{ loText }}</span><span
        v-if="xh !== null"
        :style="{ left: `${xh}px` }"
        >{{ hiText }}</span
      >
    </div>
    <svg :width="W" :height="tall" :viewBox="`0 0 ${W} ${tall}`" aria-hidden="true">
      <defs>
        <MetalPattern :id="`l${id}`" soft />
      </defs>
      <rect :x="left" y="0" :width="(xh ?? W) - left" :height="tall" fill="var(--slot)" />
      <rect v-if="xl !== null" x="0" y="0" :width="xl" :height="tall" :fill="`url(#l${id})`" />
      <rect v-if="xh !== null" :x="xh" y="0" :width="W - xh" :height="tall" :fill="`url(#l${id})`" />
      <line
        v-for="(edge, k) in [xl, xh]"
        v-show="edge !== null"
        :key="k"
        :x1="edge ?? 0"
        :x2="edge ?? 0"
        y1="0"
        :y2="tall"
        stroke="var(--ink)"
        stroke-width="4"
        :stroke-dasharray="assumed ? '7 4' : undefined"
      />
      <line
        v-if="target !== null"
        :x1="x(target)"
        :x2="x(target)"
        y1="0"
        :y2="tall"
        stroke="var(--metal)"
        stroke-width="1.6"
        stroke-dasharray="7 3 2 3"
      />
      <g v-for="(lane, k) in lanes" :key="lane.id">
        <line x1="0" :x2="W" :y1="k * ROW + ROW" :y2="k * ROW + ROW" stroke="var(--hair)" />
        <g v-if="lane.value !== null">
          <path
            v-if="lane.U"
            :d="`M${at(lane.value - lane.U)} ${k * ROW + ROW / 2} H${at(lane.value + lane.U)}`"
            stroke="var(--now)"
            stroke-width="7"
          />
          <path
            v-if="lane.U"
            :d="whiskers(at(lane.value - lane.U), at(lane.value + lane.U), k * ROW + ROW / 2, 9)"
            :stroke="colour(lane.verdict)"
            stroke-width="2.6"
          />
          <circle :cx="at(lane.value)" :cy="k * ROW + ROW / 2" r="14" fill="var(--now)" fill-opacity="0.85" />
        </g>
        <VerdictMark
          :verdict="lane.verdict"
          :side="lane.side"
          :accepted="lane.accepted"
          :size="12"
          :x="(lane.value === null ? (left + (xh ?? W)) / 2 : at(lane.value)) - 15.6"
          :y="k * ROW + ROW / 2 - 15.6"
        />
      </g>
    </svg>
    <ol>
      <li v-for="lane in lanes" :key="lane.id">
        <button type="button" :class="{ chosen: lane.id === chosen }" @click="emit('choose', lane.id)">
          <span class="name" :class="{ long: lane.name.length > 10 }">{{ lane.name }}</span><span
            class="figure"
            :class="lane.verdict"
            >{{ lane.text || '–' }}</span
          ><span class="gap" /><span class="words" :class="lane.verdict">{{ lane.words }}</span>
        </button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.lanes {
  position: relative;
  --lead: 190px;
  min-width: 560px;
  padding-top: 24px;
}
.lanes > svg {
  position: absolute;
  left: var(--lead);
  top: 24px;
  pointer-events: none;
}
.ruler {
  position: absolute;
  top: 0;
  left: var(--lead);
  height: 24px;
  font-size: 16px;
  font-weight: 650;
}
.ruler span {
  position: absolute;
  transform: translateX(-50%);
}
li button {
  display: grid;
  grid-template-columns: 106px 84px 300px 1fr;
  align-items: center;
  width: 100%;
  height: 44px;
  border: 0;
  background: none;
  text-align: left;
  padding: 0;
  cursor: pointer;
}
li button.chosen {
  box-shadow: inset 5px 0 0 var(--ink);
}
.name {
  white-space: nowrap;
  font-size: 18px;
  font-weight: 700;
  padding-left: 10px;
  line-height: 1.1;
}
.name.long {
  white-space: normal;
  font-size: 16px;
  line-height: 1.05;
  max-height: 44px;
  overflow: hidden;
  hyphens: auto;
  padding-right: 4px;
}
.figure {
  font-size: 24px;
  font-weight: 780;
}
.words {
  font-size: 18px;
  font-weight: 650;
  line-height: 1.15;
  padding-left: 12px;
}
</style>
