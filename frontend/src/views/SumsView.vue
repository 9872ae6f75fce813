<script setup lang="ts">
/**
 * The sums of the bench, usable without a build: figures in as they are typed, the answer out with its
 * working.
 */
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import { v7 } from 'uuid'
import { useRoute, useRouter } from 'vue-router'
import { type CalculationForm, client, got, Refusal, type Schemas, sentence } from '@/api/client'
import { useKeys } from '@/composables/keys'
import FamilySketch from '@/drawings/FamilySketch.vue'
import MarkLogo from '@/shell/MarkLogo.vue'
import { useServer } from '@/composables/server'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'

/** How a field is filled in that takes more than one figure. */
const HOW: Record<string, (f: { options: readonly string[] }) => string> = {
  figures: () => ', several',
  named: () => ', each as name: figure; …',
  rows: (f) => `, each as ${f.options.join(' ').replaceAll('_', ' ')}; or a line each`,
  row: (f) => `: ${f.options.join(', ').replaceAll('_', ' ')}`,
}
const route = useRoute()
const session = useSession()
const shop = useShop()
const router = useRouter()
const all = ref<CalculationForm[]>([])
const { problem, served } = useServer()
const wrong = ref<string | null>(null)
/** Where a sum is kept, when it was begun at a step; and what it takes from the build by name. */
const build = computed(() => (typeof route.query.build === 'string' ? route.query.build : ''))
const step = computed(() => (typeof route.query.step === 'string' ? route.query.step : ''))
const given = ref<Schemas['Source'][]>([])
const taken = reactive<Record<string, string>>({})
const kept = ref('')
const id = v7()
const sought = ref('')
const typed = reactive<Record<string, string>>({})
const answer = ref<Record<string, { value: unknown; unit?: string }> | null>(null)
const working = ref<string[]>([])
const finder = ref<HTMLInputElement | null>(null)

onMounted(async () => {
  await served(async () => {
    all.value = await got(client.GET('/api/calculations'))
    choose(String(route.query.sum ?? ''))
    if (build.value)
      given.value = await got(
        client.GET('/api/builds/{build}/sources', { params: { path: { build: build.value } } }),
      )
  })
})
const form = computed(() => all.value.find((f) => f.name === route.query.sum) ?? null)
const families = computed(() => {
  const words = sought.value.trim().toLowerCase()
  const found = all.value.filter(
    (f) => !words || `${f.title} ${f.family} ${f.about}`.toLowerCase().includes(words),
  )
  return [...new Set(found.map((f) => f.family))].map((family) => ({
    family,
    forms: found.filter((f) => f.family === family),
  }))
})
function choose(name: string) {
  const found = all.value.find((f) => f.name === name)
  answer.value = null
  working.value = []
  problem.value = ''
  wrong.value = null
  kept.value = ''
  for (const key of Object.keys(typed)) typed[key] = ''
  for (const key of Object.keys(taken)) delete taken[key]
  for (const field of found?.fields ?? [])
    typed[field.name] = field.default || (field.kind === 'choice' ? (field.options[0] ?? '') : '')
  if (found && route.query.sum !== name) void router.replace({ query: { ...route.query, sum: name } })
}
function shown(leaf: { value: unknown; unit?: string }): string {
  const text = (v: unknown) =>
    typeof v === 'number'
      ? String(Number(v.toPrecision(6))).replace('-', '−')
      : v === true
        ? 'yes'
        : v === false
          ? 'no'
          : String(v).replace(/_/g, ' ')
  const value = Array.isArray(leaf.value) ? leaf.value.map(text).join(', ') : text(leaf.value)
  return leaf.unit && leaf.unit !== '1' ? `${value} ${leaf.unit}` : value
}
/** Several sentences are a list: one below the other, none run into the next. */
const isList = (leaf: { value: unknown }): leaf is { value: string[] } =>
  Array.isArray(leaf.value) && leaf.value.some((v) => typeof v === 'string')
