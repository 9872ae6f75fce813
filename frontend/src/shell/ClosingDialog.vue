<script setup lang="ts">
/**
 * The closing card of an evening: what was done, all its pauses, and of what cost time one question: where
 * should
 * this have been said?
 */
import { ref } from 'vue'
import { client, got, type Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { clockOf } from '@/composables/time'
import { useCalendar } from '@/stores/calendar'
import { usePlan } from '@/stores/plan'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'

const calendar = useCalendar()
const session = useSession()
const plan = usePlan()
const shop = useShop()
const open = ref(false)
const view = ref<Schemas['ClosingView'] | null>(null)
const { problem, served } = useServer()
const texts = ref<Record<string, string>>({})
const steps = ref<Record<string, string>>({})

async function load() {
  const found = await served(() => got(client.GET('/api/closing')))
  if (!found) return
  view.value = found
  for (const a of found.builds.flatMap((b) => b.asks)) steps.value[a.note] ??= a.before ?? ''
}
async function ask() {
  open.value = true
  await load()
}
async function said(pause: Schemas['PauseRow'], cause: string) {
  const who = await session.whoIsIt()
  const entry = { kind: 'pause said' as const, after: pause.after, cause: cause as 'work' }
  await served(() => shop.write(pause.build, who, entry))
  if (!problem.value) await load()
}
async function why(row: Schemas['WhyRow'], build: string) {
  const because = (texts.value[row.waits_for] ?? '').trim()
  await served(async () => {
    await plan.load(build)
    const said = { act: 'reason', step: row.step, waits_for: row.waits_for, because } as const
    await plan.take([{ ...said, kind: 'access closes' }], '')
    await load()
  })
}
async function note(row: Schemas['AskRow'], card: Schemas['ClosingBuild']) {
  const step = card.steps.find((s) => s.id === steps.value[row.note])
  const text = (texts.value[row.note] ?? '').trim()
  if (!step || text.length < 3) return
  const done = await calendar.say({
    kind: 'next time noted',
    note: row.note,
    step: step.id,
    title: step.title,
    text,
    minutes: row.minutes,
    build: row.build,
    build_name: row.name,
  })
  if (done) await load()
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Close the evening" width="820" append-to-body>
    <p v-if="problem || calendar.problem" class="problem" role="alert">{{ problem || calendar.problem }}</p>
    <template v-if="view">
      <p class="t24">{{ view.title }}</p>
      <section v-for="card in view.builds" :key="card.build" :aria-label="card.name">
        <h2 class="t20">{{ card.name }}</h2>
        <ul v-if="card.done.length">
          <li v-for="(d, k) in card.done.slice(0, 6)" :key="k">{{ d }}</li>
          <li v-if="card.done.length > 6" class="mut">and {{ card.done.length - 6 }} more</li>
        </ul>
        <p>
          <RouterLink :to="{ name: 'build', params: { build: card.build } }">{{
            card.loose ? `${card.loose} left open` : 'Nothing left open'
          }}</RouterLink>
        </p>
        <div v-for="p in card.pauses" :key="p.after" class="pause">
          <b
            >{{ clockOf(p.at, shop.zone) }}, {{ p.number }}: {{ p.minutes }} min{{
              p.cause ? `, ${p.cause}` : ''
            }}</b
          >
          <div v-if="!p.cause" class="chips">
            <button v-for="c in view.causes" :key="c" type="button" class="btn small" @click="said(p, c)">
              {{ c }}
            </button>
          </div>
        </div>
        <form v-for="w in card.whys" :key="w.waits_for" class="ask" @submit.prevent="why(w, card.build)">
          <p class="b">{{ w.what }}</p>
          <label class="sr" :for="`why${w.waits_for}`">Why it comes first</label
          ><input
            :id="`why${w.waits_for}`"
            v-model="texts[w.waits_for]"
            class="entry wide"
            :name="`why-${w.waits_for}`"
            maxlength="400"
            autocomplete="off"
            placeholder="because"
          /><button type="submit" class="btn small" :disabled="(texts[w.waits_for] ?? '').trim().length < 3">
            Into the plan
          </button>
        </form>
        <form v-for="a in card.asks" :key="a.note" class="ask" @submit.prevent="note(a, card)">
          <p>
            <b>{{ a.minutes ? `${a.minutes} min ` : '' }}{{ a.what }}.</b>
            {{ a.said ? `Next time: ${a.said}` : 'Where should this have been said?' }}
          </p>
          <template v-if="!a.said">
            <label class="sr" :for="`at${a.note}`">Before which step</label
            ><select :id="`at${a.note}`" v-model="steps[a.note]" class="entry" :name="`at-${a.note}`">
              <option value="">before which step?</option>
              <option v-for="s in card.steps" :key="s.id" :value="s.id">{{ s.name }}</option></select
            ><label class="sr" :for="`say${a.note}`">What to say there</label
            ><input
              :id="`say${a.note}`"
              v-model="texts[a.note]"
              class="entry"
              :name="`say-${a.note}`"
              maxlength="400"
              autocomplete="off"
              placeholder="what to say there"
            /><button
              type="submit"
              class="btn small"
              :disabled="!steps[a.note] || (texts[a.note] ?? '').trim().length < 3"
            >
              Say it next time
            </button>
          </template>
        </form>
      </section>
      <p><RouterLink to="/pace">Pace and lost time</RouterLink></p>
    </template>
  </el-dialog>
</template>

<style scoped>
section {
  border-top: 2px solid var(--line);
  padding: 6px 0;
}
.pause {
  display: grid;
  gap: 6px;
  padding: 6px 0;
}
.ask {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr) auto;
  gap: 8px;
  border: 3px solid var(--ink);
  padding: 8px 12px;
  margin: 6px 0;
}
.wide {
  grid-column: 1 / 3;
}
.ask p {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .ask {
    grid-template-columns: 1fr;
  }
}
</style>
