<script setup lang="ts">
/** The frame: strip, Written, Now and Next. `desk` is the sitting-down form: one line of Written, no Next. */
import { computed, onMounted, ref, watch } from 'vue'
import { useEventListener, useNow } from '@vueuse/core'
import { useRouter } from 'vue-router'
import { useAwake } from '@/composables/awake'
import { useFocusKept } from '@/composables/focus'
import { type KeyMap, useKeys } from '@/composables/keys'
import { useRecorder } from '@/composables/recorder'
import { clockOf } from '@/composables/time'
import { useBook } from '@/stores/book'
import { useJournal } from '@/stores/journal'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import AddDialog from './AddDialog.vue'
import FindDialog from './FindDialog.vue'
import LedgerDrawer from './LedgerDrawer.vue'
import LineText from './LineText.vue'
import MarkLogo from './MarkLogo.vue'
import StripNav from './StripNav.vue'
import StrikeDialog from './StrikeDialog.vue'
import LeaveOpenDialog from './LeaveOpenDialog.vue'
import TurnedBlock from './TurnedBlock.vue'

const props = defineProps<{ build: string; step?: string | null; desk?: string; next?: readonly string[] }>()
const book = useBook()
const shop = useShop()
const journal = useJournal()
const session = useSession()
const router = useRouter()
const ledger = ref(false)
const work = ref<HTMLElement | null>(null)
useFocusKept(work)
/** An engine that turns leaves no hand for other screens. */
const running = computed(
  () => !!props.step && !!book.bench && 'running' in book.bench && book.bench.running !== null,
)
const { goesDark, heard } = useAwake(() => !!props.step && book.bench !== null && !book.bench.base.settled)
const find = ref<InstanceType<typeof FindDialog> | null>(null)
const strike = ref<InstanceType<typeof StrikeDialog> | null>(null)
/** V held records a note at any step; let go, it is kept. */
const {
  listening,
  problem: notHeard,
  possible: mayListen,
  begin: listen,
  end: heardOut,
} = useRecorder((sound) =>
  book.act({ kind: 'spoken', step: props.step ?? null, sound: '0'.repeat(64) }, sound),
)
useEventListener('keyup', (event: KeyboardEvent) => {
  if (event.key.toLowerCase() === 'v') heardOut()
})
useEventListener('blur', () => heardOut())
const add = ref<InstanceType<typeof AddDialog> | null>(null)
const leave = ref<InstanceType<typeof LeaveOpenDialog> | null>(null)
const now = useNow({ interval: 10000 })
const unsaved = computed(() => {
  const last = journal.notSaved.at(-1)?.entry
  const words =
    last && 'typed' in last
      ? `${last.kind} ${Array.isArray(last.typed) ? last.typed.join(', ') : last.typed}`
      : last?.kind
  return last
    ? (journal.notSaved.length > 1
        ? `${journal.notSaved.length} not yet saved, the last: `
        : 'not yet saved: ') + words
    : ''
})
/** What waits takes one line of the band. */
const written = computed(() => {
  const rows = (props.desk ? 1 : 3) - (unsaved.value ? 1 : 0)
  return rows ? (book.frame?.written ?? []).slice(-rows) : []
})
const go = (name: string) => void router.push({ name, params: { build: props.build } })
const strikeLast = () => {
  const line = [...(book.frame?.written ?? [])].reverse().find((l) => l.strikable)
  if (line) strike.value?.ask(line)
}

