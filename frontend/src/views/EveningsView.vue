<script setup lang="ts">
/** The plan of evenings: when, what holds it, what would help. */
import { computed, onMounted, onUnmounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useKeys } from '@/composables/keys'
import EveningBlock from '@/drawings/EveningBlock.vue'
import WeekDialog from '@/shell/WeekDialog.vue'
import ShopFrame from '@/shell/ShopFrame.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { useCalendar } from '@/stores/calendar'
import { useSession } from '@/stores/session'

const calendar = useCalendar()
const session = useSession()
const router = useRouter()
const week = ref<InstanceType<typeof WeekDialog> | null>(null)
const first = ref(0)
const chosen = ref<string | null>(null)
const SHOWN = 8
const plan = computed(() => calendar.evenings?.plan ?? null)
/** What would win, laid over the plan as it is; the act itself is done elsewhere. */
const over = ref<string | null>(null)
const won = computed(() => plan.value?.wins.find((w) => w.id === over.value)?.won ?? null)
const laid = computed(() => won.value?.evenings ?? plan.value?.evenings ?? [])
const shown = computed(() => laid.value.slice(first.value, first.value + SHOWN))
const left = computed(() => Math.max(0, laid.value.length - first.value - SHOWN))
/** Those that are another plan, by their digit. */
const keyed = computed(() => (plan.value?.wins ?? []).filter((w) => w.won))
const lay = (id: string | undefined) => {
  over.value = id && id !== over.value ? id : null
  chosen.value = null
  first.value = 0
}
const slug = computed(
  () => plan.value?.evenings.flatMap((e) => e.slugs).find((s) => s.id === chosen.value) ?? null,
)
const more = (by: number) => {
  first.value = Math.max(0, Math.min(first.value + by, (plan.value?.evenings.length ?? 1) - 1))
}
onMounted(() => {
  void calendar.loadTonight()
  void calendar.loadEvenings()
})
onUnmounted(calendar.leave)
const back = () => void router.push('/')
useKeys(() => ({
  ArrowDown: () => more(1),
  ArrowUp: () => more(-1),
  PageDown: () => more(SHOWN),
  PageUp: () => more(-SHOWN),
  c: () => week.value?.ask(),
  d: session.toggleTheme,
  1: () => lay(keyed.value.at(0)?.id),
  2: () => lay(keyed.value.at(1)?.id),
  3: () => lay(keyed.value.at(2)?.id),
  4: () => lay(keyed.value.at(3)?.id),
  Escape: () => (over.value ? lay(undefined) : chosen.value ? (chosen.value = null) : back()),
}))
</script>

