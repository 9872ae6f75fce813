<script setup lang="ts">
/** A part that was changed or made here: what differs, how it is held, how the next person undoes it. */
import { reactive } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

const props = defineProps<{
  id: string
  step: string
  needs: readonly { id: string; name: string }[]
  was?: Schemas['AlteredFacts']
}>()
const emit = defineEmits<{ done: [] }>()
const book = useBook()
const { problem, served } = useServer()
const id = props.id // one that is being typed keeps its id
const said = reactive({
  what: props.was?.what ?? '',
  differs: props.was?.differs ?? '',
  held: props.was?.held ?? '',
  undo: props.was?.undo ?? '',
  need: props.needs.find((n) => n.name === props.was?.for_name)?.id ?? '',
})
const FIELDS = {
  what: 'which part',
  differs: 'what differs: bent, ground, made of',
  held: 'how it is held',
  undo: 'how the next person undoes it',
} as const

async function write() {
  await served(() =>
    book.write({
      kind: 'altered',
      step: props.step,
      altered: id,
      what: said.what,
      differs: said.differs,
      held: said.held,
      undo: said.undo,
      for_need: said.need || null,
    }),
  )
  if (!problem.value) emit('done')
}
</script>

<template>
  <form class="altered" @submit.prevent="write">
    <label v-for="(name, field) in FIELDS" :key="field" class="field"
      ><span>{{ name }}</span
      ><input
        v-model="said[field]"
        class="entry"
        :name="`altered-${field}`"
        maxlength="160"
        autocomplete="off"
    /></label>
    <label class="field"
      ><span>for a part that comes later</span
      ><select v-model="said.need" class="entry" name="altered-need">
        <option value="">for none</option>
        <option v-for="n in needs" :key="n.id" :value="n.id">{{ n.name }}</option>
      </select></label
    >
    <button type="submit" class="btn small">{{ was ? 'It still fits: say it again' : 'It is so' }}</button>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.altered {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: end;
}
.problem {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .altered {
    grid-template-columns: 1fr;
  }
}
</style>
