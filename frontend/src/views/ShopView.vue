<script setup lang="ts">
/** The Shop: what is next, each build as a tape; empty, it offers three acts. */
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { useNow } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { clockOf, dayOf } from '@/composables/time'
import BuildTape from '@/drawings/BuildTape.vue'
import LineText from '@/shell/LineText.vue'
import ClosingDialog from '@/shell/ClosingDialog.vue'
import ComesDue from '@/shell/ComesDue.vue'
import MarkLogo from '@/shell/MarkLogo.vue'
import ArchiveButton from '@/shell/ArchiveButton.vue'
import TonightBlock from '@/shell/TonightBlock.vue'
import ShopDialog from '@/shell/ShopDialog.vue'
import { useCalendar } from '@/stores/calendar'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import { capital } from '@/words'

const shop = useShop()
const session = useSession()
const router = useRouter()
const closing = ref<InstanceType<typeof ClosingDialog> | null>(null)
const described = ref<InstanceType<typeof ShopDialog> | null>(null)
const now = useNow({ interval: 20000 })
const builds = computed(() => shop.view?.builds ?? [])
const first = computed(() => builds.value[0] ?? null)
const current = (card: Schemas['BuildCard']) => card.frame.steps.find((s) => s.id === card.frame.current)
const newest = computed(() => first.value?.frame.written.at(-1) ?? null)

const calendar = useCalendar()
const tonight = ref<InstanceType<typeof TonightBlock> | null>(null)
const row = (build: string) => calendar.tonight?.vehicles.find((v) => v.build === build)
const waits = (build: string) => row(build)?.waits ?? ''
const costs = (build: string) => {
  const v = row(build)
  if (!v || !(v.sure || v.worst)) return ''
  const bare = v.bare ? `, ${v.bare} without a price` : ''
  return `${shop.money(v.sure.toFixed(0))}, at worst ${shop.money(v.worst.toFixed(0))}${bare}`
}
const ends = (build: string) => {
  const e = calendar.evenings?.plan?.ends.find((x) => x.build === build)
  return e ? `Done ${e.five}, 9 in 10 by ${e.nine}` : ''
}

onMounted(() => {
  void shop.load()
  void calendar.loadTonight()
  void calendar.loadEvenings()
})
onUnmounted(calendar.leave)
async function demo() {
  await got(client.POST('/api/demo'))
    .then(shop.load)
    .catch((error: Error) => {
      shop.problem = error.message
    })
}
useKeys(() => ({
  ' ': () => tonight.value?.begin(0),
  PageDown: () => tonight.value?.begin(0),
  2: () => tonight.value?.begin(1),
  3: () => tonight.value?.begin(2),
  4: () => tonight.value?.begin(3),
  c: () => tonight.value?.change(),
  w: () => tonight.value?.back(),
  e: () => void router.push('/evenings'),
  p: () => void window.open('/api/today.pdf', '_blank'),
  x: () => closing.value?.ask(),
  b: () => void router.push('/box'),
  n: () => void router.push('/new'),
  t: () => void router.push('/tools'),
  u: () => void router.push('/sums'),
  r: () => void router.push('/rehearsal'),
  h: () => void router.push('/phones'),
  d: session.toggleTheme,
}))
</script>

