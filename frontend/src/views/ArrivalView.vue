<script setup lang="ts">
/** What came, compared feature by feature with the old part or its drawing; then taken or refused. */
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import OldNew from '@/drawings/OldNew.vue'
import StopBar from '@/drawings/StopBar.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import RefuseDialog from '@/shell/RefuseDialog.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useParts } from '@/stores/parts'

const props = defineProps<{ build: string; need: string }>()
const book = useBook()
const parts = useParts()
const router = useRouter()
const route = useRoute()
const { problem, served } = useServer()
const arrival = ref<Schemas['Arrival'] | null>(null)
const picked = ref<string | null>(null)
const old = ref('')
const fresh = ref('')
const within = ref('')
const source = ref('')
const refuse = ref<InstanceType<typeof RefuseDialog> | null>(null)
const oldField = ref<HTMLInputElement | null>(null)
const SHAPES = { open: 'not_read', fits: 'inside', differs: 'outside' } as const

const order = computed(() => (typeof route.query.order === 'string' ? route.query.order : null))
const view = computed(() => (parts.build === props.build ? parts.view : null))
const row = computed(() =>
  [...(view.value?.groups ?? []).flatMap((g) => g.rows), ...(view.value?.free ?? [])].find(
    (r) => r.need.id === props.need,
  ),
)
const placed = computed(() => view.value?.orders.find((o) => o.order.id === order.value) ?? null)
const features = computed(() => arrival.value?.features ?? [])
const todo = computed(() => features.value.filter((f) => f.todo))
const bad = computed(() => features.value.filter((f) => f.differs))
const now = computed(() => features.value.find((f) => f.feature === picked.value) ?? todo.value.at(0) ?? null)
const drawn = computed(() => {
  const measured = features.value.filter((f) => f.old_mm !== null)
  return measured.find((f) => f.feature === picked.value) ?? measured.find((f) => f.differs) ?? measured.at(0)
})
const pieces = computed(() => (order.value ? (row.value?.need.here ?? 1) : row.value?.need.left || 1))
const title = computed(() => {
  const name = row.value?.name ?? ''
  if (bad.value.length) return `${name}: ${bad.value[0].feature} differs`
  if (todo.value.length && features.value.length)
    return `${name}: ${features.value.length - todo.value.length} of ${features.value.length} compared`
  return `${name}: ${features.value.length ? 'every feature fits' : 'kind and count'}`
})

async function load() {
  const { build, need } = props
  const found = await served(() =>
    got(
      client.GET('/api/builds/{build}/parts/{need}/arrival', {
        params: { path: { build, need }, query: { order: order.value } },
      }),
    ),
  )
  if (found) arrival.value = found
}
watch(
  () => [props.build, props.need, order.value, book.frame?.head],
  () => {
    void parts.load(props.build)
    void load()
  },
  { immediate: true },
)
/** Only another feature brings other figures in: what is typed stays while the page is read anew. */
watch(
  () => now.value?.feature,
  () => {
    old.value = now.value?.old ?? ''
    fresh.value = now.value?.new ?? ''
    within.value = now.value?.within ?? ''
    source.value = now.value?.within_source ?? ''
  },
)
async function laid() {
  if (!now.value || !old.value.trim() || !fresh.value.trim()) return
  const done = await book.handed({
    kind: 'feature compared',
    need: props.need,
    order: order.value,
    feature: now.value.feature,
    old: old.value.trim(),
    new: fresh.value.trim(),
    within: within.value.trim() || null,
    within_source: source.value.trim() || null,
  })
  if (done) {
    picked.value = null
    oldField.value?.focus()
  }
}
const back = () => void router.push({ name: 'parts', params: { build: props.build } })
async function take() {
  const how = arrival.value?.by_press && !features.value.length ? 'counted' : 'compared'
  const done = await book.handed({
    kind: 'part taken',
    need: props.need,
    order: order.value,
    count: pieces.value,
    how,
  })
  if (done) back()
}
const askRefuse = () => order.value && row.value && refuse.value?.ask('refuse')
const askWriting = () => row.value && refuse.value?.ask('in_writing')
useKeys(() => ({
  t: () => void take(),
  r: askRefuse,
  c: askWriting,
  Escape: back,
}))
</script>

