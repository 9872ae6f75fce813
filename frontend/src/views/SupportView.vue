<script setup lang="ts">
/**
 * What carries the load, on which points, and whether it may stay overnight; and what to make safe when work
 * stops at once.
 */
import { computed, ref, watch } from 'vue'
import { client, type Entry, got, sentence, type SupportDesk } from '@/api/client'
import { putIn, saidAgain, stands } from '@/composables/loads'
import { pressedTwice, useKeys } from '@/composables/keys'
import { readOut } from '@/composables/speech'
import { clockOf } from '@/composables/time'
import SupportPlan from '@/drawings/SupportPlan.vue'
import SupportSide from '@/drawings/SupportSide.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { useServer } from '@/composables/server'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const desk = ref<SupportDesk | null>(null)
const { problem, served } = useServer()
const point = ref<string | null>(null)
const pointField = ref<HTMLSelectElement | null>(null)
const kind = ref('stand')
const ground = ref('unknown') // not pressed, it is what the bay was said to have
const padding = ref('')
const hurt = ref('')
const nearMiss = ref('')
const asking = ref(false)
const KINDS: Record<string, string> = {
  stand: 'stand',
  jack: 'jack',
  hook: 'hook',
  cradle: 'cradle',
  wheels: 'own wheel',
  cart: 'cart',
  ramp: 'ramp',
  timber: 'timber',
}
const GROUND: Record<string, string> = { hard: 'hard, level', soft: 'soft', slope: 'slope' }
const WHY = [
  'a storm',
  'somebody is hurt',
  'a call',
  'the light goes',
  'a part is missing',
  'the evening is over',
]
const GOING: Record<string, string> = { up: 'up', down: 'down', in: 'in', out: 'out' }
const CAN = ['rolls', 'steers', 'brakes', 'starts'] as const
const map = computed(() => desk.value?.map)
const secure = computed(() => desk.value?.secure)
const todo = computed(() => (secure.value?.items ?? []).filter((i) => !i.done))
const first = computed(() => todo.value.find((i) => i.own) ?? todo.value.at(0))
const going = ref('')
const place = computed(() => {
  const all = secure.value?.items.length ?? 0
  return `${all - todo.value.length + 1} of ${all}`
})
const stoppedLine = computed(() => {
  const now = secure.value
  if (!now) return ''
  const load = now.going ? `, load ${now.going}` : ''
  return `Stopped at ${clockOf(now.since, shop.zone)}, ${now.why}${load}`
})
const title = computed(() => {
  if (!secure.value || !map.value) return ''
  if (secure.value.stopped)
    return first.value
      ? `Secure now, ${place.value}: ${first.value.what}`
      : secure.value.made_safe
        ? 'Made safe. Hang the card on it'
        : `Not safe: ${secure.value.not_safe}`
  return map.value.title
})
let asked = 0
async function load() {
  const mine = ++asked
  await served(
    async () => {
      const found = (await got<unknown>(
        client.GET('/api/builds/{build}/support', { params: { path: { build: props.build } } }),
      )) as SupportDesk
      if (mine === asked) {
        desk.value = found
        problem.value = ''
      }
    },
    () => mine === asked,
  )
}
watch([() => props.build, () => book.frame?.head], () => void load(), { immediate: true })

