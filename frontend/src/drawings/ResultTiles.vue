<script setup lang="ts">
/** Results of one limit side by side: name and figure over a small slot each, all on one scale. */
import { computed } from 'vue'
import LimitBar from './LimitBar.vue'
import { domainOf } from './geometry'
import type { Lane } from './lanes'

const props = defineProps<{
  lanes: Lane[]
  lo: number | null
  hi: number | null
  target: number | null
  assumed: boolean
  chosen?: string | null
}>()
const emit = defineEmits<{ choose: [id: string] }>()
const bar = (lane: Lane) => ({
  lo: props.lo,
  hi: props.hi,
  target: props.target,
  value: lane.value,
  U: lane.U,
})
/** A two-sided slot has one scale by its own figures; a one-sided one takes that of its widest result. */
const domain = computed(() => {
  const all = props.lanes.map((lane) => domainOf(bar(lane)))
  return [Math.min(...all.map((d) => d[0])), Math.max(...all.map((d) => d[1]))] as [number, number]
})
</script>

<template>
  <ol class="tiles">
    <li v-for="lane in lanes" :key="lane.id">
      <button type="button" :class="{ chosen: lane.id === chosen }" @click="emit('choose', lane.id)">
        <span class="head"
          ><span class="name">{{ lane.name }}</span
          ><b :class="lane.verdict">{{ lane.text || '–' }}</b></span
        >
        <LimitBar
          size="s"
          :width="144"
          :bar="bar(lane)"
          :verdict="lane.verdict"
          :side="lane.side"
          :accepted="lane.accepted"
          :assumed="assumed"
          :words="lane.words"
          :domain="domain"
        />
      </button>
    </li>
  </ol>
</template>

<style scoped>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: 4px 8px;
}
button {
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  width: 100%;
  min-height: 44px;
  padding: 2px 0 2px 4px;
  text-align: left;
  cursor: pointer;
}
button.chosen {
  box-shadow: inset 5px 0 0 var(--ink);
  padding-left: 8px;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 6px;
  align-items: baseline;
  max-width: 148px;
}
.name {
  font-size: 16px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
b {
  font-size: 20px;
  font-weight: 780;
}
</style>
