<script setup lang="ts">
/**
 * The findings desk: every part and what was decided, like parts side by side, money, explanations, what is
 * suspect for its age.
 */
import AskLink from '@/shell/AskLink.vue'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Inspection } from '@/api/client'
import { useKeys } from '@/composables/keys'
import PositionRows from '@/drawings/PositionRows.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import DifferenceDialog from '@/shell/DifferenceDialog.vue'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { usePlan } from '@/stores/plan'
import { useServer } from '@/composables/server'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const plan = usePlan()
const router = useRouter()
const view = ref<Inspection | null>(null)
const { problem, served } = useServer()
const shown = ref('parts')
const difference = ref<InstanceType<typeof DifferenceDialog> | null>(null)
const what = ref('')
const texts = ref<Record<string, string>>({})
const sorts = ref<
  Record<string, 'for' | 'against' | 'varied' | 'changed' | 'maker' | 'would settle' | 'settled'>
>({})
const SHAPES: Record<string, string> = {
  good: 'inside',
  again: 'too_close',
  bad: 'outside',
  not_seen: 'not_read',
}
const SORTS = [
  ['for', 'speaks for it'],
  ['against', 'speaks against it'],
  ['varied', 'varied on purpose'],
  ['changed', 'changed at the same time'],
  ['maker', 'the maker says'],
  ['would settle', 'would settle it'],
  ['settled', 'settled by'],
] as const
const SORT_WORD: Record<string, string> = Object.fromEntries(SORTS)
const STANDING = ['in use', 'months', 'over a year', 'over five years', 'nobody knows']
const HISTORY = ['known', 'gaps', 'unknown']
const SPIRIT = ['none', 'up to 10 %', 'more', 'nobody knows']
const AGE = [
  ['standing', 'It stood still', STANDING],
  ['damp', 'Where it stood', ['dry', 'damp', 'nobody knows']],
  ['history', 'Its history', HISTORY],
  ['fuel', 'It runs on', ['petrol', 'diesel']],
  ['fuel_spirit', 'Spirit in the fuel', SPIRIT],
  ['valve_seats', 'Valve seats', ['hard', 'soft', 'nobody knows']],
] as const

async function load() {
  await served(async () => {
    view.value = (await got<unknown>(
      client.GET('/api/builds/{build}/inspection', { params: { path: { build: props.build } } }),
    )) as Inspection
    problem.value = ''
  })
}
watch([() => props.build, () => book.frame?.head], () => void load(), { immediate: true })
const steps = computed(() => (view.value?.steps ?? []).filter((s) => s.total > 0))
const tabs = computed(() =>
  [
    { value: 'parts', label: `Parts ${view.value?.parts ?? 0}` },
    { value: 'beside', label: `Side by side ${view.value?.tables.length ?? 0}` },
    { value: 'causes', label: `Causes ${view.value?.causes.length ?? 0}` },
    { value: 'age', label: `Suspect for its age ${view.value?.suspects.length ?? 0}` },
  ].map((tab, k) => ({ ...tab, kbd: String(k + 1) })),
)
const worst = (p: { faces: { not_good: boolean; words: string; name: string }[] }) =>
  p.faces
    .filter((f) => f.not_good)
    .map((f) => `${f.name}: ${f.words}`)
    .join('. ')
const slug = (text: string) =>
  `${
    text
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 40) || 'cause'
  }-${(view.value?.causes.length ?? 0) + 1}`
