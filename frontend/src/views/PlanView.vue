<script setup lang="ts">
/**
 * The plan desk: ways, steps with their reasons, last chances, what is still to hunt; every change shows its
 * difference first.
 */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type PlanAct, type PlanRow, type Schemas, sentence } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { counted, hours } from '@/words'
import HoursRuler from '@/drawings/HoursRuler.vue'
import ReasonSign from '@/drawings/ReasonSign.vue'
import SchoolSketch from '@/drawings/SchoolSketch.vue'
import DifferenceDialog from '@/shell/DifferenceDialog.vue'
import LastChanceBlock from '@/shell/LastChanceBlock.vue'
import OutsetDialog from '@/shell/OutsetDialog.vue'
import PutInDialog from '@/shell/PutInDialog.vue'
import SheetsDialog from '@/shell/SheetsDialog.vue'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'

type School = Schemas['SchoolView']
const props = defineProps<{ build: string }>()
const book = useBook()
const plan = usePlan()
const session = useSession()
const shop = useShop()
const router = useRouter()
const difference = ref<InstanceType<typeof DifferenceDialog> | null>(null)
const outset = ref<InstanceType<typeof OutsetDialog> | null>(null)
const putIn = ref<InstanceType<typeof PutInDialog> | null>(null)
const stage = ref<string | null>(null)
const chosen = ref<string | null>(null)
const school = ref<School | null>(null)
const wayId = ref('')
const open = ref<'' | 'facts' | 'extras' | 'out'>('')
const again = ref(0) // a choice that was looked at and left shows what stands
const dragged = ref<string | null>(null)
const over = ref<string | null>(null)
const waitsFor = ref('')
const because = ref('')
const kind = ref('access closes')
const KINDS = ['access closes', 'safety', 'setting kept', 'contamination', 'load needed', 'drying', 'spill']

const view = computed(() => (plan.build === props.build ? plan.view : null))
const inHand = computed(
  () => view.value?.rows.find((r) => r.id === book.frame?.current)?.stage ?? 'take_down',
)
const shownStage = computed({
  get: () => stage.value ?? (inHand.value === 'plan' ? 'take_down' : inHand.value),
  set: (id) => (stage.value = id),
})
const rows = computed(() =>
  (view.value?.rows ?? []).filter((r) => shownStage.value === 'all' || r.stage === shownStage.value),
)
const row = computed(() => view.value?.rows.find((r) => r.id === chosen.value) ?? null)
const undecided = computed(() => view.value?.schools.filter((s) => !s.chosen) ?? [])
const shownSchool = computed(() => undecided.value[0] ?? view.value?.schools[0] ?? null)
const gapsOpen = ref(false)
const undone = computed(() => {
  const gaps = view.value?.gaps.length ?? 0
  const moved = view.value?.combined.length ?? 0
  return [
    gaps ? `${counted(gaps, 'thing')} left undone by the plan` : '',
    moved ? `${counted(moved, 'step')} moved as the sheets were put together` : '',
  ]
    .filter(Boolean)
    .join(', ')
})
const missing = computed(() => {
  const at = view.value?.rows.find((r) => r.chances.some((c) => c.unplanned))
  return at ? { at, chance: at.chances.find((c) => c.unplanned)! } : null
})
const unknown = computed(() => view.value?.facts.filter((f) => f.value === null).length ?? 0)
const unanswered = computed(
  () =>
    (view.value?.extras.filter((x) => x.wanted === null).length ?? 0) +
    (view.value?.agreements.filter((a) => !a.agrees).length ?? 0),
)
const clash = computed(() => view.value?.agreements.find((a) => a.clashes) ?? null)
const way = computed(() => school.value?.ways.find((w) => w.id === wayId.value) ?? null)

