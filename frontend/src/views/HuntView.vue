<script setup lang="ts">
/**
 * The hunt list: every figure, torque, amount, tool, helper and answer that is missing, by the step that
 * needs it first.
 */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Schemas } from '@/api/client'
import { client, got } from '@/api/client'
import { useKeys } from '@/composables/keys'
import DifferenceDialog from '@/shell/DifferenceDialog.vue'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import { useServer } from '@/composables/server'

type Item = Schemas['HuntItem']
const props = defineProps<{ build: string }>()
const book = useBook()
const plan = usePlan()
const shop = useShop()
const session = useSession()
const router = useRouter()
const kind = ref('')
const chosen = ref<string | null>(null)
const { problem, served } = useServer()
const who = ref('')
const difference = ref<InstanceType<typeof DifferenceDialog> | null>(null)
const KINDS = [
  ['figure', 'Figures'],
  ['torque', 'Torques'],
  ['amount', 'Amounts'],
  ['tool', 'Tools'],
  ['helper', 'Helpers'],
  ['part', 'Parts to agree'],
  ['fact', 'Facts'],
] as const
const WORD: Record<string, string> = {
  figure: 'figure',
  torque: 'torque',
  amount: 'amount',
  tool: 'tool',
  helper: 'helper',
  part: 'parts to agree',
  fact: 'fact',
}

const items = computed(() => (plan.build === props.build ? (plan.view?.hunt ?? []) : []))
const shown = computed(() => items.value.filter((x) => !kind.value || x.kind === kind.value))
const item = computed(() => items.value.find((x) => x.id === chosen.value) ?? null)
const count = (id: string) => items.value.filter((x) => x.kind === id).length
const kinds = computed(() => [
  { value: '', label: `All ${items.value.length}` },
  ...KINDS.filter(([id]) => count(id)).map(([id, name]) => ({ value: id, label: `${name} ${count(id)}` })),
])
const groups = computed(() => [
  ...new Map(
    shown.value.map((x) => [x.stage_name, shown.value.filter((y) => y.stage_name === x.stage_name)]),
  ).entries(),
])

watch(
  () => [props.build, book.frame?.head],
  () => void plan.load(props.build),
  { immediate: true },
)
async function have(it: Item, state: 'owned' | 'borrowed' | 'missing' | 'broken') {
  problem.value = ''
  const who = await session.whoIsIt()
  const known = shop.view?.gear.find((g) => g.id === it.about?.toLowerCase())
  await served(async () => {
    await got(
      client.POST('/api/gear', {
        body: { who, name: it.about ?? it.name, state, version: known?.version ?? 0 },
      }),
    )
    await shop.load()
    await plan.load(props.build)
  })
}
async function generic(it: Item) {
  if (!it.fallback || !it.about) return
  await plan.loadFigures(props.build)
  const joint = plan.figures?.rows.find((r) => r.joint !== null && r.id === it.about)?.joint
  if (!joint) return
  void difference.value?.propose([{ act: 'generic', joint: joint.id, version: joint.version }], true)
}
async function comes(it: Item) {
  await served(async () => {
    await plan.take([{ act: 'people', step: it.step, who: who.value.trim() }], '')
    who.value = ''
  })
}
function go(it: Item) {
  if (it.by_book)
    void router.push({ name: 'limits', params: { build: props.build }, query: { figure: it.about } })
  else void router.push({ name: 'plan', params: { build: props.build } })
}
useKeys(() => ({
  Escape: () =>
    chosen.value ? (chosen.value = null) : router.push({ name: 'plan', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" desk="hunt list">
    <p v-if="plan.problem || problem" class="block" role="alert">{{ plan.problem || problem }}</p>
    <template v-if="plan.view && plan.build === build">
      <h1 class="t28">{{ items.length ? `${items.length} to hunt` : 'Nothing left to hunt' }}</h1>
      <p v-if="items.length" class="t20">First for {{ items[0].number }} {{ items[0].title }}.</p>
      <p v-else>Every figure, torque, amount and tool that the open steps need is known and there.</p>
      <PickOne v-model="kind" :options="kinds" label="Kinds" />
      <section v-for="[stage, list] in groups" :key="stage" :aria-label="stage">
        <h2 class="group">{{ stage }}</h2>
        <ol>
          <li v-for="x in list" :key="x.id" :class="{ chosen: x.id === chosen }">
            <button
              type="button"
              class="row"
              :aria-expanded="x.id === chosen"
              @click="chosen = x.id === chosen ? null : x.id"
            >
              <span class="what"
                ><b>{{ x.name }}</b
                ><small>{{ WORD[x.kind] }} for {{ x.number }} {{ x.title }}</small></span
              ><span :class="{ assumed: x.guessed }">{{ x.state }}</span>
            </button>
            <div v-if="x.id === chosen && item" class="more">
              <p v-if="x.look_in.length">Look in: {{ x.look_in.join('; ') }}.</p>
              <p v-if="x.fallback" class="quiet">
                A generic value for this thread and grade is about <b>{{ x.fallback }}</b>. It knows neither
                the joint nor the friction, so it stays marked <span class="assumed">assumed</span> until
                somebody looks it up.<br /><span class="t16">{{ x.fallback_working }}</span>
              </p>
              <p v-else-if="x.fallback_working" class="quiet">{{ x.fallback_working }}</p>
              <div class="pair">
                <template v-if="x.by_gear"
                  ><button type="button" class="btn small" @click="have(x, 'owned')">It is here</button
                  ><button type="button" class="btn small" @click="have(x, 'borrowed')">Borrowed</button
                  ><button type="button" class="btn small" @click="have(x, 'missing')">Not in the shop</button
                  ><button type="button" class="btn small" @click="have(x, 'broken')">
                    Broken
                  </button></template
                >
                <form v-else-if="x.by_person" class="pair" @submit.prevent="comes(x)">
                  <label class="sr" for="comes">Who comes, and when</label
                  ><input
                    id="comes"
                    v-model="who"
                    class="entry"
                    name="comes"
                    maxlength="80"
                    autocomplete="off"
                    placeholder="who comes, and when"
                  /><button type="submit" class="btn small" :disabled="!who.trim()">They come</button>
                </form>
                <template v-else
                  ><button type="button" class="btn small" @click="go(x)">
                    {{ x.by_book ? 'Write it into the limit book' : 'Answer it on the plan desk' }}</button
                  ><button v-if="x.fallback" type="button" class="btn small" @click="generic(x)">
                    Take the generic value as assumed
                  </button></template
                >
                <RouterLink class="btn small" :to="{ name: 'step', params: { build, step: x.step } }"
                  >To {{ x.number }}</RouterLink
                >
              </div>
            </div>
          </li>
        </ol>
      </section>
    </template>
    <DifferenceDialog ref="difference" />
  </WorkFrame>
</template>

<style scoped>
.group {
  font-size: 18px;
  font-weight: 780;
  border-top: 2px solid var(--line);
  line-height: 32px;
  margin-top: 8px;
}
li {
  border-top: 1px solid var(--hair);
  max-width: 980px;
}
li.chosen {
  outline: 3px solid var(--ink);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 300px;
  gap: 12px;
  width: 100%;
  min-height: 52px;
  align-items: center;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  padding: 4px 8px;
}
.row > span:last-child {
  justify-self: start;
}
.what b {
  font-weight: 680;
}
.what small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
.more {
  display: grid;
  gap: 10px;
  padding: 4px 8px 12px;
}
.pair {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.pair .entry {
  width: 320px;
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: 1fr;
  }
}
</style>