/** A figure of the build by its name: what it is now, and it is marked when it changes. */
function take(field: string, source: string) {
  const found = given.value.find((g) => g.id === source)
  if (found) {
    taken[field] = source
    typed[field] = found.text
  } else delete taken[field]
}
async function keep() {
  if (!form.value) return
  const who = await session.whoIsIt()
  const entry = {
    kind: 'sum kept' as const,
    step: step.value,
    sum: id,
    calc: form.value.name,
    typed: { ...typed },
    taken: { ...taken },
  }
  await served(() => shop.write(build.value, who, entry))
  if (!problem.value) kept.value = 'It is kept at the step.'
}
async function reckon() {
  if (!form.value) return
  problem.value = ''
  wrong.value = null
  try {
    const sent = Object.fromEntries(form.value.fields.map((f) => [f.name, typed[f.name] ?? '']))
    const found = (await got(
      client.POST('/api/calculations/{name}', {
        params: { path: { name: form.value.name } },
        body: { typed: sent },
      }),
    )) as Record<string, never>
    working.value = found.working as unknown as string[]
    lastNames.value = [form.value.name, ...lastNames.value.filter((name) => name !== form.value?.name)].slice(
      0,
      5,
    )
    answer.value = Object.fromEntries(Object.entries(found).filter(([key]) => key !== 'working'))
  } catch (error) {
    answer.value = null
    working.value = []
    problem.value = sentence(error)
    if (error instanceof Refusal) wrong.value = error.problem.field ?? null
  }
}
const figure = ref('')
const units = ref<Schemas['ConversionsView'] | null>(null)
let asked = 0
watch(figure, async (text) => {
  const mine = ++asked
  if (!text.trim()) return
  const found = await got(client.POST('/api/conversions', { body: { text } })).catch(() => null)
  if (mine === asked) units.value = found
})
/** The five sums reckoned last on this device. */
const lastNames = useLocalStorage<string[]>('hollet.sums', [])
const last = computed(() =>
  lastNames.value.map((name) => all.value.find((f) => f.name === name)).filter((f) => f !== undefined),
)
useKeys(() => ({ '/': () => finder.value?.focus() }))
</script>