watch(
  () => [props.build, book.frame?.head],
  () => void plan.load(props.build),
  { immediate: true },
)
function reasonLine(r: PlanRow): { text: string; kind: string } | null {
  if (r.before.length)
    return { text: `before ${r.before[0].number}, because ${r.before[0].because}`, kind: r.before[0].kind }
  if (r.after.length)
    return { text: `after ${r.after[0].number}, because ${r.after[0].because}`, kind: r.after[0].kind }
  return null
}
const countOf = (id: string) => view.value?.rows.filter((r) => r.stage === id).length ?? 0
const stages = computed(() => [
  ...Object.entries(view.value?.stages ?? {}).map(([value, name]) => ({
    value,
    label: `${name} ${countOf(value)}`,
  })),
  { value: 'all', label: `All ${view.value?.rows.length ?? 0}` },
])
const propose = (acts: PlanAct[], withReason = false) => void difference.value?.propose(acts, withReason)
function openWay(s: School, id: string) {
  school.value = s
  wayId.value = id
}
function takeWay() {
  const s = school.value
  if (!s) return
  school.value = null
  propose([{ act: 'way', school: s.id, way: wayId.value }], true)
}
function fact(id: string, value: string) {
  propose([{ act: 'fact', fact: id, value: value || null }])
}
function extra(id: string, wanted: boolean) {
  propose([{ act: 'extra', extra: id, wanted }], true)
}
function part(id: string, option: string) {
  propose([{ act: 'part', part: id, option: option || null }])
}
function move(r: PlanRow, by: -1 | 1) {
  const own = (view.value?.rows ?? []).filter((x) => x.stage === r.stage)
  const at = own.findIndex((x) => x.id === r.id)
  const to = at + by
  if (to < 0 || to >= own.length) return
  const behind = by > 0 ? own[to].id : (own[to - 1]?.id ?? null)
  propose([{ act: 'move', step: r.id, behind }])
}
function drop(target: PlanRow) {
  const id = dragged.value
  dragged.value = over.value = null
  if (!id || id === target.id) return
  propose([{ act: 'move', step: id, behind: target.id }])
}
const name = ref('')
const about = ref('')
const vehicleProblem = ref('')
watch(
  () => [open.value, book.card?.about, book.card?.vehicle],
  () => {
    name.value = book.card?.vehicle ?? ''
    about.value = book.card?.about ?? ''
    vehicleProblem.value = ''
  },
)
async function describe() {
  if (!book.card) return
  vehicleProblem.value = ''
  try {
    await got(
      client.POST('/api/builds/{build}/vehicle', {
        params: { path: { build: props.build } },
        body: { who: await session.whoIsIt(), name: name.value, about: about.value, was: book.card.about },
      }),
    )
    await book.reload()
  } catch (error) {
    vehicleProblem.value = sentence(error)
  }
}
const who = ref('')
function comes(id: string) {
  propose([{ act: 'people', step: id, who: who.value.trim() }])
  who.value = ''
}
function giveReason() {
  if (!row.value || !waitsFor.value || !because.value.trim()) return
  propose([
    {
      act: 'reason',
      step: row.value.id,
      waits_for: waitsFor.value,
      because: because.value.trim(),
      kind: kind.value as 'safety',
    },
  ])
}
let closedAt = 0 // the press of Esc that closes the drawer does not leave the desk too
function pick(id: string | null) {
  if (!id) closedAt = Date.now()
  chosen.value = id
  waitsFor.value = because.value = ''
}
function escape() {
  if (chosen.value) pick(null)
  else if (Date.now() - closedAt > 400) void router.push({ name: 'build', params: { build: props.build } })
}
function step(by: number) {
  const at = rows.value.findIndex((r) => r.id === chosen.value)
  const next = rows.value[Math.max(0, Math.min(rows.value.length - 1, at + by))]
  if (!next) return
  pick(next.id)
  void nextTick(() => document.getElementById(`row-${next.id}`)?.scrollIntoView({ block: 'nearest' }))
}
function rowKey(event: KeyboardEvent, r: PlanRow) {
  if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
    event.preventDefault()
    move(r, event.key === 'ArrowUp' ? -1 : 1)
  } else if (event.key === 'Enter' || event.key === ' ') {
    event.preventDefault()
    pick(r.id === chosen.value ? null : r.id)
  }
}
function primary() {
  if (missing.value) putIn.value?.ask({ closing: missing.value.at, chance: missing.value.chance })
  else if (undecided.value.length) openWay(undecided.value[0], undecided.value[0].pick)
}
useKeys(() => ({
  ' ': primary,
  PageDown: primary,
  ArrowDown: () => step(1),
  ArrowUp: () => step(-1),
  i: () => putIn.value?.ask({ behind: row.value ?? rows.value[rows.value.length - 1] }),
  e: () => outset.value?.ask(),
  h: () => void router.push({ name: 'hunt', params: { build: props.build } }),
  1: () => shownSchool.value?.ways[0] && openWay(shownSchool.value, shownSchool.value.ways[0].id),
  2: () => shownSchool.value?.ways[1] && openWay(shownSchool.value, shownSchool.value.ways[1].id),
  3: () => shownSchool.value?.ways[2] && openWay(shownSchool.value, shownSchool.value.ways[2].id),
  Escape: escape,
}))
</script>

