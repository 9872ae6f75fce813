<script setup lang="ts">
/** Compartments in the order of removal; the one in hand is yellow. */
import { computed } from 'vue'

const props = defineProps<{ bags: { bag: number; pieces: number; words: string }[]; current: number }>()
const cells = computed(() => {
  const most = Math.max(8, Math.ceil(Math.max(props.current, ...props.bags.map((b) => b.bag)) / 8) * 8)
  return Array.from({ length: Math.min(most, 24) }, (_, k) => ({ bag: k + 1, ...props.bags.find((b) => b.bag === k + 1) }))
})
</script>

<template>
  <ol class="tray" aria-label="Bag tray">
    <li v-for="cell in cells" :key="cell.bag" :class="{ used: cell.pieces, now: cell.bag === current }">
      <span class="b">{{ cell.bag }}</span><span v-if="cell.pieces">{{ cell.pieces }} pc</span>
      <small v-if="cell.words">{{ cell.words }}</small>
    </li>
  </ol>
</template>

<style scoped>
.tray { display: grid; grid-template-columns: repeat(8, 1fr); gap: 3px; font-size: 16px; }
li { border: 1.4px solid var(--line); background: var(--now); min-height: 52px; padding: 4px 6px; display: flex; flex-wrap: wrap; justify-content: space-between; align-content: flex-start; line-height: 1.2; box-shadow: inset 0 4px 0 var(--hair); overflow: hidden; }
li small { font-size: 16px; flex-basis: 100%; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
.used { background: var(--zinc2); }
.now { background: var(--yel); color: var(--onyel); border: 3px solid var(--yeledge); }
.b { font-size: 18px; font-weight: 800; }
@media (max-width: 959px) { .tray { grid-template-columns: repeat(6, 1fr); } }
</style>