<template>
  <WorkFrame :build="build" desk="parts">
    <p v-if="problem || parts.problem" class="block" role="alert">{{ problem || parts.problem }}</p>
    <div v-if="arrival && row && view" class="cols">
      <div class="main">
        <h1 class="t28">{{ title }}</h1>
        <p class="mut">
          {{ arrival.sort_name }}{{ placed ? `, from ${placed.order.supplier}` : ', off the shelf' }}. Old
          against new, or against the drawing.
        </p>
        <OldNew
          v-if="drawn"
          :shape="arrival.shape"
          :old="drawn.old_mm ?? 0"
          :fresh="drawn.new_mm ?? 0"
          :fits="!drawn.differs"
          :words="`${drawn.feature}: ${drawn.words}`"
        />
        <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
        <form v-if="now" class="entry-row" @submit.prevent="laid">
          <label class="field"
            ><span>the old: {{ now.feature }}{{ now.unit ? `, ${now.unit}` : '' }}</span
            ><input
              ref="oldField"
              v-model="old"
              class="entry"
              name="old"
              maxlength="80"
              autocomplete="off" /></label
          ><label class="field"
            ><span>the new</span
            ><input v-model="fresh" class="entry" name="new" maxlength="80" autocomplete="off" /></label
          ><label class="field"
            ><span>may differ by</span
            ><input v-model="within" class="entry" name="within" maxlength="40" autocomplete="off" /></label
          ><label class="field"
            ><span>says who</span
            ><input v-model="source" class="entry" name="source" maxlength="120" autocomplete="off" /></label
          ><button type="submit" class="btn small" :disabled="!old.trim() || !fresh.trim()">
            Laid beside
          </button>
        </form>
        <p v-if="!features.length" class="quiet">
          Kind and count are all that is looked at: hold it against what the step needs, and count.
        </p>
        <ul class="features">
          <li v-for="(f, k) in features" :key="f.feature">
            <button type="button" :class="{ now: f.feature === now?.feature }" @click="picked = f.feature">
              <span class="n">{{ k + 1 }}</span><b>{{ f.feature }}</b
              ><span>{{ f.old }}</span
              ><span class="b" :class="{ outside: f.differs }">{{ f.new }}</span
              ><span class="how"
                ><VerdictMark :verdict="SHAPES[f.state]" side="high" :size="7" /><small
                  :class="{ mut: f.todo, outside: f.differs }"
                  >{{ f.words || 'not compared' }}</small
                ></span
              >
            </button>
          </li>
        </ul>
      </div>
      <aside>
        <div class="decide">
          <button type="button" class="btn" @click="take">Take it <kbd>T</kbd></button>
          <button v-if="order" type="button" class="btn" @click="askRefuse">Refuse it <kbd>R</kbd></button>
          <button type="button" class="btn" @click="askWriting">Take it in writing <kbd>C</kbd></button>
        </div>
        <h2 class="t20">What it stops</h2>
        <div class="stops">
          <StopBar :free="row.stops" :rungs="view.rungs" :word="row.stops_words" :cell="32" :high="28" /><b>{{
            row.stops_words
          }}</b>
        </div>
        <ul>
          <li v-for="(r, k) in row.need.reasons" :key="k">{{ r.count }} for {{ r.number }} {{ r.title }}</li>
        </ul>
        <p v-if="row.need.safety" class="block">
          A safety part ({{ row.need.safety }}): taken in writing it keeps its rung shut until it was
          inspected.
        </p>
        <template v-if="placed">
          <h2 class="t20">This order</h2>
          <ul>
            <li v-for="p in placed.order.parts" :key="p.need">
              <RouterLink :to="{ name: 'arrival', params: { build, need: p.need }, query: { order } }"
                >{{ p.count }} × {{ p.name }}</RouterLink
              >
              <small>{{ p.arrived }} arrived{{ p.refused ? `, ${p.refused} refused` : '' }}</small>
            </li>
          </ul>
        </template>
        <button type="button" class="btn small" @click="back">Back to the parts <kbd>Esc</kbd></button>
      </aside>
    </div>
    <RefuseDialog
      v-if="row"
      ref="refuse"
      :row="row"
      :order="order"
      :most="pieces"
      :wrong="bad.map((f) => `${f.feature}: ${f.words}`).join('; ')"
      @done="back"
    />
  </WorkFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 28px;
}
.features button {
  display: grid;
  grid-template-columns: 30px minmax(0, 1.1fr) 100px 100px minmax(0, 1.2fr);
  gap: 10px;
  align-items: center;
  width: 100%;
  min-height: 50px;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  text-align: left;
  cursor: pointer;
}
.features button.now .n {
  background: var(--yel);
  color: var(--onyel);
}
.n {
  border: 2px solid var(--line);
  border-radius: 50%;
  width: 28px;
  height: 28px;
  text-align: center;
  line-height: 24px;
  font-size: 16px;
  font-weight: 700;
}
.how {
  display: flex;
  gap: 8px;
  align-items: center;
}
.entry-row {
  display: grid;
  grid-template-columns: 1.2fr 1fr 130px 1fr auto;
  gap: 8px;
  align-items: end;
  border-bottom: 3px solid var(--ink);
  padding: 4px 0 8px;
}
.decide {
  display: grid;
  gap: 8px;
}
aside {
  display: grid;
  gap: 10px;
  align-content: start;
}
.stops {
  display: flex;
  gap: 10px;
  align-items: center;
}
aside li {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
aside li a {
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
}
small {
  font-size: 16px;
}
aside small {
  display: block;
}
@media (max-width: 1179px) {
  .cols,
  .entry-row {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (max-width: 700px) {
  .features button {
    grid-template-columns: 30px 1fr;
  }
}
</style>
