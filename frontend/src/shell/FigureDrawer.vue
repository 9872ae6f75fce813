<script setup lang="ts">
/** One figure: how what was read is judged by it, what each source says, and writing it. */
import AskLink from '@/shell/AskLink.vue'
import { computed, ref, watch } from 'vue'
import type { FigureRow, PlanAct } from '@/api/client'
import { changeOf, domainOf, filled } from '@/composables/figureform'
import { type KeyMap, useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import LimitBar from '@/drawings/LimitBar.vue'
import { usePlan } from '@/stores/plan'
import WorkingLines from './WorkingLines.vue'

const props = defineProps<{ row: FigureRow; build: string }>()
const emit = defineEmits<{ close: []; turned: [words: readonly string[]] }>()
const plan = usePlan()
const form = ref(filled(props.row))
const second = ref(false)
const { problem, asks, served } = useServer()
const domain = computed(() => domainOf(props.row))

// filled anew for another figure or a newer version of this one, never while somebody types
watch(
  () => `${props.row.id} ${props.row.limit?.version ?? props.row.joint?.version}`,
  () => {
    problem.value = ''
    second.value = asks.value = false
    form.value = filled(props.row)
  },
)
async function act(made: PlanAct) {
  await served(async () => {
    const edited = await plan.take([made], form.value.reason.trim())
    emit('turned', edited.turned)
    await plan.loadFigures(props.build)
    const now = plan.figures?.rows.find((r) => r.id === props.row.id)
    if (now && !now.conflict) emit('close')
  })
}
function save(same = false) {
  const made = changeOf(props.row, form.value, second.value, same)
  if (made) void act(made)
}
function settle(take: number | 'both') {
  const { id, limit } = props.row
  if (limit) void act({ act: 'settle', limit: id, version: limit.version, take })
}
function somebodyElse() {
  second.value = false
  form.value = { ...form.value, source: '', lo: '', hi: '', target: '' }
}
const letter = (k: number) => 'ABCDEFGH'[k] ?? String(k + 1)
useKeys((): KeyMap =>
  props.row.conflict
    ? {
        1: () => props.row.sources[0] && settle(0),
        2: () => props.row.sources[1] && settle(1),
        3: () => props.row.both && settle('both'),
        4: somebodyElse,
      }
    : {},
)
</script>

<template>
  <aside class="drawer" :aria-label="row.name">
    <div class="line">
      <h2 class="t28">{{ row.name }}</h2>
      <button type="button" class="btn small" @click="emit('close')">Close <kbd>Esc</kbd></button>
    </div>
    <p>
      {{ [row.unit, row.condition].filter(Boolean).join(', ')
      }}<template v-if="row.steps.length">. For {{ row.steps.slice(0, 3).join(', ') }}</template>
    </p>
    <p v-for="a in row.answered" :key="a.entry" class="quiet">
      <b>{{ a.name }}</b>, who {{ a.trust }}: {{ a.text }}
      <button
        type="button"
        class="btn small"
        @click="form.source = `${a.name}, asked ${a.time.slice(0, 10)}`"
      >
        As the source
      </button>
    </p>
    <AskLink v-if="row.limit" sort="limit" :about="row.limit.id" />
    <div v-for="j in row.judged" :key="j.name">
      <p>
        {{ j.name }}:
        <b :class="j.judgement.verdict"
          >{{ j.judgement.value_text }} ±{{ j.judgement.U_text }} {{ j.judgement.unit }}</b
        >, {{ j.judgement.words }}
      </p>
      <WorkingLines :lines="j.judgement.working" />
    </div>
    <p v-if="row.limit?.own" class="quiet">{{ row.limit.own }} decided this himself. It stays marked so.</p>
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
            ><span>at most</span><input v-model="form.hi" class="entry" name="hi" autocomplete="off" /></label
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
      <button v-if="asks" type="button" class="btn" @click="save(true)">
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
</template>

<style scoped>
.drawer {
  border-left: 3px solid var(--ink);
  padding-left: 18px;
  min-width: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 10px;
  align-content: start;
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
</style>
