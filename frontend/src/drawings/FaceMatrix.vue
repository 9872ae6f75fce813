<script setup lang="ts">
/** Parts with their faces: a shape for what was seen, a dashed ring for what was not. */
import type { PartFacts } from '@/api/client'
import VerdictMark from './VerdictMark.vue'

defineProps<{
  parts: readonly PartFacts[]
  part: string | null
  face: string | null
  picked: string | null
}>()
const emit = defineEmits<{ pick: [part: string, face: string]; open: [part: string] }>()
const SHAPES: Record<string, string> = {
  good: 'inside',
  again: 'too_close',
  bad: 'outside',
  not_seen: 'not_read',
}
const WORDS: Record<string, string> = { good: 'good', again: 'look again', bad: 'bad', not_seen: 'not seen' }
</script>

<template>
  <ul class="matrix">
    <li v-for="p in parts" :key="p.id" :class="{ here: p.id === part }">
      <button type="button" class="name" :aria-expanded="picked === p.id" @click="emit('open', p.id)">
        <span class="disc" :class="{ failed: p.mark === 'F', none: !p.mark }">{{ p.mark }}</span>
        <span class="words"
          >{{ p.name
          }}<small v-if="p.choice_words" :class="{ too_close: p.provisional || p.needs }"
            >{{ p.choice_words }}{{ p.provisional ? ', provisional' : ''
            }}{{ p.right ? ', done' : '' }}</small
          ><small v-else-if="p.needs" class="outside">decide</small></span
        >
      </button>
      <div class="cells">
        <button
          v-for="f in p.faces"
          :key="f.id"
          type="button"
          class="cell"
          :class="{ now: p.id === part && f.id === face, seen: f.state !== 'not_seen' }"
          :aria-label="`${p.name}, ${f.name}: ${f.words}`"
          :aria-pressed="p.id === part && f.id === face"
          @click="emit('pick', p.id, f.id)"
        >
          <VerdictMark :verdict="SHAPES[f.state]" :size="8" :word="WORDS[f.state]" /><span>{{ f.name }}</span>
        </button>
      </div>
    </li>
  </ul>
</template>

<style scoped>
.matrix {
  border-top: 1px solid var(--hair);
}
li {
  display: grid;
  grid-template-columns: 170px minmax(0, 1fr);
  gap: 4px;
  border-bottom: 1px solid var(--hair);
  align-items: stretch;
}
.name {
  display: flex;
  gap: 5px;
  align-items: center;
  text-align: left;
  border: 0;
  background: none;
  padding: 2px 0;
  min-height: 44px;
  cursor: pointer;
  font-size: 16px;
  font-weight: 650;
  line-height: 1.15;
}
.name small {
  display: block;
  font-size: 16px;
  font-weight: 460;
}
.words {
  min-width: 0;
}
.disc {
  flex: none;
  width: 26px;
  height: 26px;
  border-radius: 50%;
  border: 2.2px solid var(--ink);
  display: grid;
  place-items: center;
  font-size: 16px;
  font-weight: 800;
  background: var(--now);
  margin: 0;
}
.disc.failed {
  background: var(--out);
  color: var(--now);
  border-color: var(--out);
}
.disc.none {
  border: 0;
  width: 2px;
  background: none;
}
.cells {
  display: flex;
  flex-wrap: wrap;
}
.cell {
  flex: 0 0 20%;
  min-width: max(88px, min-content);
  min-height: 44px;
  display: flex;
  gap: 2px;
  align-items: center;
  border: 1px solid var(--hair);
  background: var(--now);
  padding: 0 2px;
  font-size: 16px;
  cursor: pointer;
  text-align: left;
  line-height: 1.05;
}
.cell.seen {
  background: var(--zinc2);
}
.cell.now {
  background: var(--yel);
  color: var(--onyel);
  outline: 3px solid var(--yeledge);
  outline-offset: -3px;
  font-weight: 750;
}
@media (max-width: 600px) {
  li {
    grid-template-columns: 1fr;
  }
  .cell {
    flex-basis: 50%;
  }
}
</style>
