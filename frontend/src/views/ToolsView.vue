<script setup lang="ts">
/**
 * The shop's tools: figures as half-widths, checks against a standard, the hands of the user, zeroing,
 * setting a gauge.
 */
import { computed, onMounted, ref } from 'vue'
import { client, type FigureRow, got, type Instrument } from '@/api/client'
import { useKeys } from '@/composables/keys'
import VerdictMark from '@/drawings/VerdictMark.vue'
import HeardBlock from '@/shell/HeardBlock.vue'
import MarkLogo from '@/shell/MarkLogo.vue'
import ToolCheckDialog from '@/shell/ToolCheckDialog.vue'
import ToolTrialDialog from '@/shell/ToolTrialDialog.vue'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import { priceOf } from '@/composables/desk'
import { useServer } from '@/composables/server'

type Draft = Record<string, string | boolean | null>
const shop = useShop()
const session = useSession()
const editing = ref<Draft | null>(null)
const version = ref(0)
const setting = ref<Instrument | null>(null)
const master = ref('')
const at = ref('')
const { problem, served } = useServer()
const said = ref('')
const FIELDS = [
  ['code', 'code on the tool'],
  ['name', 'name'],
  ['unit', 'unit'],
  ['lo', 'range from'],
  ['hi', 'range to'],
  ['resolution', 'resolution'],
  ['mpe', 'permissible error ±'],
  ['mpe_percent', 'permissible error ± %'],
  ['s', 'usual repeatability s'],
  ['offset', 'known offset (reads too much)'],
  ['zero_error', 'zero error ±'],
  ['setting_s', 'repeatability of setting'],
  ['grip_mm', 'length to the grip, mm'],
  ['checked', 'last checked'],
  ['source', 'figures from'],
] as const
type Gear = { name: string; state: string; whose: string; back: string; aDay: string; instead: string }
const BLANK: Gear = { name: '', state: 'owned', whose: '', back: '', aDay: '', instead: '' }
const gearSaid = ref({ ...BLANK })
const STATES = ['owned', 'borrowed', 'rented', 'missing', 'broken', 'faulty', 'lent'] as const
const shown = computed(() => shop.tools.filter((t) => !t.retired))
type OwnPress = {
  say: string
  label: (t: Instrument) => string
  press: (t: Instrument) => unknown
  sets: boolean
}
const ZERO: OwnPress = {
  say: 'Zeroed',
  label: (t: Instrument) => `${t.code} zeroed`,
  press: zeroed,
  sets: true,
}
const SET: OwnPress = { say: 'Set', label: (t: Instrument) => `Set ${t.code}`, press: askSet, sets: false }
const OWN_PRESS: Partial<Record<string, OwnPress>> = { micrometer: ZERO, 'bore gauge': SET }
const masters = computed(() => shown.value.filter((t) => OWN_PRESS[t.kind]?.sets))
const KINDS = [
  'micrometer',
  'bore gauge',
  'caliper',
  'depth gauge',
  'dial indicator',
  'feeler',
  'gauge strip',
  'rule',
  'straight edge',
  'jug',
  'pressure gauge',
  'thermometer',
  'timing light',
  'voltmeter',
  'ohmmeter',
  'angle gauge',
  'leak-down tester',
  'burette',
  'scale',
  'click wrench',
  'indicating wrench',
]