async function write(entry: Entry): Promise<boolean> {
  problem.value = ''
  try {
    return await book.write(entry)
  } catch (error) {
    problem.value = sentence(error)
    return false
  }
}
async function put() {
  const at = map.value?.points.find((p) => p.name === point.value)
  if (!at) return
  if (
    (await write(
      putIn({
        support_kind: kind.value as 'stand',
        carries: at.body,
        point: at.name,
        padding: padding.value,
        ground: ground.value as 'hard',
      }),
    )) &&
    point.value === at.name
  )
    point.value = null // not the one chosen meanwhile
}
const away = (s: SupportDesk['map']['supports'][number]) => write(saidAgain(s, true))
/** Said again of one that stands there: the rest carries it. */
function rest(body: string) {
  const s = map.value?.supports.find((x) => x.carries === body)
  if (s) void write(saidAgain(s, false))
}
async function stop(why: string) {
  asking.value = false
  await write({
    kind: 'stopped',
    why,
    step: secure.value?.step ?? null,
    going: (going.value || null) as 'up' | null,
    hurt: hurt.value.trim() || null,
    near_miss: nearMiss.value.trim() || null,
    people_left: null,
  })
  hurt.value = nearMiss.value = going.value = ''
}
const made = (item: { key: string; what: string }) =>
  write({ kind: 'secured', item: item.key, what: item.what, step: secure.value?.step ?? null })