<template>
  <div class="shop">
    <section class="top" aria-label="Hollet">
      <MarkLogo /><span class="place"
        ><button type="button" class="name" @click="described?.ask()">{{ shop.view?.name }}</button
        >{{ shop.view && !shop.view.currency ? ', which currency?' : '' }}<br /><span class="mut t16"
          >{{ dayOf(now.toISOString(), shop.zone) }} {{ clockOf(now.toISOString(), shop.zone) }}</span
        ></span
      >
      <nav aria-label="Shop">
        <RouterLink class="btn small" to="/evenings">Evenings <kbd>E</kbd></RouterLink
        ><RouterLink class="btn small" to="/box">Box <kbd>B</kbd></RouterLink
        ><RouterLink class="btn small" to="/tools">Tools <kbd>T</kbd></RouterLink
        ><RouterLink class="btn small" to="/sums">Sums <kbd>U</kbd></RouterLink
        ><RouterLink class="btn small" to="/rehearsal">Rehearsal <kbd>R</kbd></RouterLink
        ><RouterLink class="btn small" to="/new">New build <kbd>N</kbd></RouterLink
        ><button type="button" class="btn small" @click="session.asked = true">
          {{ session.who || 'Who?' }}
        </button>
      </nav>
    </section>
    <main>
      <section v-if="shop.view?.changed.length" class="block" role="alert">
        <p v-for="words in shop.view.changed" :key="words">
          <b>{{ capital(words) }}.</b>
        </p>
        <p>
          Trust no verdict on it until you have looked: “hollet verify” lists it, “hollet seal” takes it as it
          is.
        </p>
      </section>
      <p v-for="words in shop.view?.unreadable ?? []" :key="words" class="block" role="alert">{{ words }}</p>
      <div v-if="shop.problem" class="block" role="alert">
        <p class="t24">{{ shop.problem }}</p>
        <button type="button" class="btn small" @click="shop.load()">Look again</button>
      </div>
      <section v-if="shop.view && !builds.length" class="empty">
        <h1 class="t28">No build yet</h1>
        <p class="t20">
          Hollet holds the torque values, the sequences and the clearances of a job, and remembers what is
          loose.
        </p>
        <div class="three">
          <RouterLink class="btn primary long" to="/new">New build from a sheet<kbd>N</kbd></RouterLink
          ><ArchiveButton large /><button type="button" class="btn second big" @click="demo">
            Look at the demo
          </button>
        </div>
      </section>
      <template v-else-if="first && (calendar.tonight || calendar.problem)">
        <TonightBlock ref="tonight" @close="closing?.ask()" />
        <section class="builds">
          <ComesDue />
          <ol class="heads t16" aria-hidden="true">
            <li v-for="stage in first.frame.stages" :key="stage.id">{{ stage.name }}</li>
          </ol>
          <article v-for="card in builds" :key="card.id">
            <div class="title">
              <h2 class="t24">
                <RouterLink :to="{ name: 'build', params: { build: card.id } }">{{ card.name }}</RouterLink>
              </h2>
              <span
                ><b class="count" :class="{ none: !card.frame.left_open.length }">{{
                  card.frame.left_open.length
                }}</b>
                {{ ' ' }}left open</span
              >
              <span class="at">{{ current(card)?.number }} {{ current(card)?.short }}</span>
            </div>
            <BuildTape
              :stages="card.frame.stages"
              :strands="card.frame.left_open"
              :current="current(card)?.stage ?? 'plan'"
            />
            <p class="stands t16">
              <span v-if="card.bay"
                ><b>{{ card.bay }}</b></span
              ><span v-for="c in card.can" :key="c" :class="{ mut: c.startsWith('does not') }">{{ c }}</span
              ><span v-if="card.frame.carried && !card.frame.carried_stays" class="outside"
                >{{ card.frame.carried }}: may not stay so overnight</span
              >
            </p>
            <p v-if="waits(card.id)" class="waits"><b>Waits for</b> {{ waits(card.id) }}</p>
            <p class="costs t16">
              <RouterLink :to="{ name: 'parts', params: { build: card.id } }">{{
                costs(card.id) ? `Costs ${costs(card.id)}` : 'Parts and orders'
              }}</RouterLink><span v-if="ends(card.id)">{{ ends(card.id) }}</span>
            </p>
            <p v-if="card.broken" class="block t16" role="alert">
              Broken at line {{ card.broken }} of the log: read only, nothing behind it counts.
              <RouterLink :to="{ name: 'log', params: { build: card.id } }">Log</RouterLink>
            </p>
            <p v-if="card.clash" class="block t16">{{ card.clash }}</p>
            <p v-if="card.frame.stopped" class="block t16">
              Work is stopped.
              <RouterLink :to="{ name: 'support', params: { build: card.id } }">What to make safe</RouterLink>
            </p>
          </article>
        </section>
      </template>
    </main>
    <ShopDialog ref="described" /><ClosingDialog ref="closing" />
    <footer v-if="shop.problem || (shop.view && (!builds.length || calendar.tonight || calendar.problem))">
      <span class="b">Written</span
      ><span v-if="newest"
        ><time class="mut">{{ clockOf(newest.time, shop.zone) }}</time> <LineText :line="newest"
      /></span>
      <span class="acts"
        ><a class="btn small" href="/api/today.pdf" target="_blank">Card for today <kbd>P</kbd></a
        ><RouterLink class="btn small" to="/phones">Phones <kbd>H</kbd></RouterLink
        ><ArchiveButton /><button type="button" class="btn small" @click="session.toggleTheme">
          {{ session.dark ? 'Light' : 'Dark' }} <kbd>D</kbd>
        </button></span
      >
    </footer>
  </div>