async function explain() {
  const said = what.value.trim()
  if (
    said.length > 2 &&
    (await book.handed({ kind: 'cause', cause: slug(said), what: said, step: null })) &&
    what.value.trim() === said
  )
    what.value = ''
  await load()
}
async function evidence(cause: string) {
  const text = texts.value[cause]?.trim() ?? ''
  if (
    text.length > 2 &&
    (await book.handed({ kind: 'evidence', cause, sort: sorts.value[cause] ?? 'for', text }))
  )
    texts.value[cause] = ''
  await load()
}
async function fact(name: string, value: string) {
  await plan.load(props.build)
  await difference.value?.propose([{ act: 'fact', fact: name, value }], false)
}
useKeys(() => ({
  ...Object.fromEntries(tabs.value.map((tab) => [tab.kbd, () => (shown.value = tab.value)])),
  5: () => void router.push({ name: 'changed', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="findings">
    <div v-if="view" class="desk">
      <div class="head">
        <h1 class="t28">
          {{ view.seen }} of {{ view.total }} faces seen{{
            view.to_decide ? `, ${view.to_decide} to decide` : ''
          }}
        </h1>
        <p v-if="view.seen < view.total">Every verdict is provisional till {{ view.total }}.</p>
        <p>
          <RouterLink class="btn small" :to="{ name: 'changed', params: { build } }"
            >Not as it left the works <kbd>5</kbd></RouterLink
          >
        </p>
      </div>
      <dl class="money" aria-label="What it costs">
        <div>
          <dt>cost, decided</dt>
          <dd>{{ shop.money(view.exposure.decided.toFixed(0)) }}</dd>
        </div>
        <div>
          <dt>cost at worst, {{ view.exposure.open_parts }} still open</dt>
          <dd>{{ shop.money(view.exposure.worst_open.toFixed(0)) }}</dd>
        </div>
        <div>
          <dt>cost if what is used again is not good</dt>
          <dd>{{ shop.money(view.exposure.if_wrong.toFixed(0)) }}</dd>
        </div>
        <p v-if="view.exposure.without_price.length" class="t16 mut">
          {{ view.exposure.without_price.length }} without a price:
          {{ view.exposure.without_price.slice(0, 3).join(', ')
          }}{{ view.exposure.without_price.length > 3 ? ' …' : '' }}
        </p>
      </dl>
      <PickOne v-model="shown" class="filter" :options="tabs" label="What to show" />
      <template v-if="shown === 'parts'">
        <section v-for="s in steps" :key="s.step">
          <h2 class="t20">
            <RouterLink :to="{ name: 'step', params: { build, step: s.step } }">{{
              view.titles[s.step]
            }}</RouterLink>: {{ s.seen }} of {{ s.total }}
          </h2>
          <table>
            <thead>
              <tr>
                <th>part</th>
                <th>faces</th>
                <th>what was seen</th>
                <th>what happens to it</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="p in s.parts" :key="p.id">
                <td class="b">{{ p.mark }} {{ p.name }}</td>
                <td class="marks">
                  <VerdictMark
                    v-for="f in p.faces"
                    :key="f.id"
                    :verdict="SHAPES[f.state]"
                    :size="7"
                    :word="`${f.name}: ${f.words}`"
                  />
                </td>
                <td class="hand">{{ worst(p) || (p.seen === p.faces.length ? 'nothing' : '') }}</td>
                <td>
                  <template v-if="p.choice"
                    ><b>{{ p.choice_words }}</b
                    >{{ p.provisional ? ', provisional' : '' }}<span class="hand">: {{ p.reason }}</span
                    ><span v-if="p.right" class="in"> Put right: {{ p.right }}</span
                    ><s v-for="d in p.decided.slice(0, -1)" :key="d.entry" class="was mut">{{
                      d.words
                    }}</s></template
                  ><b v-else-if="p.needs" class="outside">decide</b>
                </td>
              </tr>
            </tbody>
          </table>
        </section>
        <p v-if="!steps.length">
          No part is listed to be looked at yet. Each inspection step has a button for it.
        </p>
      </template>
      <template v-else-if="shown === 'beside'">
        <PositionRows v-for="t in view.tables" :key="t.group" :table="t" />
        <p v-if="!view.tables.length">No like parts here.</p>
      </template>
      <template v-else-if="shown === 'causes'">
        <section v-for="c in view.causes" :key="c.id" class="cause">
          <h2 class="t20">It may have been: {{ c.what }} <span v-if="c.settled" class="in">settled</span></h2>
          <p v-if="c.doubt" class="block">{{ c.doubt }}.</p>
          <ul>
            <li v-for="e in c.evidence" :key="e.entry">
              <b>{{ SORT_WORD[e.sort] }}:</b> <span class="hand">{{ e.text }}</span> {{ ' '
              }}<span class="t16 mut">{{ e.who }}</span>
            </li>
          </ul>
          <AskLink sort="fault" :about="c.id" />
          <form class="line" @submit.prevent="evidence(c.id)">
            <label class="field"
              ><span>this</span
              ><select v-model="sorts[c.id]" class="entry" :name="`sort-${c.id}`">
                <option v-for="[id, name] in SORTS" :key="id" :value="id">{{ name }}</option>
              </select></label
            ><label class="field wide"
              ><span>what</span
              ><input
                v-model="texts[c.id]"
                class="entry"
                :name="`evidence-${c.id}`"
                maxlength="600"
                autocomplete="off" /></label
            ><button type="submit" class="btn small">Noted</button>
          </form>
        </section>
        <form class="line" @submit.prevent="explain">
          <label class="field wide"
            ><span>{{
              view.causes.length
                ? 'Another explanation'
                : 'What may have caused it? Explanations stand side by side until something settles them'
            }}</span
            ><input v-model="what" class="entry" name="cause" maxlength="200" autocomplete="off" /></label
          ><button type="submit" class="btn small" :disabled="what.trim().length < 3">
            Into the cause file
          </button>
        </form>
      </template>
      <template v-else>
        <div class="line">
          <label v-for="[id, name, values] in AGE" :key="id" class="field"
            ><span>{{ name }}</span
            ><select
              class="entry"
              :name="id"
              :value="view.facts[id] ?? ''"
              @change="fact(id, ($event.target as HTMLSelectElement).value)"
            >
              <option value="" disabled>not said</option>
              <option v-for="v in values" :key="v">{{ v }}</option>
            </select></label
          >
        </div>
        <table v-if="view.suspects.length" class="aged">
          <thead>
            <tr>
              <th>suspect, even if it looks good</th>
              <th>because</th>
              <th>so</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="s in view.suspects" :key="s.thing">
              <td class="b">{{ s.thing }}</td>
              <td>{{ s.because }}</td>
              <td>{{ s.do }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else>Nothing is suspect for its age by what is known so far.</p>
      </template>
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
    </div>
    <p v-else-if="problem" class="block" role="alert">{{ problem }}</p>
    <DifferenceDialog ref="difference" @closed="load" />
  </WorkFrame>
</template>

<style scoped>
table {
  table-layout: fixed;
}
th:nth-child(1) {
  width: 24%;
}
th:nth-child(2) {
  width: 14%;
}
th:nth-child(3) {
  width: 28%;
}
.aged th {
  width: 33%;
}
.desk {
  display: grid;
  gap: 12px;
}
.head {
  display: flex;
  gap: 16px;
  align-items: baseline;
  flex-wrap: wrap;
}
.money {
  display: flex;
  gap: 28px;
  flex-wrap: wrap;
  align-items: baseline;
}
.money dt {
  font-size: 16px;
  color: var(--mut);
}
.money dd {
  font-size: 28px;
  font-weight: 780;
}
.filter {
  display: flex;
  gap: 4px;
  flex-wrap: wrap;
  border-bottom: 2px solid var(--line);
}
.marks {
  white-space: nowrap;
}
.was {
  display: block;
  font-size: 16px;
}
.cause {
  border-top: 2px solid var(--line);
  padding-top: 6px;
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: flex-end;
  flex-wrap: wrap;
}
.line .wide {
  flex: 1 1 320px;
}
h2 a {
  display: inline-block;
  min-height: 32px;
}
</style>
