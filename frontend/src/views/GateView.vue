<script setup lang="ts">
/**
 * May I? Everything left open by the first rung it blocks, in the order to clear, one touch from where it is
 * cleared.
 */
import { computed, onMounted, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useBook } from '@/stores/book'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useServer } from '@/composables/server'

const props = defineProps<{ build: string }>()
const book = useBook()
const router = useRouter()
const debts = () => router.push({ name: 'debts', params: { build: props.build } })
const leaks = () => router.push({ name: 'leaks', params: { build: props.build } })
const faults = () => router.push({ name: 'faults', params: { build: props.build } })
const settle = () => router.push({ name: 'settle', params: { build: props.build } })
useKeys(() => ({ i: debts, u: leaks, y: settle, x: faults }))
const gate = ref<Schemas['GateView'] | null>(null)
const { problem, served } = useServer()
const all = ref<string[]>([])
const total = computed(() => gate.value?.rungs.reduce((n, r) => n + r.items.length, 0) ?? 0)
const shut = computed(() => gate.value?.rungs.find((r) => r.shut) ?? null)
const title = computed(() =>
  shut.value
    ? `${total.value} to clear, the first before ${shut.value.name.toLowerCase()}`
    : 'Nothing left open',
)

async function load() {
  await served(async () => {
    gate.value = await got(
      client.GET('/api/builds/{build}/gate', { params: { path: { build: props.build } } }),
    )
    problem.value = ''
  })
}
onMounted(load)
watch(() => book.frame?.head, load)
const shown = (rung: Schemas['GateAnswer']) =>
  all.value.includes(rung.rung) ? rung.first : rung.first.slice(0, 6)
const opened = ref<string[]>([])
</script>

<template>
  <WorkFrame :build="build" desk="gates">
    <p v-if="problem" class="block" role="alert">{{ problem }}</p>
    <template v-if="gate">
      <h1 class="t28">{{ title }}</h1>
      <p class="line b">{{ gate.line }}</p>
      <button type="button" class="btn small" @click="debts">Bolts not yet final <kbd>I</kbd></button>
      <button type="button" class="btn small" @click="leaks">Fluids and leaks <kbd>U</kbd></button>
      <button type="button" class="btn small" @click="faults">Something is wrong <kbd>X</kbd></button>
      <button type="button" class="btn small" @click="settle">Settling <kbd>Y</kbd></button>
      <div class="cols">
        <ol class="stair">
          <li
            v-for="(rung, k) in gate.rungs"
            :key="rung.rung"
            :style="{ marginLeft: `calc(${k} * var(--indent))` }"
          >
            <h2>
              <span class="t24">{{ rung.name }}</span>
              {{ ' '
              }}<span class="answer" :class="rung.answer.replaceAll(' ', '-')"
                ><i aria-hidden="true" />{{ rung.answer }}{{ rung.limit ? `: ${rung.limit}` : '' }}</span
              ><small v-if="rung.shut && !rung.items.length"> by what stands before it</small>
            </h2>
            <p v-if="rung.check_open.length" class="t16">
              Must be open now: {{ rung.check_open.join(', ') }}
            </p>
            <ol>
              <li v-for="item in shown(rung)" :key="item.id">
                <RouterLink
                  v-if="item.clear_at ?? item.step"
                  class="item"
                  :class="[item.kind, item.rank]"
                  :to="{ name: 'step', params: { build, step: item.clear_at ?? item.step ?? '' } }"
                  ><span
                    >{{ item.what }} <span v-if="item.assumed" class="assumed t16">assumed</span
                    ><small v-if="item.temporary" class="mut">{{ item.undo }}</small
                    ><small v-else-if="item.note" class="too_close">{{ item.note }}</small></span
                  ><small>{{ item.clear_number || item.step_number }}</small></RouterLink
                >
                <RouterLink
                  v-else
                  class="item"
                  :class="[item.kind, item.rank]"
                  :to="{ name: 'support', params: { build } }"
                  ><span>{{ item.what }}</span></RouterLink
                >
              </li>
            </ol>
            <button
              v-if="rung.first.length > 6 && !all.includes(rung.rung)"
              type="button"
              class="btn small more"
              @click="all.push(rung.rung)"
            >
              and {{ rung.first.length - 6 }} more
            </button>
            <div v-if="rung.not_reached.length" class="stages">
              <template v-for="g in rung.not_reached" :key="g.stage">
                <button
                  type="button"
                  class="btn small"
                  :aria-expanded="opened.includes(rung.rung + g.stage)"
                  @click="
                    opened.includes(rung.rung + g.stage)
                      ? opened.splice(opened.indexOf(rung.rung + g.stage), 1)
                      : opened.push(rung.rung + g.stage)
                  "
                >
                  {{ g.words }}
                </button>
                <ul v-if="opened.includes(rung.rung + g.stage)">
                  <li v-for="item in g.items" :key="item.id">
                    <RouterLink :to="{ name: 'step', params: { build, step: item.step ?? '' } }"
                      >{{ item.step_number }} {{ item.what }}</RouterLink
                    >
                  </li>
                </ul>
              </template>
            </div>
          </li>
        </ol>
        <aside>
          <h2 class="t20">Blocks nothing</h2>
          <ul>
            <li v-for="item in gate.nothing" :key="item.id">
              <RouterLink v-if="item.step" :to="{ name: 'step', params: { build, step: item.step } }"
                >{{ item.step_number }} {{ item.what }}</RouterLink
              >
            </li>
          </ul>
          <h2 class="t20">Accepted and assumed</h2>
          <ul>
            <li v-for="note in gate.notes" :key="note" :class="{ too_close: note.endsWith('assumed') }">
              {{ note }}
            </li>
          </ul>
          <a class="btn small" :href="`/api/builds/${build}/attempts.csv`" download>Attempts as CSV</a>
        </aside>
      </div>
    </template>
  </WorkFrame>
</template>

<style scoped>
.line {
  margin: 4px 0 12px;
}
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 28px;
}
.stair {
  --indent: 26px;
  display: grid;
  gap: 14px;
}
.stair h2 {
  display: flex;
  align-items: baseline;
  gap: 12px;
  flex-wrap: wrap;
}
.answer {
  font-weight: 700;
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.answer i {
  width: 34px;
  height: 8px;
  background: var(--ink);
}
.answer.nothing-left-open i {
  background: none;
  border: 1.6px solid var(--ink);
}
.answer.limited i {
  background: none;
  border: 1.6px solid var(--ink);
  border-right: 12px solid var(--ink);
}
.answer.limited {
  color: var(--close);
}
.item {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  border: 2px solid var(--line);
  min-height: 46px;
  padding: 8px 14px;
  margin-top: 4px;
  text-decoration: none;
  align-items: center;
  max-width: 620px;
  background: var(--now);
}
.item.temporary,
.item.joint {
  border-color: var(--vio);
}
.item small {
  display: block;
  font-size: 16px;
}
.item.danger {
  border: 4px solid var(--out);
  color: var(--out);
  font-weight: 700;
}
.item.wrong {
  border-color: var(--out);
}
.stages {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 6px;
  max-width: 620px;
}
.stages ul {
  flex-basis: 100%;
}
.stages li a {
  display: inline-block;
  min-height: 36px;
  line-height: 36px;
}
.more {
  margin-top: 4px;
}
aside {
  display: grid;
  gap: 8px;
  align-content: start;
}
aside li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
  font-size: 16px;
}
aside a:not(.btn) {
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
}
@media (max-width: 959px) {
  .cols {
    grid-template-columns: 1fr;
  }
  .stair {
    --indent: 12px;
  }
}
</style>
