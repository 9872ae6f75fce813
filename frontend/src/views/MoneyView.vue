<script setup lang="ts">
/**
 * The money of a build: the budget, ways side by side, the owner's word, what is bought ahead, what was
 * paid.
 */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { priceOf, useDesk, useOwnId } from '@/composables/desk'
import { useKeys } from '@/composables/keys'
import PickOne from '@/shell/PickOne.vue'
import ReserveForm from '@/shell/ReserveForm.vue'
import WayForm from '@/shell/WayForm.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const router = useRouter()
const { view, problem } = useDesk(
  () => props.build,
  (build) => got(client.GET('/api/builds/{build}/money', { params: { path: { build } } })),
)
const budget = ref('')
const budgetBy = ref('')
const money = (amount: number) => shop.money(amount.toFixed(2))
async function setBudget() {
  const done = await book.handed({
    kind: 'budget set',
    money: priceOf(budget.value) ?? NaN,
    name: budgetBy.value.trim(),
  })
  if (done) budget.value = budgetBy.value = ''
}
const { id: word, renew } = useOwnId('w')
const BLANK = { sort: 'standard', what: '', price: '', name: '', how: '', day: '', about: '' }
const said = ref({ ...BLANK })
async function say() {
  const s = said.value
  const done = await book.handed({
    kind: 'owner said',
    word: word.value,
    sort: s.sort as 'standard',
    what: s.what.trim(),
    price: priceOf(s.price),
    name: s.name.trim(),
    how: s.how.trim(),
    day: s.day.trim(),
    about: s.about || null,
  })
  if (!done) return
  said.value = { ...BLANK, name: s.name }
  renew()
}
function agreed(c: Schemas['ConcessionFacts']) {
  said.value = {
    ...BLANK,
    sort: 'concession',
    about: c.entry,
    what: 'agreed',
    name: view.value?.owner ?? '',
  }
}
const orderedNow = (w: Schemas['WayRow']) =>
  book.handed({
    kind: 'way weighed',
    way: w.way,
    what: w.what,
    options: w.options,
    chosen: w.chosen,
    because: w.because,
    questions: w.questions,
    ordered: true,
  })
const paid = ref<Record<string, string>>({})
async function pay(order: string) {
  const done = await book.handed({ kind: 'paid', order, money: priceOf(paid.value[order] ?? '') ?? NaN })
  if (done) paid.value[order] = ''
}
const rows = computed(() => {
  const m = view.value?.money
  if (!m) return []
  const all: [string, number][] = [
    ['ordered', m.ordered],
    ['decided', m.decided],
    ['to order, as far as known', m.to_order],
    ['sold', -m.sold],
    ['paid so far', m.paid],
    ['owed back', m.owed_back],
    ['perhaps needed', m.reserve],
    ['not decided yet, at worst', m.worst_open],
  ]
  return all.filter(([, amount]) => amount)
})
const waiting = computed(() => (view.value?.owner ? view.value.concessions.filter((c) => !c.word) : []))
const back = () => void router.push({ name: 'parts', params: { build: props.build } })
useKeys(() => ({ Escape: back }))
</script>