const checking = ref<InstanceType<typeof ToolCheckDialog> | null>(null)
const trying = ref<InstanceType<typeof ToolTrialDialog> | null>(null)
const fits = ref<FigureRow[]>([])
const asked = ref(false)
const states = computed(() => shop.view?.standings ?? {})
async function decide(build: string) {
  fits.value = []
  asked.value = build !== ''
  if (!build) return
  await served(async () => {
    const book = (await got<unknown>(
      client.GET('/api/builds/{build}/limits', { params: { path: { build } } }),
    )) as { rows: FigureRow[] }
    fits.value = book.rows.filter((r) => r.limit && r.fit)
  })
}
onMounted(() => void shop.load())
useKeys(() => ({ d: session.toggleTheme }))
function edit(tool: Instrument | null) {
  problem.value = said.value = ''
  version.value = tool?.version ?? 0
  editing.value = tool
    ? ({ ...tool } as unknown as Draft)
    : { code: '', name: '', kind: 'micrometer', dimension: 'length', unit: 'mm', resolution: '0.001' }
}
function preset(event: Event) {
  const found = shop.view?.presets[Number((event.target as HTMLSelectElement).value)]
  if (found && editing.value) editing.value = { ...editing.value, ...(found as Draft) }
}
/** Whether it was taken; what was refused stays in its fields. */
async function run(call: () => Promise<unknown>, words: string): Promise<boolean> {
  const taken = await served(async () => {
    await call()
    return true
  })
  if (!taken) return false
  editing.value = setting.value = null
  said.value = words
  await shop.load()
  return true
}
async function save() {
  const who = await session.whoIsIt()
  const draft = editing.value
  if (!draft) return
  const tool = Object.fromEntries(
    Object.entries(draft).filter(([key, value]) => value !== '' && value !== null && key !== 'version'),
  )
  await run(
    () =>
      got(
        client.POST('/api/tools', {
          body: { who, tool: tool as Record<string, never>, version: version.value },
        }),
      ),
    `${String(draft.code)} is kept.`,
  )
}
async function zeroed(tool: Instrument) {
  const who = await session.whoIsIt()
  await run(
    () =>
      got(client.POST('/api/tools/{tool}/zeroed', { params: { path: { tool: tool.id } }, body: { who } })),
    `${tool.code} zeroed: readings from before and after no longer share its zero error.`,
  )
}
function askSet(tool: Instrument) {
  setting.value = tool
  master.value = tool.set_with?.id ?? masters.value[0]?.id ?? ''
  at.value = tool.setting ?? ''
  problem.value = ''
}
async function gear({ name, state, whose, back, aDay, instead }: Gear) {
  if (!name.trim()) return
  const who = await session.whoIsIt()
  const known = shop.view?.gear.find((g) => g.id === name.trim().toLowerCase())
  const taken = await run(
    () =>
      got(
        client.POST('/api/gear', {
          body: {
            who,
            name: name.trim(),
            state: state as 'owned',
            whose: whose || null,
            back_by: back || null,
            a_day: priceOf(aDay),
            substitute: instead.trim() || null,
            version: known?.version ?? 0,
          },
        }),
      ),
    `${name.trim()}: ${state}.`,
  )
  if (taken) gearSaid.value = { ...BLANK }
}
async function setGauge() {
  const who = await session.whoIsIt()
  const tool = setting.value
  if (!tool) return
  await run(
    () =>
      got(
        client.POST('/api/tools/{tool}/set', {
          params: { path: { tool: tool.id } },
          body: { who, master: master.value, setting: at.value },
        }),
      ),
    `${tool.code} is set.`,
  )
}
/** A device that is heard is this tool of the shop, or none any more. */
async function speaks(tool: Instrument, device: string | null) {
  const who = await session.whoIsIt()
  const body = {
    who,
    tool: { ...tool, device } as unknown as Record<string, never>,
    version: tool.version ?? 0,
  }
  await run(
    () => got(client.POST('/api/tools', { body })),
    device ? `${tool.code} speaks for itself now.` : `${tool.code} is typed again.`,
  )
}
function tried(words: string) {
  said.value = words
  void shop.load()
}
</script>