<template>
  <ShopFrame>
    <template #nav>
      <RouterLink class="btn small" to="/">Tonight <kbd>Esc</kbd></RouterLink
      ><a class="btn small" href="/api/evenings.ics" download>Calendar file</a
      ><button type="button" class="btn small" @click="week?.ask()">Evenings and helpers <kbd>C</kbd></button>
    </template>
    <p v-if="calendar.problem" class="block" role="alert">{{ calendar.problem }}</p>
    <p v-if="calendar.evenings?.laying" class="t20" role="status">
      laying {{ calendar.evenings.steps || '' }} steps, {{ calendar.evenings.seconds }} s
      <button type="button" class="btn small" @click="calendar.stop()">stop</button>
    </p>
    <p v-else-if="calendar.evenings?.old" class="block">
      This was laid before the last change.
      <button type="button" class="btn small" @click="calendar.loadEvenings()">Lay it anew</button>
    </p>
    <template v-if="calendar.evenings && !plan">
      <h1 class="t28">
        {{ calendar.evenings.problem ? 'The evenings cannot be laid' : 'Laying the evenings' }}
      </h1>
      <p v-if="calendar.evenings.problem" class="block t20" role="alert">{{ calendar.evenings.problem }}</p>
      <button type="button" class="btn small" @click="week?.ask()">Evenings and helpers</button>
    </template>
    <div v-if="plan" class="cols">
      <div>
        <div class="head">
          <h1 class="t28">{{ won ? won.title : plan.title }}</h1>
          <span v-if="won"
            >Not so yet: this is how it would lie.
            <button type="button" class="btn small" @click="lay(undefined)">
              As it is <kbd>Esc</kbd>
            </button></span
          >
          <span v-else>{{ plan.line }}; {{ plan.proof }}</span>
        </div>
        <EveningBlock
          :evenings="shown"
          :runs="won ? won.runs : plan.runs"
          :ghosts="won ? won.ghosts : []"
          :chosen="chosen"
          @choose="(id) => (chosen = id === chosen ? null : id)"
        />
        <div class="pages">
          <button v-if="first" type="button" class="btn small" @click="more(-SHOWN)">Earlier</button>
          <button v-if="left" type="button" class="btn small" @click="more(SHOWN)">
            {{ left }} more evenings
          </button>
        </div>
      </div>
      <aside>
        <section v-if="slug" class="chosen" aria-label="This work">
          <h2 class="t20">{{ slug.vehicle }}: {{ slug.name }}</h2>
          <ul>
            <li v-for="s in slug.steps" :key="s.id">
              <RouterLink :to="{ name: 'step', params: { build: slug.build, step: s.step } }"
                >{{ s.start }} {{ s.number }} {{ s.name }}</RouterLink
              >
              <small>{{ s.range }}. {{ s.held }}. To spare: {{ s.slack }}</small>
              <small v-if="s.assumed" class="assumed">{{ s.assumed }}</small>
              <WorkingLines :lines="s.working" />
            </li>
          </ul>
        </section>
        <section>
          <h2 class="t20">What makes it late</h2>
          <p v-for="l in plan.late" :key="l.thing">
            <b>{{ l.thing }}:</b> {{ l.words }}
          </p>
        </section>
        <section v-if="plan.dates.length">
          <h2 class="t20">Dates</h2>
          <p v-for="d in plan.dates" :key="d.commitment">
            <b>{{ d.what }}, {{ d.day }}:</b>
            <span :class="{ outside: !d.met }">{{ ' ' }}{{ d.words }}</span>
          </p>
        </section>
        <section>
          <h2 class="t20 wins">What would win <small>days</small></h2>
          <p v-if="!plan.wins.length" class="mut">Nothing that is asked or on its way.</p>
          <ul>
            <li v-for="w in plan.wins" :key="w.id">
              <button
                type="button"
                class="win"
                :aria-pressed="w.id === over"
                :disabled="!w.won"
                @click="lay(w.id)"
              >
                <span
                  ><kbd v-if="w.won">{{ keyed.indexOf(w) + 1 }}</kbd
                  >{{ ' ' }}<b>{{ w.name }}</b
                  ><small>{{ w.words }}</small></span
                ><b class="t28" :class="{ mut: !w.days }">{{ w.days }}</b>
              </button>
            </li>
          </ul>
        </section>
        <section>
          <h2 class="t20">Chance of the end</h2>
          <table>
            <thead>
              <tr>
                <th></th>
                <th>1 in 10</th>
                <th>5 in 10</th>
                <th>9 in 10</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="e in plan.ends" :key="e.build">
                <td>
                  <b>{{ e.name }}</b>
                </td>
                <td>{{ e.one }}</td>
                <td>
                  <b>{{ e.five }}</b>
                </td>
                <td>{{ e.nine }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section v-if="plan.assumed.length">
          <h2 class="t20">Assumed</h2>
          <ul>
            <li v-for="a in plan.assumed" :key="a" class="t16">
              <span class="assumed">{{ a }}</span>
            </li>
          </ul>
        </section>
      </aside>
    </div>
    <WeekDialog ref="week" />
  </ShopFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 28px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 4px 20px;
  flex-wrap: wrap;
  margin-bottom: 8px;
}
.pages {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
aside {
  display: grid;
  gap: 18px;
  align-content: start;
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
small.assumed {
  color: var(--close);
  white-space: normal;
  display: inline;
}
.assumed {
  white-space: normal;
}
.win {
  width: 100%;
  border: 0;
  background: none;
  text-align: left;
  color: inherit;
  cursor: pointer;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 10px;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
  align-items: center;
}
.wins {
  display: flex;
  justify-content: space-between;
}
.chosen {
  border: 3px solid var(--ink);
  padding: 8px 12px;
  max-height: 420px;
  overflow: auto;
}
.chosen a {
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
}
td,
th {
  font-size: 16px;
  height: 40px;
}
@media (max-width: 1179px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
.win[aria-pressed='true'] {
  outline: 3px solid var(--ink);
}
.win:disabled {
  cursor: default;
}
</style>
