<script setup lang="ts">
/**
 * Every question goes through here: a reason (by a large key or in words), a thing that is not there, what
 * carries a load now.
 */
import { ref } from 'vue'
import type { Answer, Carry, Question } from '@/composables/asking'
import { useBook } from '@/stores/book'
import SayButton from './SayButton.vue'

const book = useBook()
const open = ref(false)
const question = ref<Question>({ title: '', button: '' })
const words = ref('')
const thing = ref('')
const pressed = ref(false)
const notYet = ref(false)
let done: (answer: Answer | null) => void = () => undefined
const ON: { words: string; by: Carry['by']; count: number }[] = [
  { words: 'on its own wheels', by: 'wheels', count: 4 },
  { words: 'on its own mounts', by: 'mounts', count: 1 },
  { words: 'on two stands', by: 'stand', count: 2 },
  { words: 'on four stands', by: 'stand', count: 4 },
  { words: 'on a jack', by: 'jack', count: 1 },
  { words: 'on a hook', by: 'hook', count: 1 },
  { words: 'on a cradle', by: 'cradle', count: 1 },
  { words: 'on a cart', by: 'cart', count: 1 },
]
const BODIES: Record<Carry['body'], string> = {
  vehicle: 'vehicle',
  engine: 'engine',
  gearbox: 'gearbox',
  powertrain: 'engine with gearbox',
  axle: 'axle',
  hub: 'hub',
  other: 'something else',
}
const body = ref<Carry['body']>('vehicle')

function put(asked: Question): Promise<Answer | null> {
  question.value = asked
  words.value = ''
  thing.value = asked.thing ?? ''
  pressed.value = notYet.value = false
  body.value = asked.carry ?? 'vehicle'
  open.value = true
  return new Promise((resolve) => (done = resolve))
}
function answer(text: string, carry: Carry | null = null) {
  if (question.value.box && !pressed.value) return
  open.value = false
  done({ spoken: null, words: text.trim(), thing: thing.value.trim(), carry })
}
/**
 * Spoken as the reason: the note is written first, so that it is never lost; its words come on the closing
 * card.
 */
async function said(sound: Blob) {
  const step = question.value.aloud
  if (!step) return
  notYet.value = !(await book.act({ kind: 'spoken', step, sound: '0'.repeat(64) }, sound))
  if (notYet.value || !book.last) return
  const spoken = book.last.id
  open.value = false
  done({ spoken, words: '', thing: '', carry: null })
}
function say() {
  if (words.value.trim().length >= (question.value.least ?? 3)) answer(words.value)
}
/** The reason alone, '' when the question was closed. */
async function ask(asked: Question): Promise<string> {
  return (await put(asked))?.words ?? ''
}
function closed() {
  done(null)
}
defineExpose({ ask, put })
</script>

<template>
  <el-dialog v-model="open" :title="question.title" width="640" append-to-body @closed="closed">
    <form class="ask" @submit.prevent="say">
      <p v-if="question.why">{{ question.why }}</p>
      <button
        v-if="question.box"
        type="button"
        class="btn box"
        :aria-pressed="pressed"
        @click="pressed = !pressed"
      >
        <i aria-hidden="true">{{ pressed ? '✓' : '' }}</i><span>{{ question.box }}</span>
      </button>
      <template v-if="question.carry">
        <label v-if="question.carry === 'other'" class="field"
          ><span>What is it?</span
          ><select v-model="body" class="entry" name="body">
            <option v-for="(name, id) in BODIES" :key="id" :value="id">{{ name }}</option>
          </select></label
        >
        <div class="keys">
          <button
            v-for="o in ON"
            :key="o.words"
            type="button"
            class="btn"
            @click="answer(o.words, { body, by: o.by, count: o.count, points: [] })"
          >
            {{ o.words }}
          </button>
        </div>
      </template>
      <template v-else>
        <div v-if="question.keys?.length" class="keys">
          <button
            v-for="key in question.keys"
            :key="key"
            type="button"
            class="btn"
            :disabled="!!question.box && !pressed"
            @click="answer(key)"
          >
            {{ key }}
          </button>
        </div>
        <label v-if="question.thing !== undefined" class="field"
          ><span>What is not there</span><input v-model="thing" class="entry" name="thing" maxlength="120"
        /></label>
        <label class="field"
          ><span
            >{{
              question.thing !== undefined
                ? 'Where it was looked for'
                : question.keys?.length
                  ? 'Or in your own words'
                  : 'The reason'
            }}, at least {{ question.least ?? 3 }} characters</span
          ><textarea v-model="words" class="entry" name="reason" maxlength="900" autofocus />
        </label>
        <SayButton v-if="question.aloud" @said="said" />
        <p v-if="notYet" class="block" role="alert">
          The note is kept on this device and not written yet: give the reason by a key or in words.
        </p>
        <button
          type="submit"
          class="btn"
          :disabled="words.trim().length < (question.least ?? 3) || (!!question.box && !pressed)"
        >
          {{ question.button }}
        </button>
      </template>
    </form>
  </el-dialog>
</template>

<style scoped>
.ask {
  display: grid;
  gap: 12px;
}
.keys {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: 8px;
}
.keys .btn {
  min-height: 60px;
  justify-content: flex-start;
  text-align: left;
}
.box {
  display: flex;
  gap: 12px;
  justify-content: flex-start;
  text-align: left;
  min-height: 56px;
}
.box i {
  width: 26px;
  height: 26px;
  border: 2px solid currentcolor;
  flex: none;
  font-style: normal;
  line-height: 22px;
  text-align: center;
  font-weight: 800;
}
</style>
