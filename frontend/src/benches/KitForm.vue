<script setup lang="ts">
/** What lies in the drawer, as on paper: thickness and how many, measured or as printed. */
import { ref } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

const props = defineProps<{
  step: string
  pack: MeasureBenchView['packs'][number]
  tools: MeasureBenchView['kit_tools']
}>()
const emit = defineEmits<{ done: [] }>()
const book = useBook()
const { problem, served } = useServer()
const typed = ref(props.pack.kit.map((p) => (p.count === 1 ? p.typed : `${p.typed} x ${p.count}`)).join(', '))
const tool = ref(props.tools.find((t) => t.code === props.pack.measured_with)?.id ?? '')

async function write() {
  const saved = await served(() =>
    book.write({
      kind: 'kit said',
      step: props.step,
      pack: props.pack.id,
      typed: typed.value,
      instrument: tool.value || null,
    }),
  )
  if (saved !== undefined && !problem.value) emit('done')
}
</script>

<template>
  <form class="kit" @submit.prevent="write">
    <label class="field"
      ><span>Shims in the drawer, in {{ pack.limit.unit }}</span
      ><input
        v-model="typed"
        class="entry"
        name="kit"
        autocomplete="off"
        placeholder="0.25 x 2, 0.50, 1.00 x 3"
    /></label>
    <label class="field"
      ><span>how thick</span
      ><select v-model="tool" class="entry" name="kit_tool">
        <option value="">as printed on them</option>
        <option v-for="t in tools" :key="t.id" :value="t.id">measured with {{ t.code }}</option>
      </select></label
    >
    <button type="submit" class="btn">That is the drawer <kbd>Enter</kbd></button>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.kit {
  display: grid;
  grid-template-columns: 1fr 220px auto;
  gap: 8px;
  align-items: end;
}
.kit .problem {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .kit {
    grid-template-columns: 1fr;
  }
}
</style>