<template>
  <WorkFrame :build="build" desk="money">
    <p v-if="problem || book.refused" class="block" role="alert">{{ problem || book.refused }}</p>
    <div v-if="view" class="cols">
      <div class="main">
        <h1 class="t28">{{ money(view.money.sure) }}, at worst {{ money(view.money.worst) }}</h1>
        <p class="t20" :class="{ outside: (view.money.left ?? 0) < 0 }">{{ view.money.budget_words }}</p>
        <dl>
          <template v-for="[name, amount] in rows" :key="name"
            ><dt>{{ name }}</dt>
            <dd>{{ money(amount) }}</dd></template
          >
        </dl>
        <p v-if="view.money.bare.length" class="t16">
          No price yet: {{ view.money.bare.slice(0, 5).join(', ')
          }}{{ view.money.bare.length > 5 ? ` and ${view.money.bare.length - 5} more` : '' }}.
        </p>
        <WorkingLines :lines="view.money.working" />
        <section v-if="waiting.length" aria-label="Waits for the owner">
          <h2 class="t20">{{ view.owner }} has not agreed yet</h2>
          <ul>
            <li v-for="c in waiting" :key="c.entry">
              {{ c.what }} <small>in writing by {{ c.by }}; drive stays shut until the word is there</small>
              <button type="button" class="btn small" @click="agreed(c)">The word is there</button>
            </li>
          </ul>
        </section>
        <section aria-label="Ways side by side">
          <h2 class="t20">Do it, send it out, or buy it ready</h2>
          <ul>
            <li v-for="w in view.ways" :key="w.way">
              <b>{{ w.what }}</b>
              <ul>
                <li v-for="(o, k) in w.words" :key="k" :class="{ b: k === w.chosen }">
                  {{ o }}{{ k === w.chosen ? `. Taken: ${w.because}` : '' }}
                </li>
              </ul>
              <button v-if="w.to_order" type="button" class="btn small" @click="orderedNow(w)">
                It is ordered now: count it there
              </button>
              <small v-if="w.questions.length">to be answered first: {{ w.questions.join(' ') }}</small>
            </li>
          </ul>
          <details>
            <summary>Weigh ways: the work, or a tool</summary>
            <WayForm :ways="view.ways" :hows="view.hows" :questions="view.questions" />
          </details>
        </section>
        <section aria-label="Bought ahead">
          <h2 class="t20">Buy it ahead, in case it is needed</h2>
          <ul>
            <li v-for="r in view.reserves" :key="r.need">
              <b>{{ r.count }} × {{ r.name }}</b
              >: {{ money(r.now) }} now, {{ money(r.later) }} later on average.
              {{ r.buy ? 'Bought ahead' : 'Not bought ahead' }}
              <b v-if="r.moved" class="too_close">{{ r.moved }}</b>
              <WorkingLines :lines="r.working" />
            </li>
          </ul>
          <details>
            <summary>Weigh a part that may be needed</summary>
            <ReserveForm :limits="view.limits" :steps="view.steps" :chances="view.chances" />
          </details>
        </section>
      </div>
      <aside>
        <form class="own" aria-label="Budget" @submit.prevent="setBudget">
          <h2 class="t20">Budget</h2>
          <div class="pair">
            <label class="field"
              ><span>how much</span
              ><input
                v-model="budget"
                class="entry"
                name="budget"
                inputmode="decimal"
                autocomplete="off" /></label
            ><label class="field"
              ><span>by whose word</span
              ><input v-model="budgetBy" class="entry" name="budgetby" maxlength="80" autocomplete="off"
            /></label>
          </div>
          <button type="submit" class="btn small" :disabled="!budget.trim() || !budgetBy.trim()">
            Set the budget
          </button>
        </form>
        <form class="own" aria-label="The owner's word" @submit.prevent="say">
          <h2 class="t20">The owner's word</h2>
          <p v-if="!view.owner" class="t16">
            The standard promised makes it somebody else's vehicle: from then on a concession waits for the
            owner.
          </p>
          <ul>
            <li v-for="w in view.words" :key="w.entry">
              <b>{{ w.sort }}:</b> {{ w.what }}{{ w.price !== null ? `, ${money(w.price)}` : '' }}
              <small>{{ w.name }}, {{ w.how }}, {{ w.day }}</small>
            </li>
          </ul>
          <PickOne
            v-model="said.sort"
            :options="view.sorts.map((s) => ({ value: s, label: s }))"
            label="What sort of word"
          />
          <label class="field"
            ><span>what was said</span
            ><input v-model="said.what" class="entry" name="what" maxlength="120" autocomplete="off"
          /></label>
          <div class="pair">
            <label class="field"
              ><span>who</span
              ><input v-model="said.name" class="entry" name="who" maxlength="80" autocomplete="off" /></label
            ><label class="field"
              ><span>how it was said</span
              ><input v-model="said.how" class="entry" name="how" maxlength="80" autocomplete="off" /></label
            ><label class="field"
              ><span>price</span
              ><input
                v-model="said.price"
                class="entry"
                name="price"
                inputmode="decimal"
                autocomplete="off" /></label
            ><label class="field"
              ><span>when, if not today</span
              ><input v-model="said.day" class="entry" name="day" autocomplete="off" placeholder="3 Dec"
            /></label>
          </div>
          <p v-if="said.about" class="t16">It answers what was accepted in writing.</p>
          <button
            type="submit"
            class="btn small"
            :disabled="!said.what.trim() || !said.name.trim() || !said.how.trim()"
          >
            Write the word
          </button>
        </form>
        <section v-if="view.orders.length" aria-label="Paid">
          <h2 class="t20">Paid</h2>
          <form v-for="o in view.orders" :key="o.id" class="pay" @submit.prevent="pay(o.id)">
            <label :for="`paid${o.id}`"
              ><b>{{ o.supplier }}</b
              >, {{ money(o.paid) }} of {{ money(o.total) }}</label
            ><input
              :id="`paid${o.id}`"
              v-model="paid[o.id]"
              class="entry"
              :name="`paid-${o.id}`"
              inputmode="decimal"
              autocomplete="off"
            /><button type="submit" class="btn small" :disabled="!(paid[o.id] ?? '').trim()">Paid</button>
          </form>
        </section>
        <button type="button" class="btn small" @click="back">Back to the parts <kbd>Esc</kbd></button>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  gap: 28px;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 10px;
  max-width: 460px;
  margin: 8px 0;
}
dd {
  text-align: right;
}
section,
.own {
  border-top: 2px solid var(--line);
  padding: 8px 0;
  display: grid;
  gap: 8px;
}
aside {
  display: grid;
  gap: 12px;
  align-content: start;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.pay {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 90px auto;
  gap: 8px;
  align-items: center;
}
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
  text-decoration: underline;
}
li {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
small {
  display: block;
  font-size: 16px;
}
@media (max-width: 1179px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
