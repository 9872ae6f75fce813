<script setup lang="ts">
/**
 * What the mechanic knows and the sheet does not, with one touch: a note, something hidden at this step,
 * another way to do it, a part that goes in first, what points one way, is laid on, driven home or tried.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { PlanAct } from '@/api/client'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import CareForm from './CareForm.vue'
import FirstForm from './FirstForm.vue'
import SayButton from './SayButton.vue'
import { useServer } from '@/composables/server'

const props = defineProps<{ step: string | null; build: string }>()
const book = useBook()
const plan = usePlan()
const router = useRouter()
const SORTS = {
  note: 'A note',
  lies: 'Where it lies',
  hidden: 'Hidden here',
  school: 'Another way to do it',
  first: 'This first',
  sum: 'A sum',
  orient: 'Points one way',
  lay: 'Laid on',
  seat: 'Driven home',
  trial: 'On trial',
} as const
/** What can be said without a step too. */
const ANYWHERE = ['note', 'lies']
const CARES = ['orient', 'lay', 'seat', 'trial'] as const
const care = computed(() => CARES.find((one) => one === sort.value) ?? null)
const later = computed(() => {
  const steps = book.frame?.steps ?? []
  return steps.slice(steps.findIndex((s) => s.id === props.step) + 1)
})
const open = ref(false)
const sort = ref<keyof typeof SORTS>('note')
const words = ref('')
const where = ref('')
const ways = ref([
  { name: '', does: '' },
  { name: '', does: '' },
])
const take = ref(0)
const because = ref('')
const { problem, served } = useServer()
const said = computed(() => ways.value.filter((w) => w.name.trim()))
const ready = computed(
  () =>
    words.value.trim().length >= 3 &&
    (sort.value !== 'lies' || where.value.trim().length >= 2) &&
    (sort.value !== 'school' ||
      (said.value.length >= 2 && said.value.every((w) => w.does.trim()) && because.value.trim())),
)