const SCREENS = [
  { name: 'gate', words: 'Gates', cap: 'G' },
  { name: 'log', words: 'Log', cap: 'J' },
  { name: 'limits', words: 'Figures', cap: 'F' },
  { name: 'plan', words: 'Plan', cap: 'M' },
  { name: 'bags', words: 'Bags', cap: 'B' },
  { name: 'support', words: 'Load', cap: 'S' },
  { name: 'parts', words: 'Parts', cap: 'Z' },
]
onMounted(() => {
  if (!shop.view) void shop.load()
})
watch(
  () => [props.build, props.step],
  () => void book.open(props.build, props.step ?? null),
  { immediate: true },
)
useKeys((): KeyMap =>
  running.value
    ? {}
    : {
        l: () => (ledger.value = true),
        j: () => go('log'),
        g: () => go('gate'),
        f: () => go('limits'),
        m: () => go('plan'),
        h: () => go('hunt'),
        i: () => go('findings'),
        b: () => go('bags'),
        s: () => go('support'),
        q: () => go('off'),
        z: () => go('parts'),
        '/': () => void find.value?.ask(),
        t: () => void router.push('/tools'),
        d: session.toggleTheme,
        o: () => leave.value?.ask(),
        n: () => add.value?.ask(),
        v: () => (mayListen ? void listen() : add.value?.ask()),
        Backspace: strikeLast,
        Escape: () => void router.push({ name: 'build', params: { build: props.build } }),
      },
)
defineExpose({
  strikeLine: (line: Parameters<NonNullable<typeof strike.value>['ask']>[0]) => strike.value?.ask(line),
})
</script>

<template>
  <div class="frame" :class="{ desk }">
    <a class="skip" href="#now">To the work in hand</a>
    <StripNav
      v-if="book.frame && book.card?.id === build"
      class="left"
      :frame="book.frame"
      :build="build"
      :step="step ?? null"
      @ledger="ledger = true"
    />
    <div v-else class="left empty"><MarkLogo /></div>
    <section class="written" aria-label="Written">
      <span class="b label">Written</span>
      <ol aria-live="polite">
        <li v-for="line in written" :key="line.id">
          <time>{{ clockOf(line.time, shop.zone) }}</time><LineText :line="line" />
        </li>
        <li v-if="unsaved" class="mut">
          <time>…</time><span class="hand">{{ unsaved }}</span>
        </li>
      </ol>
      <div class="about">
        <span class="b">{{ book.card?.name ?? '' }}</span>
        <RouterLink
          v-if="!desk && book.frame?.carried"
          class="carried"
          :class="{ outside: !book.frame.carried_stays }"
          :to="{ name: 'support', params: { build } }"
          >{{ book.frame.carried_stays ? '' : '➤ ' }}{{ book.frame.carried }}</RouterLink
        >
        <span v-else-if="!desk" class="mut">{{ book.card?.about ?? '' }}</span>
        <span class="mut tools"
          >{{ desk ? `${desk}, ` : '' }}{{ clockOf(now.toISOString(), shop.zone) }}
          <button type="button" class="who" @click="session.asked = true">
            {{ session.who || 'who?' }}
          </button></span
        >
      </div>
    </section>
    <nav class="phone" aria-label="Screens">
      <RouterLink class="btn small" :to="{ name: 'off', params: { build } }">It came off</RouterLink>
      <button v-if="step" type="button" class="btn small open" @click="leave?.ask()">Leave open</button>
      <button type="button" class="btn small" @click="add?.ask()">Add</button>
      <button type="button" class="btn small" @click="find?.ask()">Find</button>
      <RouterLink
        v-for="s in SCREENS"
        :key="s.name"
        class="btn small"
        :to="{ name: s.name, params: { build } }"
        >{{ s.words }}</RouterLink
      >
    </nav>
    <main id="now" ref="work" class="now" tabindex="-1">
      <div v-if="book.card?.broken" class="live" role="alert">
        <b>Broken at line {{ book.card.broken }} of the log: read only</b
        ><span>Nothing behind it counts. Stop Hollet, look with “hollet verify”, restore a backup.</span>
        {{ ' ' }}<RouterLink class="btn small" :to="{ name: 'log', params: { build } }">Log</RouterLink>
      </div>
      <div
        v-for="d in (book.frame?.dangers ?? []).slice(0, 2)"
        :key="d.step + d.box"
        class="live"
        role="alert"
      >
        <b>{{ d.number }} {{ d.title }}: {{ d.words }}</b>
        {{ ' '
        }}<RouterLink class="btn small" :to="{ name: 'step', params: { build, step: d.step } }"
          >See to it</RouterLink
        >
      </div>
      <div v-if="book.frame?.stopped && desk !== 'load map'" class="block stopped" role="alert">
        <b>Work is stopped.</b>
        {{ ' '
        }}<RouterLink class="btn small" :to="{ name: 'support', params: { build } }"
          >What to make safe</RouterLink
        >
      </div>
      <div v-if="journal.notWritten.length" class="block notwritten" role="alert">
        <div v-for="item in journal.notWritten" :key="item.id" class="refused">
          <span
            ><b>Not written ({{ item.entry.kind }}):</b> {{ item.refused }}</span
          >
          <button type="button" class="btn small" @click="journal.again(item, book.bench?.base.seen ?? 0)">
            Write it again
          </button>
          <button type="button" class="btn small" @click="journal.forget(item.id)">Drop it</button>
        </div>
      </div>
      <div v-if="book.problem" class="block" role="alert">
        <p class="t24">{{ book.problem }}</p>
        <button type="button" class="btn small" @click="book.open(build, step ?? null)">Look again</button>
      </div>
      <TurnedBlock v-if="!running" :build="build" />
      <p v-if="listening" class="block b" role="status">Listening: let V go to keep it</p>
      <p v-if="notHeard" class="block" role="alert">{{ notHeard }}</p>
      <p v-if="goesDark" class="quiet dark">
        This browser lets the screen go dark while a step is in hand: set the display of this device to stay
        on. <button type="button" class="btn small" @click="heard">Heard</button>
      </p>
      <slot />
    </main>
    <footer v-if="!desk" class="next">
      <span class="b label">Next</span>
      <ol>
        <li v-for="(line, k) in (next ?? []).slice(0, 3)" :key="k" :class="{ b: k === 0 }">{{ line }}</li>
      </ol>
      <div v-if="!running" class="acts">
        <div class="pair tight">
          <button type="button" class="btn small open" @click="leave?.ask()">Leave open <kbd>O</kbd></button
          ><button type="button" class="btn small" @click="strikeLast">Strike last <kbd>Bksp</kbd></button
          ><button type="button" class="btn small" @click="add?.ask()">Add <kbd>N</kbd></button
          ><RouterLink class="btn small" :to="{ name: 'off', params: { build } }"
            >It came off <kbd>Q</kbd></RouterLink
          >
        </div>
        <div class="pair tight">
          <RouterLink
            v-for="s in SCREENS"
            :key="s.name"
            class="btn small"
            :to="{ name: s.name, params: { build } }"
            >{{ s.words }} <kbd>{{ s.cap }}</kbd></RouterLink
          >
        </div>
      </div>
    </footer>
    <FindDialog ref="find" :build="build" :step="step" />
    <LedgerDrawer v-model="ledger" :build="build" />
    <StrikeDialog ref="strike" :build="build" />
    <LeaveOpenDialog ref="leave" :step="step ?? null" />
    <AddDialog ref="add" :step="step ?? null" :build="build" />
  </div>