<template>
  <div class="page">
    <section class="top" aria-label="Hollet">
      <MarkLogo /><button type="button" class="btn small" @click="edit(null)">A new tool</button>
    </section>
    <main>
      <h1 v-if="shop.view || shop.problem" class="t28">{{ shown.length }} measuring tools</h1>
      <p v-if="said" class="quiet" role="status">{{ said }}</p>
      <p v-if="shop.problem" class="block" role="alert">{{ shop.problem }}</p>
      <p v-if="problem && !editing && !setting" class="block" role="alert">{{ problem }}</p>
      <div v-if="shown.length" class="scroll" tabindex="0" role="region" aria-label="Measuring tools">
        <table>
          <thead>
            <tr>
              <th>Tool</th>
              <th>Its state</th>
              <th>Range</th>
              <th>Permissible ±, shows</th>
              <th>s, whose hands</th>
              <th>Zero ±, offset, set with</th>
              <th><span class="sr">Acts</span></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="t in shown" :key="t.id">
              <td>
                <b>{{ t.code }}</b> {{ t.name }}
              </td>
              <td>
                <template v-if="states[t.id]"
                  ><VerdictMark :verdict="states[t.id].sign" :size="8" :word="states[t.id].words" /> {{ ' '
                  }}<span :class="states[t.id].sign">{{ states[t.id].words }}</span></template
                >
              </td>
              <td class="nowrap">{{ t.lo ?? '' }} to {{ t.hi ?? '' }} {{ t.unit }}</td>
              <td>
                <b>{{ t.mpe ?? (t.mpe_percent ? `${t.mpe_percent} %` : '–') }}</b>, {{ t.resolution }}
              </td>
              <td>
                {{ t.s ?? 'not known'
                }}<span v-for="h in t.hands ?? []" :key="h.who" class="t16 mut nowrap hands">
                  {{ h.who }} {{ h.s }}, {{ h.n }}×</span
                >
              </td>
              <td>
                {{ t.zero_error }}, {{ t.offset
                }}{{ t.set_with ? `, ${t.set_with.code} at ${t.setting}` : '' }}
              </td>
              <td>
                <div class="acts">
                  <button
                    type="button"
                    class="btn small"
                    :aria-label="`Check ${t.code}`"
                    @click="checking?.ask(t)"
                  >
                    Check</button
                  ><button
                    type="button"
                    class="btn small"
                    :aria-label="`Hands with ${t.code}`"
                    @click="trying?.ask(t)"
                  >
                    Hands</button
                  ><button type="button" class="btn small" :aria-label="`Edit ${t.code}`" @click="edit(t)">
                    Edit</button
                  ><button
                    v-for="own in OWN_PRESS[t.kind] ? [OWN_PRESS[t.kind]!] : []"
                    :key="own.say"
                    type="button"
                    class="btn small"
                    :aria-label="own.label(t)"
                    @click="own.press(t)"
                  >
                    {{ own.say }}
                  </button>
                </div>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-else-if="shop.view" class="t20">
        No measuring tool yet. Without its tools Hollet cannot say whether a reading is inside.
      </p>
      <HeardBlock v-if="shown.length" :tools="shown" @is="speaks" />
      <section v-if="shop.view?.builds.length && shown.length" class="decides">
        <h2 class="t28">Which tool can decide it</h2>
        <label class="field pickbuild"
          ><span>of which build</span
          ><select class="entry" name="decides" @change="decide(($event.target as HTMLSelectElement).value)">
            <option value="">choose</option>
            <option v-for="b in shop.view.builds" :key="b.id" :value="b.id">{{ b.name }}</option>
          </select></label
        >
        <table v-if="fits.length">
          <thead>
            <tr>
              <th>Figure</th>
              <th>Allowed</th>
              <th>Best tool of the shop</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="f in fits" :key="f.id">
              <td>
                <b>{{ f.name }}</b> <span class="t16 mut">{{ f.condition }}</span>
              </td>
              <td class="nowrap">{{ f.words }}</td>
              <td>
                <VerdictMark
                  :verdict="f.fit?.fits ? 'inside' : 'outside'"
                  :size="8"
                  :word="f.fit?.fits ? 'can decide' : 'cannot decide'"
                />
                {{ f.fit?.words }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-else-if="asked">Nothing to decide there yet: no figure is given that a tool could meet.</p>
      </section>
      <template v-if="shop.view">
        <h2 class="t28 gearhead">Other tools</h2>
        <p v-if="!shop.view.gear.length">
          What a step needs and the shop has not got goes onto the hunt list. Say here what there is.
        </p>
        <table v-else class="others">
          <tbody>
            <tr v-for="g in shop.view.gear" :key="g.id">
              <td class="b">{{ g.name }}</td>
              <td>
                <select
                  class="entry"
                  :aria-label="`${g.name} is`"
                  :value="g.state"
                  @change="
                    gear({
                      name: g.name,
                      state: ($event.target as HTMLSelectElement).value,
                      whose: g.whose ?? '',
                      back: g.back_by ?? '',
                      aDay: g.a_day?.toString() ?? '',
                      instead: g.substitute ?? '',
                    })
                  "
                >
                  <option v-for="s in STATES" :key="s">{{ s }}</option>
                </select>
              </td>
              <td>{{ g.whose ?? '' }}</td>
              <td>
                {{ g.back_by ? `back by ${g.back_by}` : ''
                }}{{ g.a_day ? `, ${shop.money(g.a_day.toFixed(2))} a day` : '' }}
              </td>
              <td>{{ g.substitute ? `instead: ${g.substitute}` : '' }}</td>
            </tr>
          </tbody>
        </table>
        <form class="gear" @submit.prevent="gear(gearSaid)">
          <label class="field"
            ><span>tool</span
            ><input v-model="gearSaid.name" class="entry" name="gear-name" maxlength="80" autocomplete="off"
          /></label>
          <label class="field"
            ><span>is</span
            ><select v-model="gearSaid.state" class="entry" name="gear-state">
              <option v-for="s in STATES" :key="s">{{ s }}</option>
            </select></label
          >
          <label class="field"
            ><span>from or with whom</span
            ><input
              v-model="gearSaid.whose"
              class="entry"
              name="gear-whose"
              maxlength="80"
              autocomplete="off"
          /></label>
          <label class="field"
            ><span>back by</span
            ><input v-model="gearSaid.back" class="entry" name="gear-back" maxlength="40" autocomplete="off"
          /></label>
          <label class="field"
            ><span>rented: a day costs</span
            ><input
              v-model="gearSaid.aDay"
              class="entry"
              name="gear-day"
              inputmode="decimal"
              autocomplete="off"
          /></label>
          <label class="field"
            ><span>instead of it, and its risk</span
            ><input
              v-model="gearSaid.instead"
              class="entry"
              name="gear-instead"
              maxlength="200"
              autocomplete="off"
          /></label>
          <button type="submit" class="btn small" :disabled="!gearSaid.name.trim()">Write it down</button>
        </form>
      </template>
    </main>
    <ToolCheckDialog ref="checking" @done="shop.load()" /><ToolTrialDialog ref="trying" @done="tried" />
    <el-dialog
      :model-value="editing !== null"
      :title="version ? `Edit ${String(editing?.code ?? '')}` : 'A new tool'"
      width="760"
      append-to-body
      @close="editing = null"
    >
      <form v-if="editing" class="form" @submit.prevent="save">
        <label class="field wide"
          ><span>Begin from a typical one; your certificate comes first</span
          ><select class="entry" @change="preset">
            <option value="">choose</option>
            <option v-for="(p, k) in shop.view?.presets ?? []" :key="k" :value="k">{{ p.name }}</option>
          </select></label
        >
        <label class="field"
          ><span>kind</span
          ><select v-model="editing.kind as string" class="entry">
            <option v-for="k in KINDS" :key="k">{{ k }}</option>
          </select></label
        >
        <label v-for="[key, words] in FIELDS" :key="key" class="field"
          ><span>{{ words }}</span
          ><input v-model="editing[key] as string" class="entry" :name="key" autocomplete="off"
        /></label>
        <p v-if="problem" class="problem wide" role="alert">{{ problem }}</p>
        <button type="submit" class="btn wide">Keep it</button>
      </form>
    </el-dialog>
    <el-dialog
      :model-value="setting !== null"
      :title="`Set ${setting?.code ?? ''}`"
      width="560"
      append-to-body
      @close="setting = null"
    >
      <form class="form" @submit.prevent="setGauge">
        <label class="field"
          ><span>with</span
          ><select v-model="master" class="entry">
            <option v-for="m in masters" :key="m.id" :value="m.id">{{ m.code }} {{ m.name }}</option>
          </select></label
        >
        <label class="field"
          ><span>at, {{ setting?.unit }}</span
          ><input v-model="at" class="entry" name="setting"
        /></label>
        <p class="t16 wide">
          Its readings then carry the zero error of that micrometer; in a difference with readings of the same
          micrometer it drops out.
        </p>
        <p v-if="problem" class="problem wide" role="alert">{{ problem }}</p>
        <button type="submit" class="btn wide">It is set</button>
      </form>
    </el-dialog>
  </div>
</template>

<style scoped>
.hands {
  display: block;
}
.gearhead {
  margin-top: 22px;
}
.gear {
  display: grid;
  grid-template-columns: 2fr 1fr 1.4fr 1fr 1fr 2fr auto;
  gap: 10px;
  align-items: end;
  margin-top: 12px;
  max-width: 1240px;
}
@media (max-width: 959px) {
  .gear {
    grid-template-columns: 1fr 1fr;
  }
}
.page {
  min-height: 100dvh;
  display: grid;
  grid-template-rows: 76px 1fr;
}
.top {
  padding: 16px 20px;
  display: flex;
  justify-content: space-between;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  padding: 18px 20px;
  overflow-x: auto;
}
.nowrap {
  white-space: nowrap;
}
.scroll {
  overflow-x: auto;
}
.decides {
  margin-top: 22px;
}
.pickbuild {
  max-width: 420px;
  margin: 6px 0 10px;
}
.acts {
  display: flex;
  gap: 6px;
}
.form {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 12px;
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
@media (max-width: 959px) {
  table:not(.others) td:nth-child(4),
  th:nth-child(4),
  table:not(.others) td:nth-child(6),
  th:nth-child(6) {
    display: none;
  }
  .form {
    grid-template-columns: 1fr 1fr;
  }
  .acts {
    display: grid;
    grid-template-columns: 1fr 1fr;
  }
  .acts .btn {
    padding: 6px 8px;
  }
}
</style>
