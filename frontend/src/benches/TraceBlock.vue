<script setup lang="ts">
/** A pull as it runs, or as it was sent last: torque over angle, its climb, and its sisters. */
import { computed } from 'vue'
import type { PullView, TraceBench } from '@/api/client'
import ClimbTrack from '@/drawings/ClimbTrack.vue'
import TorqueTrack from '@/drawings/TorqueTrack.vue'

type Point = [number, number]
const props = defineProps<{ trace: TraceBench; pull: PullView | null }>()
const points = computed(() => (props.pull?.points ?? []) as Point[])
const lines = computed(() =>
  props.pull?.had && props.pull.has
    ? ([props.pull.had, props.pull.has] as unknown as [[Point, Point], [Point, Point]])
    : null,
)
const between = computed(() => props.trace.slot as unknown as [Point[], Point[]] | null)
const name = computed(() => {
  const pull = props.pull
  return pull ? `${pull.torque.toFixed(0)} N·m at ${pull.turned.toFixed(0)}°. ${pull.words}` : 'no pull yet'
})
</script>

<template>
  <section class="trace" aria-label="Torque and angle">
    <p v-if="pull?.evidence" class="t20">{{ pull.evidence }}</p>
    <p class="t16">N·m; {{ trace.slot_words }}</p>
    <TorqueTrack
      :points="points"
      :between="between"
      :right="trace.right"
      :low="trace.low"
      :top="trace.top"
      :asked="trace.turns ? trace.asked : null"
      :at="(pull?.at as Point | null | undefined) ?? null"
      :lines="lines"
      :out="pull?.out ?? false"
      :name="name"
    />
    <template v-if="pull?.shares.length">
      <p class="t16"><b>Climb</b>, 1 is the most it had</p>
      <ClimbTrack
        :shares="pull.shares as Point[]"
        :right="trace.right"
        :yields="trace.yields"
        :bottoms="trace.bottoms"
        :out="pull.out"
      />
    </template>
    <p class="t16 sub">N·m a degree, stage {{ trace.stage }}</p>
    <ol class="sisters">
      <li
        v-for="s in trace.sisters"
        :key="s.bolt"
        :class="{ out: s.out, done: s.done, now: s.bolt === trace.bolt }"
      >
        <b>{{ s.bolt }}</b><span>{{ s.words }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.sub {
  margin-top: 8px;
  border-top: 1px solid var(--ink);
}
.sisters {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.sisters li {
  width: 54px;
  text-align: center;
  font-size: 16px;
}
.sisters b {
  display: block;
  width: 30px;
  height: 30px;
  margin: 0 auto;
  border: 2px solid var(--ink);
  border-radius: 50%;
  line-height: 26px;
}
.sisters .done b {
  background: var(--ink);
  color: var(--now);
}
.sisters .out b {
  background: var(--now);
  color: var(--out);
  border: 4px solid var(--out);
  line-height: 22px;
}
.sisters .now b {
  outline: 4px solid var(--yel);
}
.sisters .out span {
  color: var(--out);
  font-weight: 780;
}
</style>