<template>
  <WorkFrame :build="build" desk="plan">
    <p v-if="plan.problem" class="block" role="alert">{{ plan.problem }}</p>
    <template v-if="view">
      <div class="desk">
        <header class="head">
          <h1 class="t28">{{ view.title }}</h1>
          <p class="outset">
            <button v-if="view.outset.short" type="button" class="btn small" @click="outset?.ask()">
              {{ view.outset.short }}<kbd>E</kbd>
            </button>
            <RouterLink class="btn small" :to="{ name: 'last', params: { build } }">Last time</RouterLink>
            <SheetsDialog />
          </p>
        </header>
        <p v-if="plan.kept" class="quiet" role="status">Kept for next time in “{{ plan.kept }}”.</p>
        <div v-if="plan.turned.length" class="block" role="alert">
          <p class="b">Judged again:</p>
          <ul>
            <li v-for="t in plan.turned" :key="t">{{ t }}</li>
          </ul>
        </div>
        <p v-if="clash" class="block" role="alert">
          <b>{{ clash.agreement.name }}:</b> {{ clash.words }}. It holds up {{ clash.number }}.
        </p>
        <section
          v-if="view.gaps.length || view.combined.length"
          :class="view.gaps.length ? 'block' : 'quiet'"
          class="gaps"
          aria-label="What the plan leaves undone"
        >
          <button type="button" class="btn small" :aria-expanded="gapsOpen" @click="gapsOpen = !gapsOpen">
            {{ undone }}
          </button>
          {{ ' '
          }}<span v-if="view.gaps.length" class="t16"
            >{{ view.gaps[0].number }} {{ view.gaps[0].words }}</span
          >
          <ul v-if="gapsOpen">
            <li v-for="g in view.gaps" :key="g.kind + g.item">
              <b>{{ g.number }}</b> {{ g.words }}
            </li>
            <li v-for="c in view.combined" :key="c">{{ c }}</li>
          </ul>
        </section>
        <section
          v-if="shownSchool"
          class="schools"
          :class="{ two: shownSchool.ways.length === 2 }"
          :aria-label="shownSchool.question"
        >
          <p class="question t16">
            <b>{{ shownSchool.question }}</b>
            {{
              shownSchool.chosen
                ? 'chosen'
                : `not chosen yet, planned as Hollet's pick: ${shownSchool.because}`
            }}
            <template v-if="view.schools.length > 1">
              <button
                v-for="s in view.schools.filter((x) => x.id !== shownSchool?.id)"
                :key="s.id"
                type="button"
                class="link"
                @click="openWay(s, s.in_force)"
              >
                {{ s.question }}: {{ s.ways.find((w) => w.id === s.in_force)?.name
                }}{{ s.chosen ? '' : ' (pick)' }}
              </button></template
            >
          </p>
          <button
            v-for="(w, k) in shownSchool.ways"
            :key="w.id"
            type="button"
            class="way"
            :class="{
              on: shownSchool.chosen === w.id,
              pick: !shownSchool.chosen && shownSchool.in_force === w.id,
            }"
            @click="openWay(shownSchool, w.id)"
          >
            <span class="line"
              ><kbd>{{ k + 1 }}</kbd
              ><b class="t20">{{ w.name }}</b
              ><em>{{
                shownSchool.chosen === w.id
                  ? 'chosen'
                  : !w.possible
                    ? 'not in this shop'
                    : shownSchool.pick === w.id
                      ? "Hollet's pick"
                      : ''
              }}</em></span
            >
            <SchoolSketch v-if="w.sketch" :sketch="w.sketch" />
            <span class="line"
              ><b>{{ hours(w.hours) }}</b
              ><span class="t16">{{ w.people }} {{ w.people === 1 ? 'person' : 'people' }}</span></span
            >
            <span class="t16 fact">{{ w.possible ? w.risks : w.because.join('; ') }}</span>
          </button>
        </section>
        <div class="cols">
          <div class="main">
            <PickOne v-model="shownStage" class="filters" :options="stages" label="Stages" />
            <p v-if="!rows.length" class="quiet">No step in this stage.</p>
            <ol class="rows">
              <li
                v-for="r in rows"
                :id="`row-${r.id}`"
                :key="r.id"
                :class="{ chosen: r.id === chosen, over: r.id === over }"
                draggable="true"
                @dragstart="dragged = r.id"
                @dragend="dragged = over = null"
                @dragover.prevent="over = r.id"
                @dragleave="over === r.id && (over = null)"
                @drop.prevent="drop(r)"
              >
                <LastChanceBlock
                  v-if="r.chances.length"
                  :title="`${r.number} ${r.short}: last chance for`"
                  :chances="r.chances"
                  :build="build"
                  :first="missing?.at.id === r.id ? missing.chance.thing : null"
                  @put-in="putIn?.ask({ closing: r, chance: $event })"
                />
                <div
                  class="row"
                  role="button"
                  tabindex="0"
                  :aria-expanded="r.id === chosen"
                  @click="pick(r.id === chosen ? null : r.id)"
                  @keydown="rowKey($event, r)"
                >
                  <span class="n">{{ r.number }}</span>
                  <span class="what"
                    ><b>{{ r.title }}</b
                    ><small v-if="reasonLine(r)">{{ reasonLine(r)?.text }}</small
                    ><small v-if="r.perhaps" class="perhaps">perhaps: {{ r.perhaps }}</small></span
                  >
                  <span class="kind"
                    ><template v-if="r.settled"
                      ><i class="dot" aria-hidden="true" />{{ r.status_words }}</template
                    ><template v-else-if="reasonLine(r)"
                      ><ReasonSign :kind="reasonLine(r)!.kind" />{{ reasonLine(r)?.kind }}</template
                    ></span
                  >
                </div>
              </li>
            </ol>
          </div>
          <aside class="side">
            <button
              v-if="missing || undecided.length"
              type="button"
              class="btn primary desk-primary"
              @click="primary"
            >
              {{ missing ? `Put in: ${missing.chance.thing}` : `Choose: ${undecided[0].question}`
              }}<kbd>Space</kbd>
            </button>
            <div class="part">
              <p class="count">
                <b>{{ view.hunt.length }}</b> <span class="t24">to hunt</span>
              </p>
              <p class="t16">
                {{
                  view.hunt.length
                    ? `first for ${view.hunt[0].number} ${view.hunt[0].title}`
                    : 'Everything the job needs is known and there.'
                }}
              </p>
              <ul class="small">
                <li v-for="x in view.hunt.slice(0, 4)" :key="x.id">
                  <span>{{ x.name }}</span><span>{{ x.stage_name }}</span>
                </li>
              </ul>
              <RouterLink class="btn small wide" :to="{ name: 'hunt', params: { build } }"
                >All {{ view.hunt.length }}, with where to look <kbd>H</kbd></RouterLink
              >
            </div>
            <div class="part">
              <h2 class="t20">Hours <span class="t16 mut">no pace yet</span></h2>
              <HoursRuler :range="view.hours" :left="view.hours_left" />
              <p class="t16">
                {{ hours(view.hours) }} by the sheets, {{ hours(view.hours_left) }} left<template
                  v-if="view.without_hours"
                  >; {{ counted(view.without_hours, 'step') }} without hours</template
                >; {{ view.reasons }} reasons,
                {{ view.people > 1 ? `${view.people} people at most` : 'one person' }}
              </p>
            </div>
            <div class="part more">
              <button type="button" class="btn small wide" @click="open = 'facts'">
                The vehicle: {{ unknown ? `${unknown} not known` : 'all known' }}
              </button>
              <button
                v-if="view.extras.length || view.agreements.length"
                type="button"
                class="btn small wide"
                @click="open = 'extras'"
              >
                While it is open: {{ unanswered ? `${unanswered} to answer` : 'all answered' }}
              </button>
              <button v-if="view.left_out.length" type="button" class="btn small wide" @click="open = 'out'">
                {{ view.left_out.length }} left out, and why
              </button>
              <button
                type="button"
                class="btn small wide"
                @click="putIn?.ask({ behind: row ?? rows[rows.length - 1] })"
              >
                Put a step in <kbd>I</kbd>
              </button>
            </div>
          </aside>
        </div>
      </div>
      <el-drawer
        :model-value="row !== null"
        direction="rtl"
        size="420px"
        :title="row ? `${row.number} ${row.title}` : ''"
        append-to-body
        :modal="false"
        modal-penetrable
        class="plan-drawer"
        @close="pick(null)"
      >
        <div v-if="row" class="detail">
          <p v-if="row.own" class="t16">Put in by hand.</p>
          <p v-if="row.shown_because" class="t16">In the plan because {{ row.shown_because }}.</p>
          <p v-if="row.perhaps" class="t16 perhaps">In the plan until it is known: {{ row.perhaps }}.</p>
          <p class="t16">
            {{ row.hours ? hours(row.hours) : 'no hours given'
            }}<template v-if="row.tools.length">. Tools: {{ row.tools.join(', ') }}</template>
          </p>
          <p v-for="p in row.people" :key="p.role" class="t16">
            <b>{{ p.role }}</b>: {{ p.does }}
          </p>
          <form v-if="row.people.length > 1" class="pair" @submit.prevent="comes(row.id)">
            <label class="sr" for="comes">Who comes, and when</label
            ><input
              id="comes"
              v-model="who"
              class="entry"
              name="comes"
              maxlength="80"
              autocomplete="off"
              :placeholder="row.comes ? `${row.comes}: say anew` : 'who comes, and when'"
            /><button type="submit" class="btn small" :disabled="!who.trim()">They come</button
            ><button
              v-if="row.comes"
              type="button"
              class="btn small"
              @click="propose([{ act: 'people', step: row.id, who: null }])"
            >
              Not after all
            </button>
          </form>
          <h3 v-if="row.after.length" class="b">It waits for</h3>
          <ul>
            <li v-for="a in row.after" :key="a.step" class="reason">
              <ReasonSign :kind="a.kind" /><span
                >{{ a.number }} {{ a.title }}, {{ a.because }} <small>({{ a.kind }})</small></span
              ><button
                type="button"
                class="btn small"
                :aria-label="`Take the reason away, ${a.title}`"
                @click="
                  propose(
                    [{ act: 'reason', step: row.id, waits_for: a.step, because: null, kind: 'safety' }],
                    true,
                  )
                "
              >
                Take away
              </button>
            </li>
          </ul>
          <h3 v-if="row.before.length" class="b">What waits for it</h3>
          <ul>
            <li v-for="a in row.before" :key="a.step" class="reason">
              <ReasonSign :kind="a.kind" /><span
                >{{ a.number }} {{ a.title }}, {{ a.because }} <small>({{ a.kind }})</small></span
              >
            </li>
          </ul>
          <div class="pair">
            <button type="button" class="btn small" @click="move(row, -1)">Earlier <kbd>Alt ↑</kbd></button
            ><button type="button" class="btn small" @click="move(row, 1)">Later <kbd>Alt ↓</kbd></button>
          </div>
          <div class="pair">
            <button type="button" class="btn small" @click="putIn?.ask({ behind: row })">
              Put a step in after it</button
            ><button
              type="button"
              class="btn small"
              @click="propose([{ act: 'retire', step: row.id, back: false }], true)"
            >
              Take it out
            </button>
          </div>
          <RouterLink class="btn small" :to="{ name: 'step', params: { build, step: row.id } }"
            >To its bench</RouterLink
          >
          <form class="give" @submit.prevent="giveReason">
            <h3 class="b">Give it a reason</h3>
            <label class="field"
              ><span>It waits for</span
              ><select v-model="waitsFor" class="entry" name="waits-for">
                <option value="">choose</option>
                <option v-for="r in view.rows.filter((x) => x.id !== row?.id)" :key="r.id" :value="r.id">
                  {{ r.number }} {{ r.short }}
                </option>
              </select></label
            >
            <label class="field"
              ><span>because</span
              ><input v-model="because" class="entry" name="because" maxlength="300" autocomplete="off"
            /></label>
            <label class="field"
              ><span>kind</span
              ><select v-model="kind" class="entry" name="kind">
                <option v-for="k in KINDS" :key="k">{{ k }}</option>
              </select></label
            >
            <button type="submit" class="btn small" :disabled="!waitsFor || !because.trim()">
              See what it changes
            </button>
          </form>
        </div>
      </el-drawer>
      <el-drawer
        :model-value="school !== null"
        direction="rtl"
        size="520px"
        :title="school?.question ?? ''"
        append-to-body
        @close="school = null"
      >
        <div v-if="school && way" class="detail">
          <PickOne
            v-model="wayId"
            :options="school.ways.map((w) => ({ value: w.id, label: w.name }))"
            label="Ways"
          />
          <p class="t20">{{ way.does }}</p>
          <dl>
            <dt>Needs</dt>
            <dd>{{ way.tools.length ? way.tools.join(', ') : 'no special tool' }}</dd>
            <dt>People</dt>
            <dd>{{ way.people }}</dd>
            <dt>Hours</dt>
            <dd>{{ hours(way.hours) }}</dd>
            <dt>Money</dt>
            <dd>{{ way.money[1] ? shop.money(`${way.money[0]} to ${way.money[1]}`) : 'nothing' }}</dd>
            <dt>Risk</dt>
            <dd>{{ way.risks }}</dd>
            <dt>Suits</dt>
            <dd>{{ way.suits }}</dd>
            <template v-if="way.held_by"
              ><dt>Held by</dt>
              <dd>{{ way.held_by }}</dd></template
            >
            <dt>Steps of its own</dt>
            <dd>{{ way.steps }}</dd>
          </dl>
          <p v-if="!way.possible" class="block">
            {{ way.because.join('; ') }}. It can be chosen all the same: get it, or say under Tools that it is
            there.
          </p>
          <p class="quiet">
            Hollet picks {{ school.ways.find((w) => w.id === school?.pick)?.name }}: {{ school.because }}
          </p>
          <p v-if="school.fixed && school.in_force !== way.id" class="block">
            {{ school.fixed }} is done and belongs to the way in force: reopen it before changing.
          </p>
          <button type="button" class="btn" :disabled="school.chosen === way.id" @click="takeWay">
            {{ school.chosen === way.id ? 'This one is chosen' : `Choose ${way.name}` }}
          </button>
        </div>
      </el-drawer>
      <el-drawer
        :model-value="open !== ''"
        direction="rtl"
        size="520px"
        :title="
          open === 'facts' ? 'The vehicle' : open === 'extras' ? 'While it is open' : 'Left out, and why'
        "
        append-to-body
        @close="open = ''"
      >
        <div v-if="open === 'facts'" :key="again" class="detail">
          <p class="t16">
            What is known decides which steps apply. A change shows what it does before it is taken.
          </p>
          <form v-if="book.card" class="vehicle" @submit.prevent="describe">
            <label class="field"
              ><span>Its name</span
              ><input
                v-model="name"
                class="entry"
                name="vehicle-name"
                maxlength="80"
                autocomplete="off" /></label
            ><label class="field"
              ><span>In words</span
              ><input v-model="about" class="entry" name="vehicle-about" maxlength="200" autocomplete="off"
            /></label>
            <p v-if="vehicleProblem" class="problem" role="alert">{{ vehicleProblem }}</p>
            <button
              type="submit"
              class="btn small"
              :disabled="
                !name.trim() || !about.trim() || (name === book.card.vehicle && about === book.card.about)
              "
            >
              Say it so
            </button>
          </form>
          <label v-for="f in view.facts" :key="f.id" class="field"
            ><span
              >{{ f.name }}, decides
              {{ f.decides.length ? f.decides.slice(0, 6).join(', ') : 'figures and ways' }}</span
            >
            <select
              v-if="f.values.length"
              class="entry"
              :name="`fact-${f.id}`"
              :value="f.value ?? ''"
              @change="fact(f.id, ($event.target as HTMLSelectElement).value)"
            >
              <option value="">not known</option>
              <option v-for="v in f.values" :key="v">{{ v }}</option>
            </select>
            <input
              v-else
              class="entry"
              :name="`fact-${f.id}`"
              :value="f.value ?? ''"
              inputmode="numeric"
              @change="fact(f.id, ($event.target as HTMLInputElement).value.trim())"
          /></label>
          <p v-if="!view.facts.length">Nothing in this plan depends on the vehicle.</p>
        </div>
        <div v-else-if="open === 'extras'" :key="again" class="detail">
          <section v-for="x in view.extras" :key="x.extra.id" class="extra">
            <h3 class="t20">{{ x.extra.thing }}</h3>
            <p>{{ x.extra.because }}. Reached at {{ x.number }}.</p>
            <table>
              <tbody>
                <tr>
                  <td>now</td>
                  <td class="b">{{ hours(x.extra.now.hours) }}</td>
                  <td>{{ shop.money(x.extra.now.money.join(' to ')) }}</td>
                </tr>
                <tr>
                  <td>later</td>
                  <td class="b">{{ hours(x.extra.later.hours) }}</td>
                  <td>{{ shop.money(x.extra.later.money.join(' to ')) }}</td>
                </tr>
              </tbody>
            </table>
            <div class="pair">
              <button
                type="button"
                class="btn small"
                :aria-pressed="x.wanted === true"
                @click="extra(x.extra.id, true)"
              >
                {{ x.wanted === true ? 'Wanted' : 'Yes, do it' }}</button><button
                type="button"
                class="btn small"
                :aria-pressed="x.wanted === false"
                @click="extra(x.extra.id, false)"
              >
                {{ x.wanted === false ? 'Not wanted' : 'No, leave it' }}
              </button>
            </div>
          </section>
          <section v-for="a in view.agreements" :key="a.agreement.id" class="extra">
            <h3 class="t20">{{ a.agreement.name }}</h3>
            <p :class="{ outside: a.clashes }">{{ a.words }}</p>
            <label v-for="p in a.agreement.part" :key="p.id" class="field"
              ><span>{{ p.name }}</span
              ><select
                class="entry"
                :name="`part-${p.id}`"
                :value="a.options[p.id] ?? ''"
                @change="part(p.id, ($event.target as HTMLSelectElement).value)"
              >
                <option value="">not known</option>
                <option v-for="o in p.option" :key="o">{{ o }}</option>
              </select></label
            >
          </section>
        </div>
        <ul v-else class="detail">
          <li v-for="x in view.left_out" :key="x.id" class="reason">
            <span
              ><b>{{ x.number }} {{ x.title }}</b
              ><br /><span class="t16">{{ x.because }}</span></span
            ><button
              v-if="x.retired"
              type="button"
              class="btn small"
              @click="propose([{ act: 'retire', step: x.id, back: true }])"
            >
              Put back
            </button>
          </li>
        </ul>
      </el-drawer>
    </template>
    <OutsetDialog v-if="view" ref="outset" :outset="view.outset" />
    <PutInDialog ref="putIn" @propose="propose($event)" />
    <DifferenceDialog ref="difference" @closed="again++" />
  </WorkFrame>
