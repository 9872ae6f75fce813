<script setup lang="ts">
/** Leave something open at any step: a word, the rung it blocks, what undoes it. */
import { ref } from 'vue'
import { v7 } from 'uuid'
import { useBook } from '@/stores/book'
import { RUNG_NAMES } from '@/composables/words'

const props = defineProps<{ step: string | null }>()
const book = useBook()
const open = ref(false)
const what = ref('')
const undo = ref('')
const blocks = ref('crank')

function ask() {
  if (!props.step) return
  open.value = true
  what.value = undo.value = ''
  blocks.value = 'crank'
}
async function leave() {
  if (!what.value.trim() || !props.step) return
  open.value = false
  await book.act({ kind: 'left open', step: props.step, item: v7(), what: what.value.trim(), blocks: blocks.value as 'crank', undo: undo.value.trim() || 'undo it' })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Leave something open" width="640" append-to-body>
    <form class="leave" @submit.prevent="leave">
      <label class="field"><span>What is left open, in a word or two</span><input v-model="what" class="entry big" maxlength="120" autofocus name="what" /></label>
      <fieldset><legend class="t16 mut">It must be undone before</legend>
        <label v-for="(name, rung) in RUNG_NAMES" :key="rung"><input v-model="blocks" type="radio" name="blocks" :value="rung" /><span>{{ name }}</span></label></fieldset>
      <label class="field"><span>What undoes it</span><input v-model="undo" class="entry" maxlength="120" name="undo" /></label>
      <button type="submit" class="btn" :disabled="!what.trim()">Left open</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.leave { display: grid; gap: 14px; }
fieldset { border: 0; padding: 0; margin: 0; display: flex; flex-wrap: wrap; gap: 8px; }
fieldset label { position: relative; }
fieldset input { position: absolute; opacity: 0; inset: 0; width: 100%; height: 100%; margin: 0; }
fieldset span { display: block; border: 2px solid var(--line); padding: 9px 14px; min-height: 44px; }
fieldset input:checked + span { background: var(--ink); color: var(--now); }
fieldset input:focus-visible + span { outline: 4px solid var(--ink); outline-offset: 3px; }
</style>
