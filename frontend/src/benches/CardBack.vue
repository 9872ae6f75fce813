<script setup lang="ts">
/** The card that hung over the work, and its ticks typed back in one pass, bolt by bolt in their order. */
import { computed, ref } from 'vue'
import type { TightenBenchView } from '@/api/client'
import { ticked } from '@/composables/typein'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: TightenBenchView }>()
const book = useBook()
const typing = ref(false)
const text = ref('')
const problem = ref('')
const busy = ref(false)
const stage = computed(() => props.bench.joint.next_stage)
const paper = computed(() => `/api/builds/${book.card?.id ?? ''}/steps/${props.bench.base.step}/card.pdf`)

const print = () => window.open(paper.value, '_blank')
async function write() {
  const ahead = props.bench.joint.ahead
  const said = ticked(text.value, props.bench.joint.bolts.length)
  problem.value = said.problem
  if (said.problem || stage.value === null) return
  const gap = ahead.findIndex((bolt) => !said.bolts.includes(bolt))
  const follows = gap < 0 ? ahead : ahead.slice(0, gap)
  const at = stage.value
  busy.value = true
  for (const bolt of follows) {
    const entry = { kind: 'fastener', step: props.bench.base.step, bolt, act: 'clicked', stage: at } as const
    if (!(await book.handed({ ...entry, note: 'from the card' }))) break
  }
  busy.value = false
  const beyond = ahead.slice(follows.length).some((bolt) => said.bolts.includes(bolt))
  if (book.refused) return
  problem.value = beyond ? `Bolt ${ahead[gap]} is not ticked: what comes after it was not written.` : ''
  if (!problem.value) typing.value = false
  text.value = ''
}
defineExpose({ print })
</script>

<template>
  <section class="card" aria-label="The card of this joint">
    <button type="button" class="btn small" @click="print">The card to hang up <kbd>P</kbd></button>
    <button
      v-if="!typing && stage !== null && !bench.base.settled"
      type="button"
      class="btn small"
      @click="typing = true"
    >
      Type its ticks back
    </button>
    <form v-if="typing && stage !== null" @submit.prevent="write">
      <label class="field"
        ><span>bolts ticked at stage {{ stage }}, such as 1-6 8</span
        ><input v-model="text" class="entry" name="ticks" maxlength="120" autocomplete="off" autofocus
      /></label>
      <button type="submit" class="btn small" :disabled="busy">Written on the card</button>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.card {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
form {
  display: flex;
  gap: 8px;
  align-items: end;
}
.problem {
  flex-basis: 100%;
}
</style>