const goOn = () => write({ kind: 'gone on', note: null })
const around = (id: string) => {
  const now = desk.value?.around ?? []
  void write({
    kind: 'surroundings',
    around: (now.includes(id) ? now.filter((x) => x !== id) : [...now, id]) as 'wind'[],
  })
}
const say = (key: (typeof CAN)[number], value: boolean) => write(stands({ [key]: value }))
const said = ref<Record<string, string>>({})
const unworded = computed(() => (desk.value?.spoken ?? []).filter((n) => n.words === null))
const word = (entry: string) => write({ kind: 'worded', spoken: entry, text: said.value[entry] })
const bay = ref('')
const setBay = () => bay.value.trim() && write(stands({ bay: bay.value.trim() }))
async function primary() {
  if (!secure.value?.stopped) {
    asking.value = true
    return
  }
  if (first.value?.own) return made(first.value)
  if (!first.value) await goOn()
}
const words = computed(() =>
  !secure.value?.stopped
    ? 'Secure now'
    : first.value?.own
      ? 'It is so'
      : first.value
        ? 'Say what carries it'
        : 'Go on with the work',
)
/** The whole vehicle on its wheels, nothing hangs: said once. */
async function onWheels() {
  for (const at of ['front left wheel', 'front right wheel', 'rear left wheel', 'rear right wheel']) {
    const wheel = { support_kind: 'wheels', carries: 'vehicle', point: at, ground: 'unknown' } as const
    if (!(await write(putIn(wheel)))) return
  }
}
/** Of one that a step only counted: the hand says at which point it stands. */
function where(s: SupportDesk['map']['supports'][number]) {
  kind.value = s.kind
  pointField.value?.focus()
}
const standsOn = (id: string) => write(stands({ ground: id as 'hard' }))
const press = () => {
  if (!pressedTwice()) void primary()
}
const print = () => window.print()
const speak = () => readOut([title.value, ...todo.value.map((i) => i.what)].join('. '))
useKeys(() => ({
  ' ': primary,
  PageDown: primary,
  p: print,
  r: speak,
  PageUp: speak,
  w: () => {
    asking.value = true
  },
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="load map">
    <div v-if="desk && map && secure" class="load">
      <header>
        <h1 class="t28" :class="{ outside: secure.stopped && first }">{{ title }}</h1>
        <p class="t20 sub">
          {{ secure.stopped ? stoppedLine : map.line }}
        </p>
        <p v-if="secure.hurt" class="block">
          <b>Hurt:</b> {{ secure.hurt }}. An ambulance first, then the list.
        </p>
      </header>
      <div class="work">
        <SupportSide :map="map" /><SupportPlan :map="map" :chosen="point" @choose="point = $event" />
        <ol class="list">
          <li v-for="(s, k) in map.supports" :key="s.id" :class="{ bad: !s.stays }">
            <b class="t20">{{ k + 1 }}</b><span
              >{{ s.kind_words }} at {{ s.point }}{{ s.padding ? `, ${s.padding}` : ''
              }}<small
                >{{ s.carries }}, {{ s.because
                }}{{ s.x === null ? '; not in the drawing, nobody said at which point' : '' }}</small
              ></span
            ><button v-if="s.x === null" type="button" class="btn small" @click="where(s)">Where?</button
            ><button type="button" class="btn small" @click="away(s)">Away</button>
          </li>
        </ol>
        <p v-if="!map.known && !map.bodies.length" class="block">
          Nobody said yet what carries it.
          <button type="button" class="btn small" @click="onWheels">
            The vehicle stands on its wheels, nothing hangs
          </button>
        </p>
        <p v-for="body in map.taken" :key="body" class="block">
          A support was taken from the {{ body }}. Does the rest carry it?
          <button type="button" class="btn small" @click="rest(body)">It is carried by the rest</button>
        </p>
        <p v-if="map.ground_asked" class="block ground">
          <b>What ground has this bay?</b>
          {{ ' '
          }}<span class="chips"
            ><button
              v-for="(name, id) in GROUND"
              :key="id"
              type="button"
              class="btn small"
              @click="standsOn(id)"
            >
              {{ name }}
            </button></span
          >
        </p>
        <form class="put" aria-label="Put a support in" @submit.prevent="put">
          <label class="field"
            ><span>at which point</span
            ><select ref="pointField" v-model="point" class="entry" name="point">
              <option :value="null">choose, or touch the drawing</option>
              <option v-for="p in map.points" :key="p.id" :value="p.name" :disabled="p.forbidden !== null">
                {{ p.name }}{{ p.forbidden ? `: never, ${p.forbidden}` : '' }}
              </option>
            </select></label
          >
          <div class="chips" role="group" aria-label="What stands there">
            <button
              v-for="(name, id) in KINDS"
              :key="id"
              type="button"
              class="btn small"
              :aria-pressed="kind === id"
              @click="kind = id"
            >
              {{ name }}
            </button>
          </div>
          <div class="chips" role="group" aria-label="Ground">
            <button
              v-for="(name, id) in GROUND"
              :key="id"
              type="button"
              class="btn small"
              :aria-pressed="ground === id"
              @click="ground = ground === id ? 'unknown' : id"
            >
              {{ name }}</button><input
              v-model="padding"
              class="entry pad"
              name="padding"
              maxlength="80"
              placeholder="padding"
              aria-label="padding"
            />
          </div>
          <button type="submit" class="btn" :disabled="!point">It stands there</button>
        </form>
        <section v-if="unworded.length" class="spoken" aria-label="Spoken, not in words yet">
          <h2 class="t20">Spoken, not in words yet</h2>
          <form v-for="n in unworded" :key="n.entry" @submit.prevent="word(n.entry)">
            <p>
              <b>{{ n.number }} {{ n.title }}</b>
              {{ ' ' }}<span class="mut">{{ clockOf(n.time, shop.zone) }}, {{ n.who }}</span>
            </p>
            <audio
              controls
              preload="none"
              :src="`/api/sounds/${n.sound}`"
              :aria-label="`what was said at ${n.number}`"
            /><input
              v-model="said[n.entry]"
              class="entry"
              :name="`say-${n.entry}`"
              maxlength="900"
              autocomplete="off"
              placeholder="what it says"
              :aria-label="`what was said at ${n.number}, in words`"
            /><button type="submit" class="btn small" :disabled="(said[n.entry] ?? '').trim().length < 3">
              In words
            </button>
          </form>
        </section>
        <h2 class="t24">
          Fit to stand overnight?
          <span v-if="map.bodies.length" :class="map.stays ? 'in' : 'outside'">{{
            map.stays
              ? 'yes'
              : `no, ${map.bodies.filter((b) => !b.stays).length} of ${map.bodies.length} would move`
          }}</span>
        </h2>
        <ul class="bodies">
          <li v-for="b in map.bodies" :key="b.body">
            <VerdictMark :verdict="b.stays ? 'inside' : 'outside'" :side="null" :size="9" /><span
              ><b class="t20"
                >{{ b.name }}
                <span :class="b.stays ? 'in' : 'outside'">{{ b.stays ? 'stays' : 'no' }}</span></b
              ><small>{{ b.because }}</small></span
            >
          </li>
        </ul>
        <section class="vehicle" aria-label="The vehicle">
          <h2 class="t20">The vehicle</h2>
          <p v-if="desk.vehicle.clash" class="block">{{ desk.vehicle.clash }}</p>
          <div class="chips">
            <span v-for="c in CAN" :key="c" class="pairs"
              ><b>{{ c }}</b
              ><button
                type="button"
                class="btn small"
                :aria-pressed="desk.vehicle[c] === true"
                :aria-label="`${c}: yes`"
                @click="say(c, true)"
              >
                yes</button
              ><button
                type="button"
                class="btn small"
                :aria-pressed="desk.vehicle[c] === false"
                :aria-label="`${c}: no`"
                @click="say(c, false)"
              >
                no
              </button></span
            >
          </div>
          <form class="bay" @submit.prevent="setBay">
            <label class="field"
              ><span>bay or lift{{ desk.vehicle.bay ? `, now ${desk.vehicle.bay}` : '' }}</span
              ><input v-model="bay" class="entry" name="bay" maxlength="40" /></label
            ><button type="submit" class="btn small" :disabled="!bay.trim()">Stands there</button>
          </form>
        </section>
        <section class="around" aria-label="Around the bench">
          <h2 class="t20">Around the bench</h2>
          <div class="chips">
            <button
              v-for="c in desk.conditions"
              :key="c.id"
              type="button"
              class="btn small"
              :aria-pressed="desk.around.includes(c.id)"
              @click="around(c.id)"
            >
              {{ c.name }}
            </button>
          </div>
        </section>
      </div>
      <aside class="side">
        <div class="figure" role="region" aria-label="The card and the list" tabindex="0">
          <template v-if="secure.stopped"
            ><h2 class="t20">What to make safe</h2>
            <ol class="items">
              <li v-for="i in secure.items" :key="i.key" :class="{ done: i.done }">
                <VerdictMark :verdict="i.done ? 'inside' : 'not_read'" :side="null" :size="9" /><span
                  >{{ i.what }}<small>{{ i.because }}</small></span
                ><button
                  v-if="!i.done && i.own && i.key !== first?.key"
                  type="button"
                  class="btn small"
                  :aria-label="`${i.what}: it is so`"
                  @click="made(i)"
                >
                  So
                </button>
              </li>
            </ol>
            <p v-for="l in secure.leave" :key="l" class="t16">
              <b>{{ l }}</b>
            </p></template
          >
          <template v-else-if="asking"
            ><h2 class="t20">Why does it stop?</h2>
            <div class="chips" role="group" aria-label="Which way the load was going">
              <span class="t16 mut">load was going</span
              ><button
                v-for="(name, id) in GOING"
                :key="id"
                type="button"
                class="btn small"
                :aria-pressed="going === id"
                @click="going = going === id ? '' : id"
              >
                {{ name }}
              </button>
            </div>
            <label class="field"
              ><span>who is hurt, if anybody</span
              ><input v-model="hurt" class="entry" name="hurt" maxlength="200" /></label
            ><label class="field"
              ><span>what nearly happened</span
              ><input v-model="nearMiss" class="entry" name="near" maxlength="200"
            /></label>
            <div class="chips whys">
              <button v-for="w in WHY" :key="w" type="button" class="btn" @click="stop(w)">{{ w }}</button>
            </div></template
          >
          <template v-else
            ><h2 class="t20">If it stops now, make safe</h2>
            <ol class="items">
              <li v-for="i in secure.items" :key="i.key" :class="{ done: i.done }">
                <VerdictMark :verdict="i.done ? 'inside' : 'not_read'" :side="null" :size="9" /><span
                  >{{ i.what }}<small>{{ i.because }}</small></span
                >
              </li>
            </ol>
            <p v-for="l in secure.leave" :key="l" class="t16">
              <b>{{ l }}</b>
            </p>
            <h2 class="t20">The card to come back to</h2>
            <ul class="card">
              <li v-for="l in secure.card" :key="l">{{ l }}</li>
            </ul></template
          >
        </div>
        <div class="acts">
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
          <button type="button" class="btn primary" :class="{ long: words.length > 12 }" @click="press">
            {{ words }}<kbd>Space or right pedal</kbd>
          </button>
          <div class="two">
            <button type="button" class="btn second" @click="speak">Read it out<kbd>R</kbd></button
            ><button type="button" class="btn second" @click="print">Print the card<kbd>P</kbd></button>
          </div>
        </div>
      </aside>
      <section class="print" aria-hidden="true">
        <p class="t28">
          {{ book.card?.name }}: {{ secure.stopped ? `stopped, ${secure.why}` : 'where it stands' }}
        </p>
        <ul>
          <li v-for="i in secure.items" :key="i.key">☐ {{ i.what }}, {{ i.because }}</li>
        </ul>
        <p class="t24">Come back to</p>
        <ul>
          <li v-for="l in secure.card" :key="l">{{ l }}</li>
        </ul>
        <p>
          The vehicle maker's manual, local codes and licensed practice go first. Copy: the log is the record.
        </p>
      </section>
    </div>
    <p v-else-if="problem" class="block" role="alert">{{ problem }}</p>
  </WorkFrame>
</template>

<style scoped>
.spoken form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 8px 0;
}
.spoken audio {
  height: 44px;
  max-width: 260px;
}
.load {
  display: grid;
  grid-template: 'head side' auto 'work side' 1fr / minmax(0, 640px) 308px;
  column-gap: 32px;
  justify-content: space-between;
}
header {
  grid-area: head;
}
.work {
  grid-area: work;
  display: grid;
  gap: 10px;
  align-content: start;
  min-width: 0;
}
.side {
  grid-area: side;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.sub {
  font-weight: 460;
}
.figure {
  min-height: 330px;
  max-height: 420px;
  overflow: auto;
  display: grid;
  gap: 8px;
  align-content: start;
}
.acts {
  display: grid;
  gap: 10px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.two .btn {
  font-size: 18px;
}
.list li {
  display: grid;
  grid-template-columns: 30px 1fr auto auto;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
.list .btn:last-child {
  grid-column: 4;
}
.bad b {
  color: var(--out);
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
.bad small {
  color: var(--out);
}
.put {
  display: grid;
  gap: 8px;
  border: 2px solid var(--line);
  padding: 10px;
}
.pad {
  width: 150px;
  flex: 1 1 120px;
}
.bodies {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 12px;
}
.bodies li {
  display: flex;
  gap: 10px;
  border-top: 3px solid var(--line);
  padding-top: 6px;
}
.pairs {
  display: flex;
  gap: 4px;
  align-items: center;
  margin-right: 10px;
}
.bay {
  display: flex;
  gap: 8px;
  align-items: flex-end;
  margin-top: 8px;
}
.items li {
  display: grid;
  grid-template-columns: 26px 1fr auto;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.items .done {
  color: var(--mut);
}
.card li {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
  font-size: 16px;
}
.whys .btn {
  font-size: 18px;
}
.print {
  display: none;
}
@media (max-width: 1100px) and (min-width: 960px) {
  .load {
    grid-template-columns: minmax(0, 1fr) 308px;
  }
}
@media (max-width: 959px) {
  .load {
    display: flex;
    flex-direction: column;
  }
  .side {
    order: 1;
  }
  .work {
    order: 2;
  }
  .figure {
    min-height: 0;
  }
}
@media print {
  .load > *:not(.print) {
    display: none;
  }
  .print {
    display: block;
    color: #000;
    font-size: 16px;
  }
}
</style>