</template>

<style scoped>
.frame {
  display: grid;
  height: calc(100vh - var(--reach, 0px));
  height: calc(100dvh - var(--reach, 0px));
  grid-template:
    'left written' minmax(116px, auto) 'left now' minmax(0, 1fr)
    'left next' 110px / 260px minmax(0, 1fr);
}
.frame.desk {
  grid-template: 'left written' 44px 'left now' minmax(0, 1fr) / 260px minmax(0, 1fr);
}
.left {
  grid-area: left;
  position: relative;
}
.left.empty {
  padding: 10px 14px;
}
.written {
  grid-area: written;
  display: flex;
  padding: 11px 20px 0;
  overflow: hidden;
  gap: 6px 14px;
}
.desk .written {
  padding-top: 7px;
}
.label {
  width: 76px;
  flex: none;
  line-height: 30px;
}
.written ol {
  flex: 1;
  min-width: 0;
  overflow: hidden;
}
.written li {
  display: flex;
  height: 30px;
  line-height: 30px;
  white-space: nowrap;
  overflow: hidden;
}
.written time {
  width: 62px;
  flex: none;
  color: var(--mut);
}
.written li :deep(.line) {
  display: flex;
  align-items: baseline;
  overflow: hidden;
}
/* the words give way, the verdict never */
.written li :deep(.line > *) {
  overflow: hidden;
  text-overflow: ellipsis;
}
.written li :deep(.judged) {
  flex: none;
}
.about {
  text-align: right;
  display: flex;
  flex-direction: column;
  line-height: 30px;
  white-space: nowrap;
  max-width: 316px;
}
.about > span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.desk .about {
  flex-direction: row;
  gap: 14px;
  max-width: 60%;
}
.carried {
  font-weight: 650;
  text-decoration: none;
  white-space: normal;
  line-height: 20px;
  font-size: 16px;
  padding: 2px 0;
}
.live {
  background: var(--out);
  color: var(--now);
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  padding: 6px 12px;
  margin-bottom: 10px;
}
.live .btn {
  flex: none;
}
.dark {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
  margin-bottom: 8px;
}
.dark .btn {
  flex: none;
}
.stopped {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-bottom: 10px;
}
.phone {
  display: none;
}
.who {
  border: 1.5px solid var(--line);
  background: var(--zinc2);
  border-radius: 3px;
  font-weight: 700;
  font-size: 16px;
  line-height: 20px;
  padding: 0 6px;
  vertical-align: middle;
  min-width: 52px;
  height: 26px;
  margin-left: 8px;
  cursor: pointer;
  position: relative;
}
.who::after {
  content: '';
  position: absolute;
  inset: -9px -4px;
}
.now {
  grid-area: now;
  background: var(--now);
  border-top: 8px solid var(--yel);
  border-bottom: 3px solid var(--line);
  overflow: auto;
  min-height: 0;
  padding: 10px 20px;
  outline-offset: -6px;
}
.desk .now {
  border-bottom: 0;
}
.next {
  grid-area: next;
  display: flex;
  padding: 8px 20px;
  gap: 6px;
  overflow: hidden;
}
.next ol {
  flex: 1;
  min-width: 0;
}
.next li {
  height: 30px;
  line-height: 30px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.acts {
  width: 500px;
  flex: none;
  display: flex;
  flex-direction: column;
  gap: 6px;
}
.pair {
  display: flex;
  gap: 8px;
}
.pair > * {
  flex: 1 1 auto;
  padding: 6px 7px;
  gap: 6px;
  white-space: nowrap;
  font-size: 16px;
}
.pair kbd {
  padding: 0 5px;
}
.tight {
  gap: 4px;
}
.tight > * {
  padding: 6px 4px;
  gap: 4px;
}
.tight kbd {
  border: 0;
  padding: 0;
  font-weight: 460;
}
.refused {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.notwritten {
  margin-bottom: 10px;
}
@media (max-width: 1179px) {
  .frame {
    grid-template-columns: 72px minmax(0, 1fr);
  }
  .frame.desk {
    grid-template-columns: 72px minmax(0, 1fr);
  }
}
@media (max-width: 959px) {
  .frame {
    grid-template-rows: minmax(76px, auto) minmax(0, 1fr) 110px;
  }
  .frame:not(.desk) .written li:not(:last-child),
  .about > .mut:not(.tools) {
    display: none;
  }
  .about {
    flex-direction: row;
    gap: 10px;
    max-width: 54%;
    line-height: 40px;
  }
  .about > .b {
    display: none;
  }
  .about > .tools {
    flex: none;
  }
  .written li,
  .label {
    line-height: 40px;
    height: 40px;
  }
  .label {
    width: 76px;
  }
  .acts {
    width: 420px;
  }
  .pair kbd {
    display: none;
  }
  .next li:nth-child(3) {
    display: none;
  }
  .next .label {
    width: 56px;
  }
}
@media (max-width: 600px) {
  .next,
  .label {
    display: none;
  }
  .frame,
  .frame.desk {
    grid-template: 'left' 56px 'written' minmax(38px, auto) 'phone' 52px 'now' minmax(0, 1fr) / minmax(
        0,
        1fr
      );
  }
  .phone {
    grid-area: phone;
    display: flex;
    gap: 6px;
    overflow-x: auto;
    padding: 2px 8px 6px;
  }
  .phone .btn {
    flex: none;
    font-size: 16px;
    padding: 6px 12px;
  }
  .now {
    padding: 10px 12px;
  }
  .written,
  .desk .written {
    padding: 4px 12px 0;
  }
  .written li {
    line-height: 30px;
    height: 30px;
  }
  .written {
    flex-wrap: wrap;
  }
  .about {
    max-width: 100%;
    line-height: 30px;
  }
  .about > .carried {
    order: 1;
    padding: 5px 0;
  }
  .written li:not(:last-child) {
    display: none;
  }
}
</style>
