<script setup lang="ts">
/**
 * The limit book: every figure with its state, its source and the tool that can decide it; sources that
 * disagree side by side.
 */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { v7 } from 'uuid'
import { client, type Difference, type FigureRow, got, type PlanAct, sentence } from '@/api/client'
import { useKeys } from '@/composables/keys'
import LimitBar from '@/drawings/LimitBar.vue'
import ToolFit from '@/drawings/ToolFit.vue'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import { useSession } from '@/stores/session'
import { useServer } from '@/composables/server'

const props = defineProps<{ build: string }>()
const book = useBook()
const plan = usePlan()
const session = useSession()
const route = useRoute()
const only = ref('')
const chosen = ref<string | null>((route.query.figure as string | undefined) ?? null)
const form = ref({
  lo: '',
  hi: '',
  target: '',
  source: '',
  page: '',
  reason: '',
  own: false,
  tolerance: '',
  stages: [] as string[],
})
const second = ref(false)
const { problem, asks: sourceAsked, served } = useServer()
const turned = ref<readonly string[]>([])
const read = ref<{ text: string; form: 'csv' | 'toml'; name: string; found: Difference } | null>(null)
const FILTERS = [
  ['assumed', 'Assumed'],
  ['not given', 'Not given'],
  ['conflict', 'Conflict'],
  ['own', 'My own'],
  ['no tool', 'No tool'],
] as const
const figures = computed(() => (plan.build === props.build ? plan.figures : null))
const rows = computed(() => figures.value?.rows ?? [])
const filters = computed(() => [
  { value: '', label: `All ${rows.value.length}` },
  ...FILTERS.flatMap(([value, name]) => {
    const count = figures.value?.counts[value]
    return count ? [{ value, label: `${name} ${count}` }] : []
  }),
])
const fitsFilter = (r: FigureRow) =>
  only.value === 'no tool' ? r.fit !== null && !r.fit.fits : !only.value || r.state === only.value
const shown = computed(() => [
  ...rows.value.filter((r) => r.conflict && fitsFilter(r)),
  ...rows.value.filter((r) => !r.conflict && fitsFilter(r)),
])
const row = computed(() => rows.value.find((r) => r.id === chosen.value) ?? null)
const hunt = computed(() => (figures.value?.counts['not given'] ?? 0) + (figures.value?.counts.assumed ?? 0))