<template>
  <div class="page">
    <section class="top" aria-label="Hollet">
      <MarkLogo />
      <p class="t16">
        Type figures as you write them: 3.5 thou, .0035", 0.09 mm, 62 ft-lb. Without a unit, the one named
        counts. Several: parted by spaces or ;
      </p>
    </section>
    <main>
      <nav aria-label="Sums">
        <label class="field"
          ><span>find a sum <kbd>/</kbd></span
          ><input ref="finder" v-model="sought" class="entry" name="sought" autocomplete="off"
        /></label>
        <section v-for="g in families" :key="g.family">
          <h2 class="t16 mut">{{ g.family }}</h2>
          <ul>
            <li v-for="f in g.forms" :key="f.name">
              <button type="button" :aria-pressed="f.name === form?.name" @click="choose(f.name)">
                {{ f.title }}
              </button>
            </li>
          </ul>
        </section>
        <p v-if="all.length && !families.length">No sum by that word.</p>
      </nav>
      <article v-if="form">
        <h1 class="t28">{{ form.title }}</h1>
        <div class="about">
          <FamilySketch :family="form.family" />
          <p>{{ form.about }}</p>
        </div>
        <form @submit.prevent="reckon">
          <label v-for="f in form.fields" :key="f.name" class="field"
            ><span
              >{{ f.label }}{{ HOW[f.kind]?.(f) ?? ''
              }}{{ f.unit && f.unit !== '1' ? `, ${f.unit}` : '' }}</span
            >
            <select
              v-if="f.kind === 'choice' || f.kind === 'yes_no'"
              v-model="typed[f.name]"
              class="entry"
              :name="f.name"
            >
              <option v-for="o in f.kind === 'yes_no' ? ['yes', 'no'] : f.options" :key="o" :value="o">
                {{ o.replace(/_/g, ' ') }}
              </option>
            </select>
            <textarea
              v-else-if="f.kind === 'rows'"
              v-model="typed[f.name]"
              class="entry rows"
              rows="4"
              :name="f.name"
              :aria-invalid="wrong === f.name || undefined"
            />
            <input
              v-else
              v-model="typed[f.name]"
              class="entry"
              :name="f.name"
              autocomplete="off"
              :aria-invalid="wrong === f.name || undefined"
              @input="delete taken[f.name]"
            />
            <select
              v-if="given.some((g) => g.dimension === f.dimension)"
              class="entry from"
              :value="taken[f.name] ?? ''"
              :name="`from-${f.name}`"
              :aria-label="`${f.label}, from the build`"
              @change="take(f.name, ($event.target as HTMLSelectElement).value)"
            >
              <option value="">typed</option>
              <option v-for="g in given.filter((g) => g.dimension === f.dimension)" :key="g.id" :value="g.id">
                {{ g.name }}, {{ g.text }}
              </option>
            </select>
          </label>
          <button type="submit" class="btn primary reckon">Reckon <kbd>Enter</kbd></button>
        </form>
        <p v-if="problem" class="block" role="alert">{{ problem }}</p>
        <section v-if="answer" class="answer" aria-live="polite">
          <dl>
            <div v-for="(leaf, key) in answer" :key="key">
              <dt>{{ String(key).replace(/_/g, ' ') }}</dt>
              <dd v-if="isList(leaf)" class="list">
                <ol>
                  <li v-for="line in leaf.value" :key="String(line)">{{ line }}</li>
                </ol>
              </dd>
              <dd
                v-else
                :class="{
                  outside: leaf.value === false,
                  words: typeof leaf.value === 'string' && leaf.value.length > 24,
                }"
              >
                {{ shown(leaf) }}
              </dd>
            </div>
          </dl>
          <p v-if="build && step">
            <button type="button" class="btn small" @click="keep">Keep it at the step</button>
            {{ kept }}
            <RouterLink :to="{ name: 'step', params: { build, step } }">Back to the step</RouterLink>
          </p>
          <h2 class="t16 mut">Working</h2>
          <p v-for="l in working" :key="l">{{ l }}</p>
          <p class="t16 mut">
            Nominal figures, without what the tools may be off by: a verdict with its tool belongs to a step.
            The maker's figures come first.
          </p>
        </section>
      </article>
      <article v-else-if="all.length || problem" class="start">
        <h1 class="t28">In the other unit</h1>
        <p v-if="problem" class="block" role="alert">{{ problem }}</p>
        <label class="field other"
          ><span>a figure with its unit, such as 62 ft-lb</span
          ><input v-model="figure" class="entry big" name="figure" autocomplete="off" maxlength="60"
        /></label>
        <p v-if="figure.trim() && units && !units.ok" class="problem" aria-live="polite">{{ units.words }}</p>
        <dl v-else-if="figure.trim() && units" aria-live="polite">
          <div v-for="u in units.rows" :key="u.unit">
            <dd>
              {{ u.exact ? '' : '≈ ' }}{{ u.value }} <small>{{ u.unit }}</small>
            </dd>
          </div>
        </dl>
        <template v-if="last.length"
          ><h2 class="t20">Reckoned last</h2>
          <div class="chips">
            <button v-for="f in last" :key="f.name" type="button" class="btn small" @click="choose(f.name)">
              {{ f.title }}
            </button>
          </div></template
        >
        <h2 class="t20">{{ all.length }} sums of the bench</h2>
        <ul class="tiles">
          <li v-for="g in families" :key="g.family">
            <button type="button" @click="sought = g.family">
              <FamilySketch :family="g.family" /><b>{{ g.family }}</b
              ><span class="t16 mut">{{ g.forms.length }} {{ g.forms.length === 1 ? 'sum' : 'sums' }}</span>
            </button>
          </li>
        </ul>
      </article>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100dvh;
  display: grid;
  grid-template-rows: 76px 1fr;
}
.top {
  padding: 16px 20px;
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: center;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  padding: 14px 20px;
  display: grid;
  grid-template-columns: 320px minmax(0, 1fr);
  gap: 32px;
  align-items: start;
}
nav {
  max-height: calc(100dvh - 110px);
  overflow-y: auto;
  padding-right: 8px;
  position: sticky;
  top: 0;
}
nav h2 {
  margin: 10px 0 2px;
}
nav button {
  border: 0;
  background: none;
  text-align: left;
  min-height: 44px;
  width: 100%;
  cursor: pointer;
  padding: 4px 8px;
  border-left: 5px solid transparent;
}
nav [aria-pressed='true'] {
  font-weight: 750;
  border-left-color: var(--ink);
  background: var(--zinc2);
}
.from {
  min-height: 44px;
  font-size: 16px;
  margin-top: 4px;
}
.start {
  display: grid;
  gap: 10px;
}
.other {
  max-width: 420px;
}
.start dd {
  font-size: 28px;
}
.start small {
  font-size: 18px;
  font-weight: 500;
}
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 10px;
}
.tiles li {
  display: grid;
}
.tiles button {
  border: 2px solid var(--line);
  background: var(--now);
  width: 100%;
  min-height: 150px;
  display: grid;
  gap: 4px;
  justify-items: start;
  align-content: end;
  padding: 10px;
  text-align: left;
  cursor: pointer;
}
.tiles :deep(svg) {
  max-height: 76px;
  width: auto;
}
.about {
  display: flex;
  gap: 20px;
  align-items: flex-start;
  margin: 8px 0 14px;
  max-width: 860px;
}
form {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 12px;
  align-items: end;
}
.btn.reckon {
  min-height: 60px;
  font-size: 24px;
  flex-direction: row;
}
[aria-invalid] {
  border-color: var(--out);
}
.answer {
  border-top: 3px solid var(--line);
  margin-top: 16px;
  padding-top: 10px;
}
dl {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 36px;
  margin-bottom: 8px;
}
dt {
  font-size: 16px;
  color: var(--mut);
}
dd {
  font-size: 36px;
  font-weight: 780;
  line-height: 1.15;
}
.words {
  font-size: 24px;
}
@media (max-width: 959px) {
  main {
    grid-template-columns: 1fr;
  }
  nav {
    max-height: 320px;
    position: static;
  }
  .top p {
    display: none;
  }
}
.rows {
  min-height: 120px;
}
.list {
  font-size: 18px;
  font-weight: 560;
  line-height: 1.5;
}
.list ol {
  padding-left: 24px;
}
</style>
