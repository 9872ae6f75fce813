<script setup lang="ts">
/** One part: why it is wanted, how it stands, and the one act that brings it on. */
import DeskDrawer from '@/shell/DeskDrawer.vue'
import AskLink from '@/shell/AskLink.vue'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import PickOne from '@/shell/PickOne.vue'
import { useBook } from '@/stores/book'
import { useCalendar } from '@/stores/calendar'
import { type PartRow, type PartsView, useParts } from '@/stores/parts'

const props = defineProps<{ build: string; row: PartRow; view: PartsView }>()
const emit = defineEmits<{ close: []; order: [id: string]; machine: [work: string] }>()
const book = useBook()
const calendar = useCalendar()
const parts = useParts()
const { problem, served } = useServer()
const router = useRouter()
const supplier = ref('')
const count = ref(Math.max(1, props.row.need.left))
const price = ref(props.row.need.price === null ? '' : String(props.row.need.price))
const promised = ref('')
const state = ref('asked')
const refund = ref('')
const until = ref('')
const need = computed(() => props.row.need)
const states = computed(() => props.view.begins.map((s) => ({ value: s, label: s })))
const orders = computed(() => props.view.orders.filter((o) => need.value.orders.includes(o.order.id)))

const id = () => `o${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`
const own = ref(id()) // one order however often the button is pressed
async function place() {
  const done = await book.handed({
    kind: 'ordered',
    order: own.value,
    supplier: supplier.value.trim(),
    state: state.value as 'asked',
    promised: promised.value.trim() || null,
    lines: [
      {
        need: need.value.id,
        count: Number(count.value),
        price: price.value.trim() ? Number(price.value) : null,
      },
    ],
  })
  if (done) own.value = id()
}
const shelf = () =>
  book.handed({
    kind: 'part taken',
    need: need.value.id,
    order: null,
    count: need.value.left || 1,
    how: 'counted',
  })
const compare = () =>
  void router.push({
    name: 'arrival',
    params: { build: props.build, need: need.value.id },
    query: need.value.arrived_of ? { order: need.value.arrived_of } : {},
  })
const press = () =>
  book.handed({
    kind: 'part taken',
    need: need.value.id,
    order: need.value.arrived_of,
    count: need.value.here,
    how: 'counted',
  })
/** Out of the box for this job; free it is only once it was looked at. */
async function take(spare: Schemas['Spare']) {
  const done = await calendar.say({
    kind: 'spare moved',
    spare: spare.spare,
    count: Math.min(spare.left, need.value.left),
    now: 'taken for a job',
    build: props.build,
    build_name: book.card?.name ?? '',
    need: need.value.id,
  })
  if (done) await parts.load(props.build)
}
/** What the day of a second source would save, before it is ordered there. */
const saves = ref('')
async function ask() {
  const path = { build: props.build, need: need.value.id }
  const found = await served(() =>
    got(
      client.POST('/api/builds/{build}/parts/{need}/saves', {
        params: { path },
        body: { text: promised.value.trim() },
      }),
    ),
  )
  saves.value = found ? `${promised.value.trim()}: ${found.words}.` : ''
}
const returned = (refusal: string, now: 'sent back' | 'refunded' | 'may go back until') =>
  book.handed({
    kind: 'part returned',
    refusal,
    now,
    money: now === 'refunded' && refund.value.trim() ? Number(refund.value) : null,
    back_by: now === 'may go back until' ? until.value.trim() : null,
  })
</script>

