<script setup lang="ts">
/** The parts desk: what is wanted and what it stops, orders and parcels, what comes due, what it costs. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, sentence } from '@/api/client'
import { useKeys } from '@/composables/keys'
import DueMark from '@/drawings/DueMark.vue'
import OrderTrack from '@/drawings/OrderTrack.vue'
import StopBar from '@/drawings/StopBar.vue'
import MachineDialog from '@/shell/MachineDialog.vue'
import MachineDrawer from '@/shell/MachineDrawer.vue'
import NeedDrawer from '@/shell/NeedDrawer.vue'
import OpenerRow from '@/shell/OpenerRow.vue'
import OrderDrawer from '@/shell/OrderDrawer.vue'
import SearchBlock from '@/shell/SearchBlock.vue'
import WantForm from '@/shell/WantForm.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { type PartRow, useParts } from '@/stores/parts'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'

const props = defineProps<{ build: string }>()
const parts = useParts()
const shop = useShop()
const session = useSession()
const router = useRouter()
const need = ref<string | null>(null)
const order = ref<string | null>(null)
const machine = ref<string | null>(null)
const out = ref<InstanceType<typeof MachineDialog> | null>(null)
const want = ref<InstanceType<typeof WantForm> | null>(null)
const view = computed(() => (parts.build === props.build ? parts.view : null))
const rows = computed(() => [
  ...(view.value?.groups ?? []).flatMap((g) => g.rows),
  ...(view.value?.free ?? []),
])
const row = computed(() => rows.value.find((r) => r.need.id === need.value) ?? null)
const placed = computed(() => view.value?.orders.find((o) => o.order.id === order.value) ?? null)
const machined = computed(() => view.value?.machines.find((m) => m.work === machine.value) ?? null)
const asked = computed(() => (view.value?.openers ?? []).filter((o) => !o.answer))
const live = computed(() => (view.value?.orders ?? []).filter((o) => o.order.live))
const over = computed(() => (view.value?.orders ?? []).filter((o) => !o.order.live))
const money = (amount: number) => `${amount.toFixed(2)}${shop.view?.currency ? ` ${shop.view.currency}` : ''}`
const first = computed(() => rows.value.find((r) => r.to_compare) ?? null)
const file = ref<HTMLInputElement | null>(null)
const told = ref('')
async function readIn() {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  const who = await session.whoIsIt()
  try {
    const found = await got(
      client.POST('/api/builds/{build}/parts.csv', {
        params: { path: { build: props.build } },
        body: { who, text: await chosen.text() },
      }),
    )
    told.value = `${found.written} wanted, ${found.unchanged} stood there already.`
    await parts.load(props.build)
  } catch (error) {
    told.value = `Nothing was written. ${sentence(error)}`
  }
  if (file.value) file.value.value = ''
}

watch(
  () => props.build,
  (build) => void parts.load(build),
  { immediate: true },
)
function look(r: PartRow) {
  order.value = machine.value = null
  need.value = r.need.id
}
function lookAt(id: string | null) {
  need.value = machine.value = null
  order.value = id
}
function machineAt(work: string) {
  need.value = order.value = null
  machine.value = work
}
function due(d: { need?: string | null; order?: string | null }) {
  const work = rows.value.find((r) => r.need.id === d.need)?.need.machined?.work
  if (work) machineAt(work)
  else if (d.order) lookAt(d.order)
  else need.value = d.need ?? null
}
const compare = (r: PartRow) =>
  void router.push({
    name: 'arrival',
    params: { build: props.build, need: r.need.id },
    query: r.need.arrived_of ? { order: r.need.arrived_of } : {},
  })
/** A parcel: the one order that is on its way, or the list of them. */
const came = () => live.value.length && lookAt(live.value[0].order.id)
useKeys(() => ({
  ' ': () => first.value && compare(first.value),
  PageDown: () => first.value && compare(first.value),
  a: came,
  w: () => want.value?.focus(),
  x: () => out.value?.ask(),
  e: () => void router.push({ name: 'money', params: { build: props.build } }),
  Escape: () =>
    need.value || order.value || machine.value
      ? (need.value = order.value = machine.value = null)
      : router.push({ name: 'build', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" desk="parts">
    <p v-if="parts.problem" class="block" role="alert">{{ parts.problem }}</p>
    <template v-if="view">
      <div class="cols">
        <div class="main">
          <h1 class="t28">{{ view.title }}</h1>
          <p v-if="view.line" class="line">{{ view.line }}</p>
          <SearchBlock :searches="view.searches" />
          <ul v-if="asked.length" aria-label="What opens things">
            <li v-for="o in asked" :key="o.opener"><OpenerRow :opener="o" /></li>
          </ul>
          <WantForm ref="want" :build="build" :safeties="view.safeties" :steps="view.steps" />
          <section v-for="g in view.groups" :key="g.stage" :aria-label="g.name">
            <h2 class="group">{{ g.name }}</h2>
            <ol>
              <li v-for="r in g.rows" :key="r.need.id">
                <button type="button" class="row" :class="{ chosen: r.need.id === need }" @click="look(r)">
                  <span class="what"
                    ><b>{{ r.name }}</b
                    ><small :class="{ mut: true }">{{ r.under }}</small></span
                  >
                  <span class="track"
                    ><OrderTrack :place="r.place" :word="r.words" /><small :class="{ assumed: r.assumed }">{{
                      r.words
                    }}</small></span
                  >
                  <span class="due" :class="{ outside: r.late }">{{ r.due }}</span>
                  <span class="stops"
                    ><StopBar :free="r.stops" :rungs="view.rungs" :word="r.stops_words" /><small>{{
                      r.stops_words
                    }}</small></span
                  >
                </button>
              </li>
            </ol>
          </section>
          <section v-if="view.kept.length" aria-label="Where things lie">
            <h2 class="group">Where things lie</h2>
            <ul>
              <li v-for="k in view.kept" :key="k.thing">
                <b>{{ k.what }}</b> {{ k.where }} <small class="inline mut">{{ k.who }}</small>
              </li>
            </ul>
          </section>
          <p v-if="!view.groups.length" class="quiet">
            Every part that the open steps name is free, or none is named. What is wanted besides goes into
            the line above.
          </p>
          <details v-if="view.free.length" class="free">
            <summary>{{ view.free.length }} free or no longer wanted</summary>
            <ul>
              <li v-for="r in view.free" :key="r.need.id">
                <button type="button" class="plain" @click="look(r)">
                  <span class="disc" /><b>{{ r.name }}</b> {{ r.words }}
                </button>
              </li>
            </ul>
          </details>
        </div>
        <aside aria-label="Due, orders, money">
          <button v-if="first" type="button" class="btn primary long" @click="compare(first)">
            <span>{{ first.name }}: {{ first.next }}</span
            ><kbd>Space</kbd>
          </button>
          <section v-if="view.due.length" aria-label="Comes due">
            <h2 class="t20">Comes due</h2>
            <ul>
              <li v-for="d in view.due" :key="d.id">
                <button type="button" class="plain dues" @click="due(d)">
                  <DueMark :late="d.late" :soon="d.soon" /><span
                    ><b>{{ d.what }}</b
                    ><small>{{ d.does }}</small></span
                  ><span class="when" :class="{ outside: d.late, too_close: d.soon }">{{ d.words }}</span>
                </button>
              </li>
            </ul>
          </section>
          <section v-if="view.orders.length" aria-label="Orders">
            <h2 class="t20">Orders</h2>
            <ul>
              <li v-for="o in [...live, ...over]" :key="o.order.id">
                <button type="button" class="plain" @click="lookAt(o.order.id)">
                  <b>{{ o.order.supplier }}</b><small
                    >{{ o.words }}{{ o.due ? `, ${o.due}` : o.silent ? `, silent for ${o.silent} days` : ''
                    }}{{ o.slipped ? `; ${o.slipped}` : '' }}</small
                  >
                </button>
              </li>
            </ul>
            <button v-if="live.length" type="button" class="btn small" @click="came">
              A parcel came <kbd>A</kbd>
            </button>
          </section>
          <section aria-label="Machine shop">
            <h2 class="t20">Machine shop</h2>
            <ul v-if="view.machines.length">
              <li v-for="m in view.machines" :key="m.work">
                <button type="button" class="plain" @click="machineAt(m.work)">
                  <b>{{ m.part }}, {{ m.to_do }}</b
                  ><small>{{ m.words }}</small>
                </button>
              </li>
            </ul>
            <button type="button" class="btn small" @click="out?.ask()">
              Send something out <kbd>X</kbd>
            </button>
          </section>
          <section aria-label="Money" class="money">
            <h2 class="t20">Money</h2>
            <p class="t16">{{ view.money.budget_words }}</p>
            <dl>
              <dt>ordered</dt>
              <dd>{{ money(view.money.ordered) }}</dd>
              <dt>to order, as far as known</dt>
              <dd>{{ money(view.money.to_order) }}</dd>
              <template v-if="view.money.owed_back"
                ><dt>owed back</dt>
                <dd>{{ money(view.money.owed_back) }}</dd></template
              >
              <dt class="b">at worst</dt>
              <dd class="b">{{ money(view.money.worst) }}</dd>
            </dl>
            <p v-if="view.money.bare.length" class="t16">
              No price yet: {{ view.money.bare.slice(0, 4).join(', ')
              }}{{ view.money.bare.length > 4 ? ` and ${view.money.bare.length - 4} more` : '' }}.
            </p>
            <WorkingLines :lines="view.money.working" />
            <RouterLink class="btn small" :to="{ name: 'money', params: { build } }"
              >Budget, ways, owner <kbd>E</kbd></RouterLink
            >
          </section>
          <section class="files" aria-label="On paper and as files">
            <a class="btn small" href="/api/shopping.pdf" target="_blank">Shopping list</a
            ><a class="btn small" :href="`/api/builds/${build}/parts.csv`" download>Parts as CSV</a
            ><a class="btn small" :href="`/api/builds/${build}/orders.csv`" download>Orders as CSV</a
            ><RouterLink class="btn small" to="/box">The box</RouterLink
            ><RouterLink class="btn small" :to="{ name: 'ask', params: { build } }">Questions</RouterLink
            ><button type="button" class="btn small" @click="file?.click()">Read a CSV in</button
            ><input
              ref="file"
              type="file"
              accept=".csv,text/csv"
              name="partsfile"
              class="sr"
              @change="readIn"
            />
            <p v-if="told" class="t16" role="status">{{ told }}</p>
          </section>
        </aside>
      </div>
      <NeedDrawer
        v-if="row"
        :key="row.need.id"
        :build="build"
        :row="row"
        :view="view"
        @close="need = null"
        @order="lookAt"
        @machine="machineAt"
      />
      <MachineDrawer v-if="machined" :key="machined.work" :work="machined" @close="machine = null" />
      <MachineDialog ref="out" :safeties="view.safeties" :steps="view.steps" />
      <OrderDrawer
        v-if="placed"
        :key="placed.order.id"
        :build="build"
        :placed="placed"
        :view="view"
        @close="order = null"
      />
    </template>
  </WorkFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 28px;
}
.line {
  margin: 4px 0 8px;
}
.group {
  font-size: 18px;
  font-weight: 780;
  border-top: 2px solid var(--line);
  line-height: 30px;
  margin-top: 6px;
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 172px 74px 160px;
  gap: 10px;
  width: 100%;
  min-height: 52px;
  align-items: center;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  text-align: left;
  cursor: pointer;
  padding: 3px 4px;
}
.row.chosen {
  outline: 3px solid var(--ink);
}
.what b {
  font-weight: 680;
}
small {
  display: block;
  font-size: 16px;
  line-height: 1.2;
}
small.inline {
  display: inline;
}
small.assumed {
  display: inline-block;
  white-space: normal;
}
.due {
  font-weight: 700;
  font-size: 16px;
}
.stops {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 16px;
}
aside {
  display: grid;
  gap: 16px;
  align-content: start;
}
.plain {
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  text-align: left;
  width: 100%;
  min-height: 44px;
  padding: 4px 0;
  cursor: pointer;
}
.dues {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
}
.when {
  font-weight: 700;
  font-size: 16px;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 10px;
}
dd {
  text-align: right;
}
.free {
  margin-top: 12px;
}
.files {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
@media (max-width: 1179px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
