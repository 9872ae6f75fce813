<script setup lang="ts">
/** A wire and how far it is mended; without a row, a new one. */
import { reactive, ref } from 'vue'
import { v7 } from 'uuid'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

type State = Schemas['WireFacts']['state']
const props = defineProps<{ step: string; build: string; row?: Schemas['WireFacts'] }>()
const emit = defineEmits<{ done: [] }>()
const book = useBook()
const { problem, served } = useServer()
const id = props.row?.id ?? v7()
const said = reactive({
  place: props.row?.place ?? '',
  which: props.row?.which ?? '',
  how: props.row?.how ?? 'crimped',
  marker: props.row?.marker ?? '',
  inner: '',
  length: '',
})
const proof = ref('')
const HOW = ['crimped', 'soldered', 'new piece', 'connector renewed']
const PRESS: Record<string, string> = {
  joined: 'It is joined',
  proven: 'It is proven',
  tied: 'Ties final',
}

async function write(state: State) {
  await served(() =>
    book.write({
      kind: 'wire mended',
      step: props.step,
      wire: id,
      place: said.place,
      which: said.which,
      how: said.how as 'crimped',
      marker: said.marker,
      sleeve_inner: said.inner,
      sleeve_length: said.length,
      state,
      proof: proof.value,
    }),
  )
  if (!problem.value) emit('done')
}
/** The sleeve as a line of the parts desk. */
async function want() {
  const name = `Sleeve, inner ${said.inner}, ${said.length} long, for ${said.which}`
  await book.handed({ kind: 'part wanted', typed: name, step: props.step })
}
</script>

<template>
  <article v-if="row">
    <p class="b">
      {{ row.which }}, {{ row.place }}:
      <span :class="row.next ? 'too_close' : 'inside'">{{ row.words }}</span>
    </p>
    <p class="t16">
      {{ capital(row.how) }}{{ row.marker ? `, marked ${row.marker}` : ''
      }}{{ row.sleeve ? `, ${row.sleeve}` : '' }}{{ row.proof ? `. Proven: ${row.proof}` : '' }}.
      <span class="mut">{{ row.who }}</span>
    </p>
    <form v-if="row.next" class="next" @submit.prevent="write(row.next)">
      <label v-if="row.next === 'proven'" class="field"
        ><span>how it was proven: end to end while it moves, or the drop under its load</span
        ><input v-model="proof" class="entry" name="wire-proof" maxlength="200" autocomplete="off"
      /></label>
      <button type="submit" class="btn small">{{ PRESS[row.next] }}</button>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </article>
  <form v-else class="wire" @submit.prevent="write('joined')">
    <label class="field"
      ><span>which wire, by colour or number</span
      ><input v-model="said.which" class="entry" name="wire-which" maxlength="160" autocomplete="off"
    /></label>
    <label class="field"
      ><span>where, measured from a plug</span
      ><input v-model="said.place" class="entry" name="wire-place" maxlength="160" autocomplete="off"
    /></label>
    <label class="field"
      ><span>by what</span
      ><select v-model="said.how" class="entry" name="wire-how">
        <option v-for="how in HOW" :key="how">{{ how }}</option>
      </select></label
    >
    <label class="field"
      ><span>tape or tag that marks it</span
      ><input v-model="said.marker" class="entry" name="wire-marker" maxlength="80" autocomplete="off"
    /></label>
    <label class="field"
      ><span>sleeve, inner diameter, mm</span
      ><input v-model="said.inner" class="entry" name="wire-inner" maxlength="20" autocomplete="off"
    /></label>
    <label class="field"
      ><span>sleeve, length along the way, mm</span
      ><input v-model="said.length" class="entry" name="wire-length" maxlength="20" autocomplete="off"
    /></label>
    <div class="two">
      <button type="button" class="btn small" @click="write('cut')">It is cut, bare</button>
      <button type="submit" class="btn small">It is joined</button>
      <button type="button" class="btn small" :disabled="!said.inner || !said.length" @click="want">
        Want the sleeve
      </button>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
article {
  border-top: 1px solid var(--hair);
  padding: 8px 0;
}
.next {
  display: flex;
  gap: 8px;
  align-items: end;
}
.next label {
  flex: 1;
}
.wire {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
  align-items: end;
}
.two {
  display: flex;
  gap: 8px;
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .wire {
    grid-template-columns: 1fr;
  }
}
</style>
