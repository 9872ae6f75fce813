<script setup lang="ts">
/** The rows of an exchange: what becomes of each part, where it is tonight, what is only half moved. */
import { computed, ref } from 'vue'
import type { CheckBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import { capital } from '@/words'

type Row = CheckBenchView['rows'][number]
const props = defineProps<{ rows: readonly Row[]; words: string | null; step: string; settled: boolean }>()
const book = useBook()
const plan = usePlan()
const { problem, served } = useServer()
const open = ref<string | null>(null)
const fate = ref<Row['fate']>('moved')
const where = ref<Row['where']>('old')
const place = ref('')
const why = ref('')
const FATES: Row['fate'][] = ['moved', 'renewed', 'stays', 'left out']
const PLACES: [Row['where'], string][] = [
  ['old', 'on the old one'],
  ['vehicle', 'in the vehicle'],
  ['bench', 'on the bench'],
  ['away', 'away'],
  ['by hand', 'on the new one, by hand'],
  ['final', 'on the new one, final'],
]

function edit(row: Row) {
  open.value = open.value === row.id ? null : row.id
  fate.value = row.fate
  where.value = row.where
  place.value = row.place
  why.value = row.why
}
/** One more part that is in no row yet, and the step at which it is final. */
const more = ref(false)
const part = ref('')
const usual = ref<(typeof USUAL)[number]>('moved')
const onAt = ref('')
const USUAL = ['moved', 'renewed', 'stays'] as const
const steps = computed(() => book.frame?.steps.filter((s) => s.look !== 'done') ?? [])
async function add() {
  await served(async () => {
    await plan.load(book.card?.id ?? '')
    const row = { part: part.value.trim(), usual: usual.value, on_at: onAt.value }
    await plan.take([{ act: 'row', ...row }], '')
  })
  if (problem.value) return
  part.value = ''
  more.value = false
}
async function say(row: Row) {
  await served(() =>
    book.write({
      kind: 'row said',
      step: props.step,
      row: row.id,
      fate: fate.value,
      where: where.value,
      place: place.value,
      why: why.value,
    }),
  )
  if (!problem.value) open.value = null
}
</script>

<template>
  <section v-if="rows.length" class="rows" aria-label="Rows">
    <p v-if="words" class="t20 b too_close">{{ capital(words) }}</p>
    <ol>
      <li v-for="row in rows" :key="row.id">
        <button type="button" class="unfold" :aria-expanded="open === row.id" @click="edit(row)">
          <span class="b">{{ capital(row.part) }}</span>
          <span :class="row.settled ? 'inside' : row.half ? 'too_close b' : row.decided ? '' : 'mut'">{{
            row.words
          }}</span>
        </button>
        <form v-if="open === row.id" class="say" @submit.prevent="say(row)">
          <p v-if="row.goes_with" class="t16">With it: {{ row.goes_with }}.</p>
          <p v-if="row.because" class="t16">{{ capital(row.because) }}. Final at {{ row.at_name }}.</p>
          <div class="chips" role="group" aria-label="What becomes of it">
            <button
              v-for="f in FATES"
              :key="f"
              type="button"
              class="btn small"
              :aria-pressed="fate === f"
              @click="fate = f"
            >
              {{ f }}
            </button>
          </div>
          <div class="chips" role="group" aria-label="Where it is">
            <button
              v-for="[id, name] in PLACES"
              :key="id"
              type="button"
              class="btn small"
              :aria-pressed="where === id"
              @click="where = id"
            >
              {{ name }}
            </button>
          </div>
          <label class="field"
            ><span>where it lies, or who has it until when</span
            ><input v-model="place" class="entry" name="row-place" maxlength="120" autocomplete="off"
          /></label>
          <label class="field"
            ><span>why</span
            ><input v-model="why" class="entry" name="row-why" maxlength="300" autocomplete="off"
          /></label>
          <button type="submit" class="btn small">It is so</button>
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        </form>
      </li>
    </ol>
    <button v-if="!more" type="button" class="btn small" @click="more = true">
      Another part hangs there
    </button>
    <form v-else class="say" @submit.prevent="add">
      <label class="field"
        ><span>which part</span
        ><input v-model="part" class="entry" name="row-part" maxlength="110" autocomplete="off" autofocus
      /></label>
      <div class="chips" role="group" aria-label="What usually becomes of it">
        <button
          v-for="u in USUAL"
          :key="u"
          type="button"
          class="btn small"
          :aria-pressed="usual === u"
          @click="usual = u"
        >
          {{ u }}
        </button>
      </div>
      <label class="field"
        ><span>final on the new one at</span
        ><select v-model="onAt" class="entry" name="row-at">
          <option v-for="s in steps" :key="s.id" :value="s.id">{{ s.number }} {{ s.title }}</option>
        </select></label
      >
      <button type="submit" class="btn small" :disabled="part.trim().length < 3 || !onAt">A row more</button>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </form>
  </section>
</template>

<style scoped>
.say {
  display: grid;
  gap: 8px;
  border-left: 8px solid var(--yel);
  padding: 8px 12px 12px;
}
</style>