</template>

<style scoped>
.outset {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 6px 16px;
}
.schools {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 10px;
  margin: 6px 0 12px;
}
.schools.two {
  grid-template-columns: 1fr 1fr;
}
.question {
  grid-column: 1 / -1;
}
.link {
  border: 0;
  background: none;
  text-decoration: underline;
  cursor: pointer;
  min-height: 44px;
}
.way {
  text-align: left;
  border: 1.5px solid var(--line);
  background: var(--now);
  padding: 8px 12px;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  gap: 4px;
  border-bottom-width: 8px;
  border-bottom-color: var(--hair);
  min-width: 0;
}
.way.on {
  border: 3px solid var(--ink);
  border-bottom: 8px solid var(--ink);
}
.way .line {
  display: flex;
  gap: 10px;
  align-items: baseline;
}
.way em {
  margin-left: auto;
  font-style: normal;
  font-size: 16px;
  white-space: nowrap;
}
.fact {
  display: block;
}
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 22px;
  align-items: start;
}
.rows li {
  border-top: 1px solid var(--hair);
}
.rows li.over {
  border-top: 4px solid var(--ink);
}
.row {
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr) 150px;
  gap: 6px;
  width: 100%;
  min-height: 56px;
  align-items: center;
  border: 0;
  background: none;
  text-align: left;
  cursor: pointer;
  padding: 4px 0;
}
.chosen .row {
  outline: 3px solid var(--ink);
  outline-offset: -3px;
  padding: 4px 8px;
}
.n {
  font-size: 18px;
  font-weight: 780;
}
.what b {
  font-weight: 680;
}
.what small {
  display: block;
  font-size: 16px;
  color: var(--mut);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.perhaps,
.what small.perhaps {
  color: var(--close);
}
.kind {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 16px;
}
.dot {
  width: 9px;
  height: 9px;
  border-radius: 50%;
  background: var(--ink);
}
.side {
  display: grid;
  gap: 8px;
  grid-template-columns: minmax(0, 1fr);
}
.part {
  display: grid;
  gap: 8px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
}
.count b {
  font-size: 60px;
  font-weight: 850;
  line-height: 1;
}
.small li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  border-top: 1px solid var(--hair);
  line-height: 30px;
  font-size: 16px;
}
.small li span:first-child {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.small li span:last-child {
  white-space: nowrap;
}
.wide {
  width: 100%;
  justify-content: space-between;
}
.desk-primary {
  min-height: 60px;
  font-size: 20px;
  width: 100%;
  line-height: 1.15;
  padding: 6px 10px;
  gap: 4px;
}
.detail {
  display: grid;
  gap: 12px;
}
.vehicle {
  display: grid;
  gap: 8px;
  border-bottom: 3px solid var(--line);
  padding-bottom: 12px;
}
.problem {
  color: var(--out);
}
.reason {
  display: flex;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.reason > span {
  flex: 1;
}
.pair {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.pair .btn {
  flex: 1;
}
.give {
  display: grid;
  gap: 8px;
  border-top: 3px solid var(--line);
  padding-top: 10px;
}
.extra {
  border-top: 3px solid var(--line);
  padding-top: 8px;
  display: grid;
  gap: 8px;
}
dl {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 6px 12px;
}
dt {
  color: var(--mut);
}
@media (max-width: 959px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    order: -1;
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
    column-gap: 16px;
  }
  .side .more {
    grid-column: 1 / -1;
    grid-template-columns: 1fr 1fr;
  }
  .desk-primary {
    grid-column: 1 / -1;
    position: static;
  }
  .row {
    grid-template-columns: 58px minmax(0, 1fr);
  }
  .kind {
    grid-column: 2;
  }
}
@media (max-width: 600px) {
  .schools,
  .schools.two {
    grid-template-columns: 1fr;
  }
}
</style>
