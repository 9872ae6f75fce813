<script setup lang="ts">
/**
 * The order back: the take-down turned round and merged with the sheet; each "before" has its reason; taken
 * over as the plan.
 */
import { computed, ref, watch } from 'vue'
import { v4 } from 'uuid'
import { client, got, type Rebuild, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { counted } from '@/words'
import ReasonSign from '@/drawings/ReasonSign.vue'
import AskDialog from '@/shell/AskDialog.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'
import { useServer } from '@/composables/server'

const props = defineProps<{ build: string }>()
const book = useBook()
const session = useSession()
const view = ref<Rebuild | null>(null)
const { problem, served } = useServer()
const busy = ref(false)
const taken = ref('')
const choices = ref<Schemas['Choices']>({ without: [], take_down: [], because: {} })
const reason = ref<InstanceType<typeof AskDialog> | null>(null)
const ORIGIN: Record<string, string> = {
  sheet: 'the sheet says',
  turned: 'turned round',
  said: 'said when it came off',
  log: 'assumed from the order of coming off',
}
const only = ref(true)
const rows = computed(() => (view.value?.lines ?? []).filter((l) => !only.value || l.from_words || l.new))
const groups = computed(() =>
  [...new Map(rows.value.map((l) => [l.stage, l.stage_name]))].map(([id, name]) => ({
    id,
    name,
    lines: rows.value.filter((l) => l.stage === id),
  })),
)
const title = computed(() => {
  if (!view.value) return ''
  if (!view.value.off) return 'Nothing has come off yet'
  const open = view.value.contradictions.filter((c) => c.by_sheet).length
  return view.value.new
    ? `The order back: ${counted(view.value.new, 'step')} to put in` +
        (open ? `, ${open} said differently` : '')
    : 'The plan holds the order back'
})
let asked = 0
async function look() {
  const mine = ++asked
  await served(
    async () => {
      const found = (await got<unknown>(
        client.POST('/api/builds/{build}/rebuild/look', {
          params: { path: { build: props.build } },
          body: { choices: choices.value },
        }),
      )) as Rebuild
      if (mine === asked) {
        view.value = found
        problem.value = ''
      }
    },
    () => mine === asked,
  )
}
watch([() => props.build, choices, () => book.frame?.head], () => void look(), {
  immediate: true,
  deep: true,
})

function without(removal: string) {
  choices.value = { ...choices.value, without: [...(choices.value.without ?? []), removal] }
}
function keep(c: Rebuild['contradictions'][number], asTakenDown: boolean) {
  const others = (choices.value.take_down ?? []).filter(([a, b]) => a !== c.before || b !== c.then)
  choices.value = {
    ...choices.value,
    take_down: asTakenDown ? [...others, [c.before, c.then]] : others,
  }
}
async function because(line: Rebuild['lines'][number], w: Rebuild['lines'][number]['why'][number]) {
  const said = await reason.value?.ask({
    title: `${line.title} after ${w.after_title}`,
    button: 'That is why',
    why: 'Nobody said why when it came off. Why does it matter?',
  })
  if (said && line.removal)
    choices.value = { ...choices.value, because: { ...choices.value.because, [line.removal]: said } }
}
const id = ref(v4())
async function take() {
  const count = view.value?.new
  if (busy.value || !count) return
  busy.value = true
  await served(async () => {
    view.value = (await got<unknown>(
      client.POST('/api/builds/{build}/rebuild', {
        params: { path: { build: props.build } },
        body: { choices: choices.value, who: await session.whoIsIt(), id: id.value },
      }),
    )) as Rebuild
    taken.value =
      `Taken over: ${counted(count, 'step')} in the plan now. ` + 'Move or change them on the plan desk.'
    id.value = v4()
    choices.value = { without: [], take_down: [], because: {} }
    await book.reload()
  })
  busy.value = false
}
useKeys(() => ({
  ' ': take,
  PageDown: take,
  i: () => {
    only.value = !only.value
  },
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="order back">
    <div v-if="view" class="back">
      <div class="main" :class="{ taken: view.taken }">
        <h1 class="t28">{{ title }}</h1>
        <p v-if="taken" class="quiet" role="status">
          {{ taken }} <RouterLink :to="{ name: 'plan', params: { build } }">To the plan desk</RouterLink>
        </p>
        <p v-if="problem" class="block" role="alert">{{ problem }}</p>
        <p class="do">
          <button type="button" class="btn small" @click="only = !only">
            {{ only ? `Show all ${counted(view.lines.length, 'step')}` : 'Only what came off' }} <kbd>I</kbd>
          </button>
        </p>
        <template v-for="g in groups" :key="g.id">
          <h2 class="group">{{ g.name }}</h2>
          <ol>
            <li v-for="l in g.lines" :key="l.step" :class="{ new: l.new, done: l.done }">
              <span class="n">{{ l.number || 'new' }}</span>
              <div class="what">
                <p>
                  <b>{{ l.title }}</b> <span v-if="l.done" class="mut t16">done</span>
                </p>
                <p v-if="l.from_words" class="t16 mut">came off as {{ l.from_words }}</p>
                <p v-for="b in l.bags" :key="b" class="t16">{{ b }}</p>
                <p v-for="m in l.marks" :key="m" class="t16">compare {{ m }}</p>
                <p v-if="l.not_reversed" class="t16 turn"><b>Not simply reversed:</b> {{ l.not_reversed }}</p>
              </div>
              <ul class="why">
                <li v-for="w in l.why" :key="w.after">
                  <ReasonSign :kind="w.kind" /><span
                    >after <b>{{ w.after_title }}</b>: {{ w.because }}
                    <button v-if="w.assumed && l.new" type="button" class="assumed" @click="because(l, w)">
                      assumed: say why</button
                    ><em v-else class="t16 mut">({{ ORIGIN[w.origin] }})</em></span
                  >
                </li>
              </ul>
              <button
                v-if="l.removal"
                type="button"
                class="btn small"
                :aria-label="`${l.title}: does not go back`"
                @click="without(l.removal)"
              >
                Not back
              </button>
            </li>
          </ol>
        </template>
        <div
          v-for="c in view.contradictions"
          :key="c.before + c.then"
          class="clash"
          :class="view.taken ? 'quiet' : 'block'"
        >
          <h2 class="t20">
            {{
              view.taken
                ? `Said differently: ${c.before_title}, ${c.then_title}`
                : `${c.before_title} or ${c.then_title} first?`
            }}
          </h2>
          <p><b>The take-down</b> has {{ c.before_title }} first: {{ c.take_down }}.</p>
          <details>
            <summary>
              <b>The sheet</b> has {{ c.then_title }} first, in {{ c.sheet.split('; ').length }}
              {{ c.sheet.split('; ').length === 1 ? 'reason' : 'reasons'
              }}{{ view.taken ? ', and was kept' : '' }}
            </summary>
            <p v-for="x in c.sheet.split('; ')" :key="x" class="t16">{{ x }}</p>
          </details>
          <div v-if="!view.taken" class="do">
            <button type="button" class="btn small" :aria-pressed="c.by_sheet" @click="keep(c, false)">
              Keep the sheet's</button
            ><button type="button" class="btn small" :aria-pressed="!c.by_sheet" @click="keep(c, true)">
              Keep the take-down's
            </button>
          </div>
        </div>
        <section v-if="view.one_way.length" aria-label="For coming off only">
          <h2 class="group">For coming off only, not turned round</h2>
          <ul class="oneway">
            <li v-for="o in view.one_way" :key="o.what">
              <b>{{ o.what }}</b>: {{ o.because }}. <span class="mut">{{ o.why }}</span>
            </li>
          </ul>
        </section>
      </div>
      <aside>
        <p class="count">{{ view.off }}</p>
        <p class="t24">came off</p>
        <p>
          {{ view.reasons }} reasons<template v-if="view.assumed"
            >, <span class="assumed">{{ view.assumed }} assumed</span></template
          >
        </p>
        <p v-if="choices.without?.length">
          {{ choices.without.length }} do not go back.
          <button type="button" class="btn small" @click="choices = { ...choices, without: [] }">
            All back again
          </button>
        </p>
        <p class="mut t16">
          The sheet's own order stands where it gives a reason. What came off is turned round: what closed the
          way out closes it again.
        </p>
        <button v-if="view.new" type="button" class="btn primary long" :disabled="busy" @click="take">
          Take this order over<kbd>Space</kbd>
        </button>
      </aside>
      <AskDialog ref="reason" />
    </div>
    <p v-else-if="problem" class="block" role="alert">{{ problem }}</p>
  </WorkFrame>
</template>

<style scoped>
.back {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 32px;
}
.main {
  display: grid;
  gap: 8px;
  align-content: start;
  min-width: 0;
}
.group {
  font-size: 18px;
  font-weight: 780;
  border-top: 2px solid var(--line);
  padding-top: 4px;
}
ol > li {
  display: grid;
  grid-template-columns: 64px minmax(0, 5fr) minmax(0, 6fr) auto;
  gap: 10px;
  border-top: 1px solid var(--hair);
  padding: 8px 0;
  align-items: start;
}
.n {
  font-weight: 780;
}
.new .n {
  background: var(--ink);
  color: var(--now);
  justify-self: start;
  padding: 0 6px;
}
.done {
  color: var(--mut);
}
.why {
  display: grid;
  gap: 4px;
  font-size: 16px;
}
.why li {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 8px;
  align-items: start;
}
em {
  font-style: normal;
}
button.assumed {
  background: none;
  border-width: 0 0 2.5px;
  padding: 4px 0;
  cursor: pointer;
}
.turn {
  border-left: 4px solid var(--line);
  padding-left: 8px;
}
.clash {
  display: grid;
  gap: 4px;
}
.main:not(.taken) .clash {
  order: -1;
}
.main:not(.taken) > h1 {
  order: -2;
}
.do {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.oneway li {
  padding: 4px 0;
}
aside {
  position: sticky;
  top: 0;
  align-self: start;
  display: grid;
  gap: 10px;
}
.count {
  font-size: 60px;
  font-weight: 850;
  line-height: 1;
}
@media (max-width: 959px) {
  .count,
  aside > .t24,
  aside > .mut {
    display: none;
  }
  .back {
    grid-template-columns: 1fr;
  }
  aside {
    position: static;
    order: -1;
    grid-template-columns: auto auto 1fr;
    align-items: center;
  }
  aside .primary {
    grid-column: 1 / -1;
    min-height: 72px;
  }
  ol > li {
    grid-template-columns: 56px 1fr auto;
  }
  .why {
    grid-column: 2 / -1;
    grid-row: 2;
  }
}
</style>