watch(
  () => [props.build, book.frame?.head],
  () => void plan.loadFigures(props.build),
  { immediate: true },
)
// filled anew for another figure or a newer version of this one, never while somebody types
watch(
  () => (row.value ? `${row.value.id} ${row.value.limit?.version ?? row.value.joint?.version}` : ''),
  () => {
    if (row.value) fill(row.value)
  },
  { immediate: true },
)
function fill(r: FigureRow) {
  problem.value = ''
  second.value = sourceAsked.value = false
  form.value = {
    lo: r.limit?.lo ?? '',
    hi: r.limit?.hi ?? '',
    target: r.limit?.target ?? '',
    source: r.limit?.own ? '' : (r.limit?.source ?? r.joint?.source ?? ''),
    page: r.limit?.page ?? '',
    reason: '',
    own: r.decided,
    tolerance: r.joint?.tolerance ?? '',
    stages: (r.joint?.stage ?? []).map((s) => s.torque ?? s.angle ?? ''),
  }
}
async function act(made: PlanAct) {
  problem.value = ''
  sourceAsked.value = false
  await served(async () => {
    const edited = await plan.take([made], form.value.reason.trim())
    turned.value = edited.turned
    await plan.loadFigures(props.build)
    if (row.value && !row.value.conflict) chosen.value = null
  })
}
const text = (value: string) => value.trim() || null
function save(same = false) {
  const r = row.value
  if (!r) return
  const f = form.value
  if (r.joint)
    return act({
      act: 'joint',
      joint: r.id,
      version: r.joint.version,
      stage: f.stages.map((s) => s.trim()),
      tolerance: text(f.tolerance),
      source: f.own ? null : text(f.source),
      own: f.own,
    })
  if (!r.limit) return
  const figures = {
    limit: r.id,
    version: r.limit.version,
    lo: text(f.lo),
    hi: text(f.hi),
    target: text(f.target),
    page: text(f.page),
  }
  if (second.value) return act({ act: 'answer', ...figures, source: f.source.trim() })
  return act({
    act: 'limit',
    ...figures,
    source: f.own ? null : text(f.source),
    own: f.own,
    same_source: same,
  })
}
function settle(take: number | 'both') {
  if (row.value?.limit)
    void act({ act: 'settle', limit: row.value.id, version: row.value.limit.version, take })
}
function somebodyElse() {
  second.value = false
  form.value = { ...form.value, source: '', lo: '', hi: '', target: '' }
}
async function chooseFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  problem.value = ''
  await readIn(await file.text(), file.name.toLowerCase().endsWith('.csv') ? 'csv' : 'toml', file.name, false)
}
async function readIn(content: string, kind: 'csv' | 'toml', name: string, take: boolean) {
  const who = await session.whoIsIt()
  const call = client.POST('/api/builds/{build}/limits', {
    params: { path: { build: props.build } },
    body: { id: v7(), who, text: content, form: kind, take },
  })
  try {
    const found = (await got<unknown>(call)) as Difference
    read.value = take ? null : { text: content, form: kind, name, found }
    if (take) {
      await plan.loadFigures(props.build)
      await book.reload()
    }
  } catch (error) {
    read.value = null
    problem.value = `${name} was not taken: ${sentence(error)}`
  }
}
function pick(id: string) {
  chosen.value = chosen.value === id ? null : id
  turned.value = []
}
/** One scale for all sources of a figure, so that they can be compared by eye. */
const domain = computed<[number, number] | undefined>(() => {
  const ends = (row.value?.sources ?? [])
    .flatMap((s) => [s.bar.lo, s.bar.hi, s.bar.value])
    .filter((v): v is number => v !== null)
  if (ends.length < 2) return undefined
  const [least, most] = [Math.min(...ends), Math.max(...ends)]
  return [least - 0.25 * (most - least), most + 0.25 * (most - least)]
})
const letter = (k: number) => 'ABCDEFGH'[k] ?? String(k + 1)
const sourceOf = (k: number) => row.value?.sources[k]
useKeys(() => ({
  1: () => row.value?.conflict && sourceOf(0) && settle(0),
  2: () => row.value?.conflict && sourceOf(1) && settle(1),
  3: () => row.value?.conflict && row.value.both && settle('both'),
  4: () => row.value?.conflict && somebodyElse(),
  Escape: () => (chosen.value ? (chosen.value = null) : history.back()),
}))
</script>