<template>
  <DeskDrawer :title="row.name" @close="emit('close')">
    <div class="need">
      <p>
        <b>{{ row.words }}</b>{{ row.under ? `. ${row.under}` : '' }}
      </p>
      <p class="t16">
        {{ need.wanted }} wanted: {{ need.free }} free, {{ need.here }} here and not compared,
        {{ need.ordered }} on the way, <b>{{ need.left }} to order</b>.
      </p>
      <ul class="reasons">
        <li v-for="(r, k) in need.reasons" :key="k">
          <RouterLink v-if="r.step" :to="{ name: 'step', params: { build, step: r.step } }"
            >{{ r.count }} for {{ r.number }} {{ r.title }}</RouterLink
          ><span v-else>{{ r.count }} for no step</span>
          <small
            >{{ r.why }}{{ r.met ? '. Free' : ''
            }}<span v-if="r.assumed" class="assumed"> count assumed</span></small
          >
        </li>
      </ul>
      <p v-if="row.waits" class="block">
        Taken in writing: {{ need.in_writing }}. {{ row.waits }} until it is inspected.
      </p>
      <p v-if="problem || calendar.problem || book.refused" class="problem" role="alert">
        {{ problem || calendar.problem || book.refused }}
      </p>
      <template v-if="need.compare_at">
        <p class="quiet">It was looked at and is to be replaced: the new one is laid beside the old there.</p>
        <RouterLink class="btn small" :to="{ name: 'step', params: { build, step: need.compare_at } }"
          >To where it was looked at</RouterLink
        >
      </template>
      <template v-else-if="need.machined">
        <button type="button" class="btn" @click="emit('machine', need.machined.work)">
          To the machine work
        </button>
      </template>
      <template v-else-if="need.here">
        <button v-if="need.arrival.by_press" type="button" class="btn" @click="press">
          {{ need.here }} here: kind and count are right
        </button>
        <button type="button" class="btn" @click="compare">
          {{ need.arrival.by_press ? 'Something is wrong with it' : 'Compare it, old against new' }}
        </button>
      </template>
      <template v-else-if="need.left">
        <button v-if="need.arrival.by_press" type="button" class="btn" @click="shelf">
          On the shelf: kind and count are right
        </button>
        <button v-else type="button" class="btn" @click="compare">On the shelf: compare it</button>
        <section v-if="row.spares.length" class="on" aria-label="In the box">
          <h3 class="b">In the box already</h3>
          <p v-for="s in row.spares" :key="s.spare">
            <b>{{ s.name }}</b><small>{{ s.words }}</small
            ><button v-if="s.left" type="button" class="btn small" @click="take(s)">
              Take {{ Math.min(s.left, need.left) }} for this job</button
            ><small v-else>taken for this job: compare it, then it is free</small>
          </p>
        </section>
      </template>
      <section v-for="o in orders" :key="o.order.id" class="on">
        <button type="button" class="plain" @click="emit('order', o.order.id)">
          <b>{{ o.order.supplier }}</b><small
            >{{ o.words }}{{ o.due ? `, ${o.due}` : '' }}{{ o.slipped ? `; ${o.slipped}` : '' }}</small
          >
        </button>
      </section>
      <section v-for="r in need.refused" :key="r.entry" class="refused">
        <p>
          <b>{{ r.count }} refused:</b> {{ r.wrong }}. {{ r.supplier }}, {{ r.now
          }}{{ r.back_words ? `, ${r.back_words}` : ''
          }}{{ r.money !== null ? `, ${r.money.toFixed(2)} back` : '' }}
        </p>
        <template v-if="r.here">
          <div class="pair">
            <label class="sr" :for="`until${r.entry}`">Until when it may go back</label
            ><input
              :id="`until${r.entry}`"
              v-model="until"
              class="entry"
              name="until"
              autocomplete="off"
              placeholder="in 14 days"
            /><button
              type="button"
              class="btn small"
              :disabled="!until.trim()"
              @click="returned(r.entry, 'may go back until')"
            >
              Until then
            </button>
          </div>
          <div class="chips">
            <a class="btn small" :href="`/api/builds/${build}/returns/${r.entry}.pdf`" target="_blank"
              >Return slip</a
            ><button type="button" class="btn small" @click="returned(r.entry, 'sent back')">
              Sent back
            </button>
          </div>
        </template>
        <div v-if="r.owed" class="pair">
          <label class="sr" :for="`money${r.entry}`">How much came back</label
          ><input
            :id="`money${r.entry}`"
            v-model="refund"
            class="entry"
            name="money"
            inputmode="decimal"
            autocomplete="off"
            placeholder="how much"
          /><button type="button" class="btn small" @click="returned(r.entry, 'refunded')">
            Money is back
          </button>
        </div>
      </section>
      <AskLink sort="part" :about="need.id" />
      <form v-if="!need.machined && (need.left || !need.open.length)" class="place" @submit.prevent="place">
        <h3 class="b">{{ need.refused.length ? 'From a second source' : 'Ask for it, or order it' }}</h3>
        <label class="field"
          ><span>supplier</span
          ><input
            v-model="supplier"
            class="entry"
            name="supplier"
            list="suppliers"
            maxlength="120"
            autocomplete="off"
        /></label>
        <datalist id="suppliers">
          <option v-for="s in view.suppliers" :key="s" :value="s" />
        </datalist>
        <p v-for="n in view.notes[supplier.trim().toLowerCase()] ?? []" :key="n" class="quiet">
          Noted on them: {{ n }}
        </p>
        <div class="three">
          <label class="field"
            ><span>how many</span
            ><input
              v-model="count"
              class="entry"
              name="count"
              inputmode="numeric"
              autocomplete="off" /></label
          ><label class="field"
            ><span>each</span
            ><input
              v-model="price"
              class="entry"
              name="price"
              inputmode="decimal"
              autocomplete="off" /></label
          ><label class="field"
            ><span>promised for</span
            ><input v-model="promised" class="entry" name="promised" autocomplete="off" placeholder="Fri"
          /></label>
        </div>
        <button v-if="promised.trim() && need.open.length" type="button" class="btn small" @click="ask">
          What would that day save?
        </button>
        <p v-if="saves" role="status">{{ saves }}</p>
        <PickOne v-model="state" :options="states" label="Where it stands" />
        <button type="submit" class="btn" :disabled="!supplier.trim()">Write the order</button>
      </form>
    </div>
  </DeskDrawer>
</template>

<style scoped>
.need {
  display: grid;
  gap: 10px;
}
.reasons li {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
.reasons a {
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  margin: 6px 0;
}
.three {
  display: grid;
  grid-template-columns: 90px 100px minmax(0, 1fr);
  gap: 8px;
}
.place,
.refused {
  display: grid;
  gap: 8px;
  border-top: 2px solid var(--line);
  padding-top: 8px;
}
.plain {
  border: 0;
  background: none;
  text-align: left;
  min-height: 44px;
  cursor: pointer;
  text-decoration: underline;
}
</style>
