<script setup lang="ts">
/** Leave something open at any step: a word, the rung it blocks, what undoes it. */
import { computed, ref } from 'vue'
import { v7 } from 'uuid'
import { useBook } from '@/stores/book'

const props = defineProps<{ step: string | null }>()
const book = useBook()
const open = ref(false)
const what = ref('')
const undo = ref('')
const blocks = ref('crank')
const sort = ref('disconnected')
const where = ref('')
const count = ref('1')
const ifLeft = ref('')
/** Of these there may be several, and they are counted out again. */
const counts = computed(() => ['cover', 'cap'].includes(sort.value))
/** What the hand does most: one touch gives the sort, its usual rung and what undoes it. */
const SORTS: Record<string, { words: string; blocks: string; undo: string }> = {
  disconnected: { words: 'Disconnected', blocks: 'fire', undo: 'connect it, feel that it clicks' },
  tied: { words: 'Tied up', blocks: 'fire', undo: 'cut the tie, put it back' },
  stand_in: { words: 'Stand-in bolt or bracket', blocks: 'crank', undo: 'the right one in its place' },
  cap: { words: 'Capped', blocks: 'fuel_on', undo: 'cap off, connect it' },
  cover: { words: 'Cover in', blocks: 'crank', undo: 'take it out and count it' },
  block: { words: 'Blocked or held', blocks: 'crank', undo: 'take the block away' },
  open_port: { words: 'Open, bare', blocks: 'crank', undo: 'cover it, or close it' },
  other: { words: 'Something else', blocks: 'crank', undo: 'undo it' },
}
const WHERE = ['tied to the bulkhead', 'on the left wing', 'on the right wing', 'hung on wire']

function choose(id: string) {
  sort.value = id
  blocks.value = SORTS[id].blocks
}
function ask() {
  if (!props.step) return
  open.value = true
  what.value = undo.value = where.value = ifLeft.value = book.refused = ''
  count.value = '1'
  choose('disconnected')
}
async function leave() {
  if (!what.value.trim() || !props.step) return
  open.value = false
  const taken = await book.handed({
    kind: 'left open',
    step: props.step,
    item: v7(),
    what: what.value.trim(),
    blocks: blocks.value as 'crank',
    undo: undo.value.trim() || SORTS[sort.value].undo,
    sort: sort.value as 'other',
    where: where.value.trim() || null,
    count: counts.value ? Math.max(1, Number.parseInt(count.value, 10) || 1) : 1,
    if_left: ifLeft.value.trim() || null,
  })
  if (!taken) open.value = true // with all that was typed
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Leave something open" width="640" append-to-body>
    <form class="leave" @submit.prevent="leave">
      <fieldset>
        <legend class="t16 mut">Of which sort</legend>
        <label v-for="(s, id) in SORTS" :key="id"
          ><input type="radio" name="sort" :value="id" :checked="sort === id" @change="choose(id)" /><span>{{
            s.words
          }}</span></label
        >
      </fieldset>
      <label class="field"
        ><span>What is left open, in a word or two</span
        ><input v-model="what" class="entry big" maxlength="120" autofocus name="what"
      /></label>
      <fieldset>
        <legend class="t16 mut">It must be undone before</legend>
        <label v-for="(name, rung) in book.frame?.rungs ?? {}" :key="rung"
          ><input v-model="blocks" type="radio" name="blocks" :value="rung" /><span>{{ name }}</span></label
        >
      </fieldset>
      <div class="chips" role="group" aria-label="Where it is tucked">
        <button
          v-for="w in WHERE"
          :key="w"
          type="button"
          class="btn small"
          :aria-pressed="where === w"
          @click="where = where === w ? '' : w"
        >
          {{ w }}
        </button>
      </div>
      <label class="field"
        ><span>Where it is tucked</span><input v-model="where" class="entry" maxlength="120" name="where"
      /></label>
      <label v-if="counts" class="field"
        ><span>How many go in</span
        ><input v-model="count" class="entry" inputmode="numeric" maxlength="2" name="count"
      /></label>
      <label v-if="sort === 'stand_in'" class="field"
        ><span>What happens if it stays, and how much it bears</span
        ><input v-model="ifLeft" class="entry" maxlength="160" name="if_left"
      /></label>
      <label class="field"
        ><span>What undoes it</span
        ><input v-model="undo" class="entry" maxlength="120" name="undo" :placeholder="SORTS[sort].undo"
      /></label>
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
      <button type="submit" class="btn" :disabled="!what.trim()">Left open</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.leave {
  display: grid;
  gap: 14px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
fieldset label {
  position: relative;
}
fieldset input {
  position: absolute;
  opacity: 0;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
}
fieldset span {
  display: block;
  border: 2px solid var(--line);
  padding: 9px 14px;
  min-height: 44px;
}
fieldset input:checked + span {
  background: var(--ink);
  color: var(--now);
}
fieldset input:focus-visible + span {
  outline: 4px solid var(--ink);
  outline-offset: 3px;
}
</style>