<template>
  <WorkFrame :build="build" desk="figures">
    <p v-if="plan.problem" class="block" role="alert">{{ plan.problem }}</p>
    <div v-if="figures" class="book" :class="{ drawn: row }">
      <div class="list">
        <header class="head">
          <h1 class="t28">
            {{ rows.length }} figures: {{ hunt }} to hunt<template v-if="figures?.counts.conflict"
              >, {{ figures.counts.conflict }} in conflict</template
            >
          </h1>
          <nav class="io" aria-label="In and out">
            <a class="btn small" :href="`/api/builds/${build}/limits.csv`" download>CSV</a
            ><a class="btn small" :href="`/api/builds/${build}/limits.toml`" download>TOML</a
            ><label class="btn small file"
              >Read in<input
                type="file"
                accept=".csv,.toml,text/csv,text/plain"
                class="sr"
                name="limitsfile"
                @change="chooseFile"
            /></label>
          </nav>
        </header>
        <p v-if="problem && !row" class="block" role="alert">{{ problem }}</p>
        <div v-if="turned.length" class="block" role="alert">
          <p class="b">Judged again:</p>
          <ul>
            <li v-for="t in turned" :key="t">{{ t }}</li>
          </ul>
        </div>
        <PickOne v-model="only" :options="filters" label="Filter" />
        <p v-if="!rows.length" class="quiet">
          No figures yet. They come with the procedures, or from a sheet.
        </p>
        <table v-else>
          <thead>
            <tr>
              <th>Figure, when</th>
              <th>Value</th>
              <th class="from">From</th>
              <th class="tool">Your tool in the slot</th>
              <th class="at">Step</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="r in shown"
              :key="`${r.kind}${r.id}`"
              :class="{ chosen: r.id === chosen }"
              @click="pick(r.id)"
            >
              <td>
                <button type="button" class="name" :aria-expanded="r.id === chosen" @click.stop="pick(r.id)">
                  {{ r.name }}</button><span class="t16 mut">{{ r.condition }}</span>
              </td>
              <td>
                <b>{{ r.conflict ? `${r.sources.length} answers` : r.words }}</b><span
                  v-if="r.joint"
                  class="t16 mut"
                  ><br />{{ r.tolerance }}</span
                >
              </td>
              <td class="from">
                <span v-if="r.guessed" class="assumed">assumed</span
                ><span v-else>{{ r.conflict ? 'sources disagree' : r.given ? r.source : '' }}</span>
              </td>
              <td class="tool">
                <template v-if="r.fit"
                  ><ToolFit
                    v-if="r.fit.share !== null || r.fit.fits"
                    :share="r.fit.share"
                    :fits="r.fit.fits"
                    :words="r.fit.words"
                  /><span class="t16" :class="{ outside: !r.fit.fits }">{{ r.fit.words }}</span></template
                >
              </td>
              <td class="at t16">{{ r.steps.slice(0, 3).join(', ') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <aside v-if="row" class="drawer" :aria-label="row.name">
        <div class="line">
          <h2 class="t28">{{ row.name }}</h2>
          <button type="button" class="btn small" @click="chosen = null">Close <kbd>Esc</kbd></button>
        </div>
        <p>
          {{ [row.unit, row.condition].filter(Boolean).join(', ')
          }}<template v-if="row.steps.length">. For {{ row.steps.slice(0, 3).join(', ') }}</template>
        </p>
        <div v-for="j in row.judged" :key="j.name">
          <p>
            {{ j.name }}:
            <b :class="j.judgement.verdict"
              >{{ j.judgement.value_text }} ±{{ j.judgement.U_text }} {{ j.judgement.unit }}</b
            >, {{ j.judgement.words }}
          </p>
          <WorkingLines :lines="j.judgement.working" />
        </div>
        <p v-if="row.limit?.own" class="quiet">
          {{ row.limit.own }} decided this himself. It stays marked so.
        </p>
        <template v-if="row.sources.length">
          <div v-if="row.conflict" class="block b">The sources disagree</div>
          <div v-for="(s, k) in row.sources" :key="k" class="source">
            <p class="line">
              <b
                >{{ letter(k) }} {{ s.source }}{{ s.page ? `, p. ${s.page}` : ''
                }}{{ s.in_force ? ', in force' : '' }}</b
              ><b>{{ s.words }}</b>
            </p>
            <LimitBar
              :bar="s.bar"
              :verdict="s.bar.verdict"
              :side="s.bar.side"
              :lo-text="s.lo ?? ''"
              :hi-text="s.hi ?? ''"
              :width="360"
              :domain="domain"
              :words="s.words"
            />
            <p v-if="s.bar.value !== null" class="t16">the reading there: {{ s.bar.words }}</p>
          </div>
          <div class="source">
            <p class="line">
              <b>All agree</b><b>{{ row.both_words }}</b>
            </p>
            <LimitBar
              v-if="row.both"
              :bar="row.both"
              :verdict="row.both.verdict"
              :side="row.both.side"
              :width="360"
              :domain="domain"
              :words="row.both_words"
            />
          </div>
          <div v-if="row.conflict" class="choices">
            <button v-for="(s, k) in row.sources" :key="k" type="button" class="btn row4" @click="settle(k)">
              <kbd>{{ k + 1 }}</kbd><span
                >Take {{ letter(k) }}<small>{{ s.words }}</small></span
              ></button
            ><button type="button" class="btn row4" :disabled="!row.both" @click="settle('both')">
              <kbd>3</kbd
              ><span
                >Take both<small>{{ row.both_words }}</small></span
              ></button
            ><button type="button" class="btn row4" @click="somebodyElse">
              <kbd>4</kbd><span>Somebody else said<small>write it below</small></span>
            </button>
          </div>
        </template>
        <form class="edit" @submit.prevent="save()">
          <label class="field"
            ><span>{{
              second ? 'What other source says it?' : 'From where? Without a source it stays assumed'
            }}</span
            ><input
              v-model="form.source"
              class="entry"
              maxlength="200"
              name="source"
              :disabled="form.own"
              autocomplete="off"
          /></label>
          <template v-if="row.joint"
            ><label v-for="(_, k) in form.stages" :key="k" class="field"
              ><span>stage {{ k + 1 }}, such as 50 Nm or 90 deg; empty is not given</span
              ><input
                v-model="form.stages[k]"
                class="entry"
                :name="`stage-${k + 1}`"
                maxlength="40"
                autocomplete="off" /></label
            ><label class="field"
              ><span>tolerance, such as 5 %; empty is ±10 %, assumed</span
              ><input
                v-model="form.tolerance"
                class="entry"
                name="tolerance"
                maxlength="20"
                autocomplete="off" /></label
          ></template>
          <template v-else
            ><label class="field"
              ><span>page</span
              ><input v-model="form.page" class="entry" maxlength="40" name="page" autocomplete="off"
            /></label>
            <div class="three">
              <label class="field"
                ><span>at least</span
                ><input v-model="form.lo" class="entry" name="lo" autocomplete="off" /></label
              ><label class="field"
                ><span>at most</span
                ><input v-model="form.hi" class="entry" name="hi" autocomplete="off" /></label
              ><label class="field"
                ><span>aim</span><input v-model="form.target" class="entry" name="target" autocomplete="off"
              /></label></div
          ></template>
          <label class="field"
            ><span>Why it changes</span
            ><input v-model="form.reason" class="entry" maxlength="400" name="why" autocomplete="off"
          /></label>
          <el-checkbox v-model="form.own" :disabled="second"
            >My own decision, marked as mine for ever</el-checkbox
          >
          <el-checkbox v-if="row.limit" v-model="second" :disabled="form.own"
            >Keep what stands; this is what another source says</el-checkbox
          >
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
          <button v-if="sourceAsked" type="button" class="btn" @click="save(true)">
            It stands so in the same place: {{ form.source }}{{ form.page ? `, p. ${form.page}` : '' }}
          </button>
          <button type="submit" class="btn" :disabled="second && !form.source.trim()">Write it</button>
        </form>
        <p v-if="row.fit" class="t16">
          {{
            row.fit.fits
              ? `${row.fit.words} can decide it.`
              : `${row.fit.words}: no tool of the shop can prove “inside” here.`
          }}
        </p>
      </aside>
    </div>
    <el-dialog
      :model-value="read !== null"
      title="What the file changes"
      width="760"
      append-to-body
      @close="read = null"
    >
      <div v-if="read">
        <p class="b">{{ read.name }}: {{ read.found.figures.length }} figures</p>
        <ul class="told">
          <li v-for="f in read.found.figures" :key="f">{{ f }}</li>
        </ul>
        <div class="line">
          <button type="button" class="btn" @click="readIn(read.text, read.form, read.name, true)">
            Take them</button
          ><button type="button" class="btn" @click="read = null">Leave the book as it is</button>
        </div>
      </div>
    </el-dialog>
  </WorkFrame>
</template>

<style scoped>
.book {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  min-height: 100%;
}
.book.drawn {
  grid-template-columns: minmax(0, 1fr) 392px;
  column-gap: 20px;
}
.list {
  min-width: 0;
}
.drawer {
  border-left: 3px solid var(--ink);
  padding-left: 18px;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: start;
  flex-wrap: wrap;
}
.io {
  display: flex;
  gap: 8px;
}
.file {
  position: relative;
}
.file:focus-within {
  outline: 4px solid var(--ink);
  outline-offset: 3px;
}
tbody tr {
  cursor: pointer;
}
tr.chosen {
  outline: 3px solid var(--ink);
  outline-offset: -2px;
}
.drawn .at {
  display: none;
}
.tool :deep(svg),
.tool span {
  display: block;
}
.name {
  border: 0;
  background: none;
  padding: 0;
  font-weight: 680;
  text-align: left;
  min-height: 44px;
  width: 100%;
  cursor: pointer;
  display: block;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: start;
}
.source {
  margin-top: 2px;
}
.choices {
  display: grid;
  gap: 8px;
}
.row4 {
  justify-content: flex-start;
  text-align: left;
  width: 100%;
  min-height: 52px;
  flex-wrap: nowrap;
}
.row4 small {
  display: block;
  font-size: 16px;
  font-weight: 460;
}
.edit {
  display: grid;
  gap: 10px;
  border-top: 1px solid var(--hair);
  padding-top: 10px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
}
.told {
  max-height: 320px;
  overflow: auto;
  margin: 10px 0;
}
.told li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
@media (max-width: 1180px) {
  .tool {
    display: none;
  }
}
@media (max-width: 959px) {
  .book.drawn {
    grid-template-columns: minmax(0, 1fr);
  }
  .drawn .list > :not(.head) {
    display: none;
  }
  .drawer {
    border-left: 0;
    padding-left: 0;
  }
  .at {
    display: none;
  }
}
</style>
