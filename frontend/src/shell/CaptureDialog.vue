<script setup lang="ts">
/** Keep the state as found: what each kind asks for, few touches, typing only where words are the record. */
import { computed, ref } from 'vue'
import { v7 } from 'uuid'
import { type Capture, type Schemas, sendPhoto } from '@/api/client'
import PhotoButton from '@/shell/PhotoButton.vue'
import { useBook } from '@/stores/book'
import { useServer } from '@/composables/server'

const KINDS: Record<string, string> = {
  photo: 'Photo',
  wires: 'Wire by terminal',
  mark: 'Witness mark',
  index: 'Position',
  length: 'Length',
  reading: 'Reading',
  straight_ahead: 'Straight-ahead mark',
  setting: 'Not to be loosened',
}
const COLOURS = [
  'black',
  'brown',
  'red',
  'orange',
  'yellow',
  'green',
  'blue',
  'violet',
  'grey',
  'white',
  'black/white',
  'red/white',
  'green/yellow',
]
const book = useBook()
const open = ref(false)
const demanded = ref<Capture | null>(null)
const about = ref<{ step: string | null; removal: string | null }>({ step: null, removal: null })
const kind = ref('mark')
const what = ref('')
const words = ref('')
const place = ref('')
const typed = ref('')
const strokes = ref(3)
const factory = ref(false)
const wires = ref<{ terminal: string; colour: string }[]>([])
const photo = ref<Schemas['StoredPhoto'] | null>(null)
const { problem, served } = useServer()
const busy = ref(false)
const row = ref(0)
const title = computed(() =>
  demanded.value ? `As found: ${demanded.value.what}` : 'Keep something as it was found',
)