</template>

<style scoped>
.shop {
  min-height: 100dvh;
  display: grid;
  grid-template-rows: 76px 1fr auto;
}
.top .name {
  border: 0;
  background: none;
  padding: 0;
  font: inherit;
  text-decoration: underline dotted;
  cursor: pointer;
  color: inherit;
  display: inline-block;
  min-height: 44px;
  vertical-align: top;
}
.top .place {
  line-height: 1.2;
  white-space: nowrap;
  min-width: 220px;
  min-height: 66px;
}
.top {
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 20px;
}
nav {
  margin-left: auto;
  display: flex;
  gap: 8px;
}
nav :deep(.btn) {
  padding: 6px 8px;
  gap: 5px;
  white-space: nowrap;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  border-bottom: 3px solid var(--line);
  padding: 18px 20px;
  display: grid;
  grid-template-columns: 580px minmax(0, 1fr);
  gap: 24px;
  align-content: start;
}
.block,
.empty {
  grid-column: 1 / -1;
}
.go {
  width: 100%;
  align-items: flex-start;
  text-align: left;
  margin: 12px 0;
  padding: 16px 20px;
  gap: 10px;
}
.go .big {
  font-size: 44px;
  font-weight: 820;
  line-height: 1.05;
}
.go kbd {
  align-self: flex-end;
}
.line {
  font-weight: 460;
  margin-bottom: 12px;
}
.other {
  display: flex;
  gap: 16px;
  align-items: center;
  min-height: 74px;
  width: 100%;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  text-align: left;
  cursor: pointer;
}
.other small {
  display: block;
  font-size: 18px;
}
.builds {
  border-left: 2px solid var(--hair);
  padding-left: 22px;
}
.heads {
  display: grid;
  grid-template-columns: repeat(9, 1fr);
  border-bottom: 2px solid var(--line);
  padding-bottom: 4px;
  align-items: end;
  line-height: 1.1;
}
article {
  padding: 4px 0 8px;
  border-bottom: 2px solid var(--line);
}
.title {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 14px;
  margin-bottom: 2px;
  flex-wrap: wrap;
}
.title a {
  text-decoration: none;
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
.stands {
  display: flex;
  gap: 12px;
  flex-wrap: wrap;
  margin-top: 6px;
}
.nowrap {
  white-space: nowrap;
}
.costs {
  display: flex;
  justify-content: space-between;
  gap: 4px 20px;
  flex-wrap: wrap;
}
.costs a {
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
}
.at {
  margin-left: auto;
}
footer .acts {
  margin-left: auto;
  display: flex;
  gap: 8px;
}
.count {
  background: var(--plate);
  color: var(--onplate);
  min-width: 28px;
  text-align: center;
  padding: 1px 6px;
}
.count.none {
  background: none;
  color: var(--ink);
  outline: 2px solid var(--line);
}
footer {
  display: flex;
  gap: 20px;
  padding: 14px 20px;
  min-height: 60px;
}
.empty {
  max-width: 900px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 14px;
  margin-top: 20px;
}
.three .big,
.three :deep(.big) {
  min-height: 108px;
  font-size: 24px;
}
@media (max-width: 1179px) {
  main {
    grid-template-columns: minmax(0, 1fr);
  }
  .builds {
    border: 0;
    padding: 0;
  }
  .top {
    flex-wrap: wrap;
    height: auto;
    padding: 10px 20px;
  }
  .shop {
    grid-template-rows: auto 1fr auto;
  }
  nav {
    margin: 0;
    flex-wrap: wrap;
  }
}
@media (max-width: 700px) {
  .three {
    grid-template-columns: 1fr;
  }
}
</style>
