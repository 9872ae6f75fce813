<script setup lang="ts">
/**
 * What stands before the step: settings not to disturb, fluids, hidden things, what must be off, the
 * surroundings.
 */
import { ref } from 'vue'
import type { BenchView } from '@/api/client'
import AskDialog from './AskDialog.vue'
import { capital } from '@/words'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: BenchView }>()
const book = useBook()
const reason = ref<InstanceType<typeof AskDialog> | null>(null)
type Keeping = BenchView['base']['keeps'][number]

async function loosened(k: Keeping) {
  const said = await reason.value?.ask({
    title: `Loosened all the same: ${k.what}`,
    button: 'It was loosened',
    why: `It holds ${k.holds}. It is open from now on and has to be set anew.`,
  })
  if (said) await book.act({ kind: 'disturbed', step: props.bench.base.step, setting: k.id, reason: said })
}
async function anew(k: Keeping) {
  const said = await reason.value?.ask({
    title: `Set anew: ${k.holds}`,
    button: 'Set anew',
    why: 'How it was set, and to what.',
  })
  if (said) await book.act({ kind: 'set anew', step: props.bench.base.step, setting: k.id, how: said })
}
</script>

<template>
  <p v-for="what in bench.base.settled ? [] : bench.base.needed_open" :key="what" class="block">
    <b>It must be so before this step, and is not:</b> {{ what }}
  </p>
  <ul
    v-if="
      bench.base.keeps.length ||
      bench.base.fluids.length ||
      bench.base.hidden.length ||
      bench.base.around.length
    "
    class="guards"
    aria-label="Before you begin"
  >
    <li v-for="k in bench.base.keeps" :key="k.id" class="keep">
      <svg width="30" height="30" viewBox="0 0 30 30" aria-hidden="true">
        <circle cx="15" cy="15" r="12" fill="none" stroke="currentColor" stroke-width="2.6" />
        <path d="M15 3v24" stroke="currentColor" stroke-width="2.6" />
      </svg>
      <span
        ><b>Do not loosen: {{ k.what }}.</b> It holds {{ k.holds }}. Part it at {{ k.part_at }}.<small
          v-if="k.disturbed"
          class="lost"
          >Loosened: {{ k.disturbed }}</small
        ></span
      >
      <button v-if="k.disturbed" type="button" class="btn small" @click="anew(k)">Set anew</button
      ><button v-else-if="!bench.base.settled" type="button" class="btn small" @click="loosened(k)">
        Loosened
      </button>
    </li>
    <li v-for="f in bench.base.fluids" :key="f.name">
      <b>{{ f.words }}.</b>
    </li>
    <li v-for="h in bench.base.hidden" :key="h"><b>Hidden:</b> {{ h }}</li>
    <li v-for="a in bench.base.around" :key="a.id">
      <b>{{ capital(a.name) }}:</b> {{ a.words }}
    </li>
  </ul>
  <AskDialog ref="reason" />
</template>

<style scoped>
.guards {
  border-left: 8px solid var(--ink);
  padding-left: 12px;
}
li {
  padding: 3px 0;
}
.keep {
  display: flex;
  gap: 12px;
  align-items: center;
}
.keep > span {
  flex: 1;
}
.keep svg {
  flex: none;
}
small {
  display: block;
  font-size: 16px;
}
.lost {
  color: var(--out);
}
</style>
