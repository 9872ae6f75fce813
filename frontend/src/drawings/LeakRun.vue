<script setup lang="ts">
/** Looks at one place from left to right, what was done between them; of many the first and the last two. */
import { computed } from 'vue'
import DropSign from './DropSign.vue'

export interface LookSeen {
  entry: string
  at: string
  grade: string
  words: string
  sure: string
  way: string
  heat: string
  done: string
}
const props = defineProps<{ looks: readonly LookSeen[]; now: string | null }>()
const WAYS: Record<string, string> = {
  standing: 'no pressure',
  pressed: 'under pressure',
  running: 'running',
}
const all = computed(() => props.looks.map((look, k) => ({ ...look, number: k + 1 })))
const most = computed(() => (props.now ? 2 : 3))
const shown = computed(() =>
  all.value.length <= most.value ? all.value : [all.value[0], ...all.value.slice(1 - most.value)],
)
const hidden = computed(() => all.value.length - shown.value.length)
</script>

<template>
  <ol class="looks">
    <template v-for="(look, k) in shown" :key="look.entry">
      <li class="card">
        <p class="head">
          <b>Look {{ look.number }}</b
          ><span>{{ look.at }}</span>
        </p>
        <p class="seen">
          <DropSign :grade="look.grade" /><b>{{ look.words }}</b>
        </p>
        <p class="t16 mut">
          {{ look.grade === 'dry' ? '' : `${look.sure}, ` }}{{ WAYS[look.way] }}, {{ look.heat }}
        </p>
      </li>
      <li v-if="look.done || k < shown.length - 1 || now" class="between">
        <svg width="48" height="14" viewBox="0 0 48 14" aria-hidden="true">
          <path d="M0 7 H38" class="shaft" />
          <path d="M36 1 L48 7 L36 13 Z" class="tip" />
        </svg>
        <span v-if="k === 0 && hidden">{{ hidden }} more</span
        ><span v-else>{{ look.done || 'nothing done' }}</span>
      </li>
    </template>
    <li v-if="now" class="card now">
      <p class="head">
        <b>Look {{ all.length + 1 }}</b
        ><span>now</span>
      </p>
      <p class="seen"><DropSign grade="damp" /><b>looking</b></p>
      <p class="t16">{{ now }}</p>
    </li>
  </ol>
</template>

<style scoped>
.looks {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
}
.card {
  width: 160px;
  min-height: 84px;
  border: 2px solid var(--hair);
  padding: 4px 8px;
}
.card.now {
  background: var(--yel);
  color: var(--onyel);
  border: 3px solid var(--yeledge);
}
.head,
.seen {
  display: flex;
  align-items: center;
  gap: 4px;
}
.head {
  justify-content: space-between;
  font-size: 16px;
}
.seen {
  font-size: 20px;
}
.between {
  width: 78px;
  display: grid;
  justify-items: center;
  text-align: center;
  font-size: 16px;
  line-height: 1.1;
}
.shaft {
  stroke: var(--ink);
  stroke-width: 3;
}
.tip {
  fill: var(--ink);
}
</style>