function ask(first: keyof typeof SORTS = 'note') {
  sort.value = props.step ? first : 'note'
  words.value = where.value = because.value = problem.value = book.refused = ''
  ways.value = [
    { name: '', does: '' },
    { name: '', does: '' },
  ]
  take.value = 0
  open.value = true
}
async function spoken(sound: Blob) {
  open.value = false
  await book.act({ kind: 'spoken', step: props.step, sound: '0'.repeat(64) }, sound)
}
async function add() {
  if (!ready.value) return
  problem.value = ''
  if (sort.value === 'note') {
    open.value = false
    open.value = !(await book.handed({ kind: 'note', step: props.step, text: words.value.trim() }))
    return
  }
  if (sort.value === 'lies') {
    const entry = {
      kind: 'put by' as const,
      step: props.step,
      what: words.value.trim(),
      where: where.value.trim(),
    }
    if (await book.handed(entry)) open.value = false
    return
  }
  const act: PlanAct =
    sort.value === 'hidden'
      ? { act: 'hidden', step: props.step ?? '', thing: words.value.trim() }
      : {
          act: 'school',
          question: words.value.trim(),
          way: said.value.map((w) => ({ name: w.name.trim(), does: w.does.trim() })),
          take: take.value,
          because: because.value.trim(),
        }
  await served(async () => {
    await plan.load(props.build)
    await plan.take([act], '')
    open.value = false
  })
}
/** Into the plan; what comes off again for it is opened again, line by line. */
async function planned(act: PlanAct, off: string[] = []) {
  await served(async () => {
    await plan.load(props.build)
    await plan.take([act], '')
    for (const step of off) await book.act({ kind: 'reopened', step, reason: 'off again for another part' })
    open.value = false
    if (sort.value === 'first') await toIt()
  })
}
/** To the part that goes in first: it stands before the step that was in hand. */
async function toIt() {
  await book.reload()
  const steps = book.frame?.steps ?? []
  const before = steps[steps.findIndex((s) => s.id === props.step) - 1]
  if (before) await router.push({ name: 'step', params: { build: props.build, step: before.id } })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Add what you know" width="640" append-to-body>
    <div class="add">
      <div class="chips" role="group" aria-label="What it is">
        <template v-for="(name, id) in SORTS" :key="id"
          ><button
            v-if="step || ANYWHERE.includes(id)"
            type="button"
            class="btn small"
            :aria-pressed="sort === id"
            @click="sort = id"
          >
            {{ name }}
          </button></template
        >
      </div>
      <CareForm v-if="care && step" :what="care" :step="step" :steps="later" @add="planned" />
      <p v-else-if="sort === 'sum' && step">
        <RouterLink class="btn" :to="{ name: 'sums', query: { build, step } }" @click="open = false"
          >Reckon it, and keep it at this step</RouterLink
        >
      </p>
      <FirstForm v-else-if="sort === 'first' && book.bench" :bench="book.bench" @add="planned" />
      <form v-else class="add" @submit.prevent="add">
        <label v-if="sort === 'note'" class="field"
          ><span>For the log</span
          ><textarea v-model="words" class="entry" name="add-words" maxlength="4000" autofocus />
        </label>
        <SayButton v-if="sort === 'note'" label="Hold and say it instead" @said="spoken" />
        <template v-else-if="sort === 'lies'">
          <label class="field"
            ><span>What</span
            ><input
              v-model="words"
              class="entry"
              name="add-words"
              maxlength="200"
              autocomplete="off"
              autofocus
          /></label>
          <label class="field"
            ><span>Where it lies; found again with /</span
            ><input v-model="where" class="entry" name="add-where" maxlength="200" autocomplete="off"
          /></label>
        </template>
        <label v-else-if="sort === 'hidden'" class="field"
          ><span>What nobody sees before it is too late, in a few words</span
          ><input v-model="words" class="entry" name="add-words" maxlength="300" autocomplete="off" autofocus
        /></label>
        <template v-else>
          <label class="field"
            ><span>The question on which ways differ</span
            ><input
              v-model="words"
              class="entry"
              name="add-words"
              maxlength="80"
              autocomplete="off"
              autofocus
          /></label>
          <fieldset v-for="(w, k) in ways" :key="k">
            <legend class="t16">Way {{ k + 1 }}</legend>
            <label class="field"
              ><span>its name</span
              ><input v-model="w.name" class="entry" :name="`way-${k}`" maxlength="80" autocomplete="off"
            /></label>
            <label class="field"
              ><span>what is done</span
              ><input v-model="w.does" class="entry" :name="`does-${k}`" maxlength="400" autocomplete="off"
            /></label>
            <label class="take"
              ><input v-model="take" type="radio" name="take" :value="k" /><span
                >this one is gone here</span
              ></label
            >
          </fieldset>
          <button
            v-if="ways.length < 4"
            type="button"
            class="btn small"
            @click="ways.push({ name: '', does: '' })"
          >
            One more way
          </button>
          <label class="field"
            ><span>gone because</span
            ><input v-model="because" class="entry" name="add-because" maxlength="400" autocomplete="off"
          /></label>
        </template>
        <p v-if="problem || book.refused" class="problem" role="alert">{{ problem || book.refused }}</p>
        <button type="submit" class="btn" :disabled="!ready">
          {{ sort === 'note' ? 'Into the log' : 'Into the plan' }}
        </button>
      </form>
      <p v-if="(care || sort === 'first') && problem" class="problem" role="alert">{{ problem }}</p>
    </div>
  </el-dialog>
</template>

<style scoped>
.add {
  display: grid;
  gap: 14px;
}
.add textarea {
  min-height: 130px;
}
fieldset {
  border: 2px solid var(--line);
  padding: 8px 12px;
  margin: 0;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
}
.take {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  grid-column: 1 / -1;
}
.take input {
  width: 24px;
  height: 24px;
}
.problem {
  color: var(--out);
}
</style>
