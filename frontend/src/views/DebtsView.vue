<script setup lang="ts">
/** What is not yet final: joint by joint, by what closes over it next. One press goes to the bolt. */
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useView } from '@/composables/view'
import DebtRow from '@/shell/DebtRow.vue'
import WorkFrame from '@/shell/WorkFrame.vue'

const props = defineProps<{ build: string }>()
const router = useRouter()
const { view, problem } = useView<Schemas['DebtsView']>(
  () => client.GET('/api/builds/{build}/debts', { params: { path: { build: props.build } } }),
  () => props.build,
)
const filter = ref('all')
const chosen = computed(
  () => view.value?.filters.find((f) => f.id === filter.value) ?? view.value?.filters[0],
)
const groups = computed(() => view.value?.groups.filter((g) => chosen.value?.groups.includes(g.id)) ?? [])
const first = computed(() => view.value?.groups[0] ?? null)

function go() {
  const next = view.value?.next
  if (next) void router.push({ name: 'step', params: { build: props.build, step: next.step } })
}
const paper = computed(() => `/api/builds/${props.build}/debts.pdf`)
function turn(by: number) {
  const all = view.value?.filters ?? []
  const at = all.findIndex((f) => f.id === chosen.value?.id)
  filter.value = all[(at + by + all.length) % all.length]?.id ?? 'all'
}
useKeys(() => ({
  ' ': go,
  PageDown: go,
  ArrowLeft: () => turn(-1),
  ArrowRight: () => turn(1),
  p: () => void window.open(paper.value, '_blank'),
  Escape: () => void router.push({ name: 'gate', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="not yet final">
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="view" class="desk">
      <div class="list">
        <h1 class="t28">{{ view.title }}</h1>
        <div v-if="view.filters.length > 1" class="tabs" role="group" aria-label="Which">
          <button
            v-for="f in view.filters"
            :key="f.id"
            type="button"
            :aria-pressed="f.id === chosen?.id"
            @click="filter = f.id"
          >
            {{ f.name }} {{ f.count }}
          </button>
        </div>
        <section v-for="g in groups" :key="g.id" :aria-label="g.title">
          <h2>
            <RouterLink v-if="g.step" :to="{ name: 'step', params: { build, step: g.step } }">{{
              g.title
            }}</RouterLink><template v-else>{{ g.title }}</template
            ><span>{{ g.left }}</span>
          </h2>
          <ul>
            <DebtRow
              v-for="d in g.debts"
              :key="d.joint"
              :debt="d"
              :build="build"
              :hidden="g.id === first?.id && g.closing === 'cover'"
            />
          </ul>
        </section>
        <section v-if="view.again.length && filter === 'all'" aria-label="Due again">
          <h2>
            Final, and due again<span>{{ view.again.length }}</span>
          </h2>
          <ul>
            <li v-for="d in view.again" :key="d.joint" class="again">
              <RouterLink :to="{ name: 'step', params: { build, step: d.step } }"
                ><b>{{ d.name }}</b> <span class="mut">{{ d.step_number }} {{ d.title }}</span></RouterLink
              >
            </li>
          </ul>
        </section>
        <p v-if="view.to_come" class="mut">{{ view.to_come }}.</p>
        <p v-if="groups.length" class="t16 key">
          <svg width="16" height="16" aria-hidden="true"><circle cx="8" cy="8" r="6" class="other" /></svg>
          waits for something else
          <svg width="16" height="16" aria-hidden="true">
            <rect x="2" y="2" width="12" height="12" class="alone" />
          </svg>
          waits for you alone
        </p>
      </div>
      <aside v-if="first" class="side">
        <h2 class="t28">{{ first.closing === 'nothing' ? 'Nothing closes' : 'Before it closes' }}</h2>
        <p class="of">
          <span class="t60">{{ first.left }}</span> not final
        </p>
        <ol>
          <li v-for="(d, k) in first.debts.slice(0, 4)" :key="d.joint">
            <i>{{ k + 1 }}</i><span
              ><b>{{ d.name }}</b
              ><small>{{ d.alone ? d.reason : d.waits }}</small></span
            >
          </li>
        </ol>
        <p v-if="first.debts.length > 4" class="mut">and {{ first.debts.length - 4 }} more</p>
        <ul v-if="view.ended.length" class="ended" aria-label="Opened again">
          <li v-for="words in view.ended" :key="words">{{ words }}</li>
        </ul>
        <p>{{ view.passing }}</p>
        <a class="btn small" :href="paper" target="_blank">Print it <kbd>P</kbd></a>
        <button
          v-if="view.next"
          type="button"
          class="btn primary"
          :class="{ long: view.next.words.length > 15 }"
          @click="go"
        >
          {{ view.next.words }}<kbd>Space or right pedal</kbd>
        </button>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.desk {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 20px;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin: 4px 0 8px;
}
.tabs button {
  min-height: 44px;
  border: 0;
  border-bottom: 4px solid transparent;
  background: none;
  font: inherit;
  font-size: 18px;
  color: inherit;
  cursor: pointer;
  padding: 0 2px;
}
.tabs button[aria-pressed='true'] {
  border-color: var(--ink);
  font-weight: 760;
}
h2 {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 18px;
  font-weight: 680;
  border-top: 2px solid var(--ink);
  margin: 0;
  padding: 6px 0;
}
h2 a {
  color: inherit;
}
h2 span {
  font-weight: 460;
}
.again a {
  display: block;
  min-height: 44px;
  padding-top: 10px;
  color: inherit;
  text-decoration: none;
}
.again {
  border-top: 1px solid var(--hair);
}
.key {
  display: flex;
  align-items: center;
  gap: 6px;
}
.key svg + * {
  margin-right: 12px;
}
.other {
  fill: none;
  stroke: var(--vio);
  stroke-width: 3.4;
}
.alone {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.side h2 {
  border: 0;
  font-size: 28px;
  font-weight: 800;
}
.of {
  display: flex;
  align-items: center;
  gap: 8px;
  font-weight: 680;
  margin: 0 0 8px;
}
.t60 {
  font-size: 60px;
  font-weight: 850;
  line-height: 1;
}
.side ol li {
  display: grid;
  grid-template-columns: 34px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--hair);
  min-height: 58px;
}
.side ol i {
  font-style: normal;
  font-weight: 760;
  width: 30px;
  height: 30px;
  border: 2px solid var(--ink);
  border-radius: 50%;
  display: grid;
  place-items: center;
}
.side small {
  display: block;
  font-size: 16px;
  font-weight: 460;
}
.ended {
  border: 3px solid var(--vio);
  padding: 8px 10px;
  margin: 10px 0;
}
.side .btn.small {
  display: inline-flex;
  margin: 8px 0;
}
@media (max-width: 1000px) {
  .desk {
    display: flex;
    flex-direction: column;
    gap: 8px;
  }
  .list {
    display: contents;
  }
  .list h1 {
    order: -2;
  }
  .side {
    order: -1;
  }
}
</style>
