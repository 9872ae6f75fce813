<script setup lang="ts">
/**
 * Compartments in the order of removal, each with what it holds; the one in hand is yellow, an emptied one
 * is crossed through.
 */
import { computed } from 'vue'
import type { BagContent } from '@/api/client'

const props = defineProps<{ bags: readonly BagContent[]; current?: number; next?: number; all?: boolean }>()
const emit = defineEmits<{ choose: [bag: number] }>()
const cells = computed(() => {
  const last = Math.max(props.current ?? 0, props.next ?? 0, ...props.bags.map((b) => b.bag), 1)
  const count = Math.ceil(last / 8) * 8
  const first = props.all ? 0 : Math.max(0, count - 24)
  return Array.from({ length: count - first }, (_, k) => ({
    bag: first + k + 1,
    held: props.bags.find((b) => b.bag === first + k + 1),
  }))
})
const said = (held?: BagContent) =>
  held ? `${held.what}: ${held.lines.map((l) => l.words).join(', ')}` : 'free'
</script>

<template>
  <ol class="tray" aria-label="Bag tray">
    <li v-for="c in cells" :key="c.bag">
      <button
        type="button"
        :class="{ used: c.held, now: c.bag === current, out: c.held && !c.held.left }"
        @click="emit('choose', c.bag)"
      >
        <span class="sr">Bag</span><span class="b">{{ c.bag }}</span
        ><span v-if="c.held"
          >{{ c.held.left === c.held.pieces ? c.held.pieces : `${c.held.left}/${c.held.pieces}` }} pc</span
        >
        <small v-if="c.held">{{ all ? c.held.what : c.held.words }}</small><span class="sr">{{
          said(c.held)
        }}</span>
      </button>
    </li>
  </ol>
</template>

<style scoped>
.tray {
  display: grid;
  grid-template-columns: repeat(8, minmax(0, 1fr));
  gap: 3px;
  font-size: 16px;
}
button {
  position: relative;
  width: 100%;
  border: 1.4px solid var(--line);
  background: var(--now);
  color: var(--ink);
  min-height: 50px;
  padding: 4px 6px;
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-content: flex-start;
  line-height: 1.2;
  box-shadow: inset 0 4px 0 var(--hair);
  overflow: hidden;
  text-align: left;
  font-size: 16px;
}
small {
  font-size: 16px;
  flex-basis: 100%;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.used {
  background: var(--zinc2);
}
.out {
  color: var(--mut);
  background-color: var(--now);
  background-image: linear-gradient(to top right, transparent 49%, var(--metal) 49% 51%, transparent 51%);
}
.now {
  background: var(--yel);
  color: var(--onyel);
  border: 3px solid var(--yeledge);
}
.b {
  font-size: 18px;
  font-weight: 800;
}
@media (max-width: 959px) {
  .tray {
    grid-template-columns: repeat(6, minmax(0, 1fr));
  }
}
@media (max-width: 600px) {
  .tray {
    grid-template-columns: repeat(4, minmax(0, 1fr));
  }
}
</style>