function ask(capture: Capture | null, at: { step?: string | null; removal?: string | null }) {
  demanded.value = capture
  about.value = { step: at.step ?? null, removal: at.removal ?? null }
  kind.value = capture?.kind ?? 'mark'
  what.value = words.value = place.value = typed.value = problem.value = ''
  strokes.value = 3
  factory.value = false
  wires.value = [{ terminal: '', colour: '' }]
  row.value = 0
  photo.value = null
  open.value = true
}
async function taken(file: File) {
  problem.value = ''
  busy.value = true
  await served(async () => {
    photo.value = await sendPhoto(file)
  })
  busy.value = false
}
function colour(name: string) {
  wires.value[row.value].colour = name
}
async function keep() {
  problem.value = ''
  const at = demanded.value?.step ?? about.value.step
  const named = demanded.value?.what ?? what.value.trim()
  await served(async () => {
    if (kind.value === 'setting') {
      if (!named || !words.value.trim() || !place.value.trim() || !at)
        problem.value = 'Say what must not be loosened, what it holds, and where to part things instead.'
      else if (
        await book.write({
          kind: 'guarded',
          step: at,
          setting: v7(),
          what: named,
          holds: words.value.trim(),
          part_at: place.value.trim(),
          blocks: 'drive',
        })
      )
        open.value = false
      return
    }
    if (photo.value)
      await book.write({
        kind: 'photo',
        ...photo.value,
        what: named || 'as found',
        step: at,
        removal: about.value.removal,
        pins: [],
      })
    const done = await book.write({
      kind: 'captured',
      capture: demanded.value?.id ?? v7(),
      step: at,
      removal: about.value.removal,
      what: named || null,
      capture_kind: kind.value as 'mark',
      words: words.value.trim() || null,
      wires: kind.value === 'wires' ? wires.value.filter((w) => w.terminal.trim() && w.colour.trim()) : [],
      strokes: kind.value === 'mark' && !factory.value ? strokes.value : null,
      factory: kind.value === 'mark' && factory.value,
      place: place.value.trim() || null,
      typed: typed.value.trim() || null,
      photo: photo.value?.photo ?? null,
    })
    if (done) open.value = false
  })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" :title="title" width="640" append-to-body>
    <form class="keep" @submit.prevent="keep">
      <p v-if="demanded">{{ demanded.because }}. After this step the chance is gone.</p>
      <template v-else>
        <fieldset>
          <legend class="t16 mut">Kind</legend>
          <label v-for="(name, id) in KINDS" :key="id"
            ><input v-model="kind" type="radio" name="kind" :value="id" /><span>{{ name }}</span></label
          >
        </fieldset>
        <label class="field"
          ><span>What</span
          ><input v-model="what" class="entry" name="what" maxlength="120" placeholder="clamp to pinch bolt"
        /></label>
      </template>
      <template v-if="kind === 'mark'">
        <div class="line">
          <span>Strokes, so that it is no scratch</span
          ><button
            type="button"
            class="btn"
            aria-label="one stroke less"
            @click="strokes = Math.max(2, strokes - 1)"
          >
            −</button
          ><output class="t28">{{ strokes }}</output
          ><button
            type="button"
            class="btn"
            aria-label="one stroke more"
            @click="strokes = Math.min(20, strokes + 1)"
          >
            +
          </button>
        </div>
        <label class="check"
          ><input v-model="factory" type="checkbox" name="factory" /> A mark of the maker is there: none of
          ours</label
        >
      </template>
      <template v-if="kind === 'wires'">
        <div v-for="(w, k) in wires" :key="k" class="wire" :class="{ at: k === row }" @focusin="row = k">
          <label class="field"
            ><span>terminal</span
            ><input v-model="w.terminal" class="entry" maxlength="40" :name="`terminal${k}`" /></label
          ><label class="field"
            ><span>wire</span><input v-model="w.colour" class="entry" maxlength="40" :name="`wire${k}`"
          /></label>
        </div>
        <div class="chips" aria-label="Colours">
          <button v-for="c in COLOURS" :key="c" type="button" class="btn small" @click="colour(c)">
            {{ c }}
          </button>
        </div>
        <button type="button" class="btn small" @click="row = wires.push({ terminal: '', colour: '' }) - 1">
          Another terminal
        </button>
      </template>
      <label v-if="kind === 'mark' || kind === 'straight_ahead' || kind === 'setting'" class="field"
        ><span>{{ kind === 'setting' ? 'Where to part things instead' : 'Where' }}</span
        ><input v-model="place" class="entry" name="place" maxlength="120"
      /></label>
      <label v-if="kind === 'length' || kind === 'reading'" class="field"
        ><span>{{ kind === 'length' ? 'Length, such as 61.5 mm' : 'What was read' }}</span
        ><input
          v-model="typed"
          class="entry big"
          name="typed"
          inputmode="decimal"
          maxlength="60"
          autocomplete="off"
      /></label>
      <label
        v-if="kind === 'index' || kind === 'photo' || kind === 'wires' || kind === 'setting'"
        class="field"
        ><span>{{
          kind === 'setting'
            ? 'What setting it holds'
            : kind === 'index'
              ? 'How it stands, such as long side up'
              : 'In words, if need be'
        }}</span
        ><input v-model="words" class="entry" name="words" maxlength="300"
      /></label>
      <div v-if="kind !== 'setting'" class="line">
        <PhotoButton
          :label="photo ? 'Another photo' : kind === 'photo' ? 'Take the photo' : 'With a photo'"
          @taken="taken"
        /><span v-if="busy">being kept…</span
        ><span v-else-if="photo" class="t16"><i class="disc" aria-hidden="true" /> photo is kept</span>
      </div>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button type="submit" class="btn" :disabled="busy || book.busy">Kept as found</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.keep {
  display: grid;
  gap: 12px;
}
.line {
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
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
  padding: 9px 12px;
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
.check {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.check input {
  width: 26px;
  height: 26px;
}
.wire {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  padding: 4px;
}
.wire.at {
  outline: 2px solid var(--line);
}
</style>
