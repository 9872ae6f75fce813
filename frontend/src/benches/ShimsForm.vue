<script setup lang="ts">
/** How thick the shims are, valve by valve in one line; spares, and the sizes that are sold. */
import { ref } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

const props = defineProps<{
  step: string
  table: NonNullable<MeasureBenchView['valve_shims']>
  tools: MeasureBenchView['kit_tools']
}>()
const emit = defineEmits<{ done: [] }>()
const book = useBook()
const { problem, served } = useServer()
const typed = ref(props.table.shims.join(' '))
const spares = ref(props.table.spares.join(' '))
const [from, to, each] = props.table.sizes.length ? props.table.sizes : ['', '', '']
const sizes = ref({ from, to, each })
const tool = ref(props.tools.find((t) => t.code === props.table.measured_with)?.id ?? '')

async function write() {
  const saved = await served(() =>
    book.write({
      kind: 'shims read',
      step: props.step,
      typed: typed.value,
      spares: spares.value,
      sizes: [sizes.value.from, sizes.value.to, sizes.value.each],
      instrument: tool.value || null,
    }),
  )
  if (saved !== undefined && !problem.value) emit('done')
}
</script>

<template>
  <form class="shims" @submit.prevent="write">
    <label class="field wide"
      ><span>Shims in mm, in the order of the valves below, a space between</span
      ><input v-model="typed" class="entry" name="shims" autocomplete="off" placeholder="2.65 2.70 2.60"
    /></label>
    <label class="field wide"
      ><span>Spares in the drawer</span
      ><input v-model="spares" class="entry" name="spares" autocomplete="off" placeholder="none"
    /></label>
    <label class="field"
      ><span>sold from</span><input v-model="sizes.from" class="entry" name="sold_from" placeholder="2.00"
    /></label>
    <label class="field"
      ><span>to</span><input v-model="sizes.to" class="entry" name="sold_to" placeholder="3.20"
    /></label>
    <label class="field"
      ><span>in steps of</span><input v-model="sizes.each" class="entry" name="sold_each" placeholder="0.05"
    /></label>
    <label class="field"
      ><span>how thick</span
      ><select v-model="tool" class="entry" name="shims_tool">
        <option value="">as printed</option>
        <option v-for="t in tools" :key="t.id" :value="t.id">measured, {{ t.code }}</option>
      </select></label
    >
    <button type="submit" class="btn wide">These are the shims <kbd>Enter</kbd></button>
    <p v-if="problem" class="problem wide" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.shims {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 8px;
}
.wide {
  grid-column: 1 / -1;
}
</style>
