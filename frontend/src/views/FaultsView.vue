<script setup lang="ts">
/** What is wrong: the first suspects, the test that splits the causes best, what is left, what stops it. */
import { computed, ref, watch } from 'vue'
import { v7 } from 'uuid'
import { client, type Schemas } from '@/api/client'
import { emptied } from '@/composables/server'
import { clockOf } from '@/composables/time'
import { useView } from '@/composables/view'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { capital } from '@/words'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const { view, problem, served } = useView<Schemas['FaultsView']>(
  () => client.GET('/api/builds/{build}/faults', { params: { path: { build: props.build } } }),
  () => props.build,
)
const choosing = ref(false)
const words = ref('')
const seen = ref<string[]>([])
const figure = ref('')
const cause = ref<string | null>(null) // which of those left it is held to be
const own = ref('')
const done = ref('')
const fault = computed(() => view.value?.faults.find((f) => !f.ended) ?? null)
const test = computed(() => fault.value?.tests.find((t) => !t.held) ?? null)
const held = computed(() => fault.value?.tests.filter((t) => t.held) ?? [])
const past = computed(() => view.value?.faults.filter((f) => f.ended) ?? [])
const ready = computed(() => test.value?.before.every((b) => seen.value.includes(b)) ?? false)

watch(
  () => test.value?.id,
  () => ([seen.value, figure.value] = [[], '']),
)
async function say(symptom: string) {
  const told = { symptom, fault: v7(), words: words.value.trim() }
  if ((await served(() => book.write({ kind: 'symptom said', ...told }))) !== undefined)
    [choosing.value, words.value] = [false, '']
}
const answer = (k: number) =>
  fault.value && test.value
    ? served(() =>
        book.write({
          kind: 'fault tested',
          fault: fault.value!.id,
          test: test.value!.id,
          answer: k,
          figure: figure.value.trim(),
          seen: seen.value,
        }),
      )
    : null
const stop = (k: number) => served(() => book.write({ kind: 'fault stop', fault: fault.value!.id, stop: k }))
const unsaid = computed(() => !done.value.trim() || (!cause.value && !own.value.trim()))
async function found(how: Schemas['CauseFoundAct']['how']) {
  if (!fault.value || unsaid.value) return
  const told = { cause: cause.value ?? '', what: own.value.trim(), done: done.value.trim(), how }
  const empty = emptied(own, done)
  const kept = await served(() => book.write({ kind: 'cause found', fault: fault.value!.id, ...told }))
  if (kept === undefined) return
  cause.value = null
  empty()
}
function press(what: string) {
  seen.value = seen.value.includes(what) ? seen.value.filter((s) => s !== what) : [...seen.value, what]
}
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="what is wrong">
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="view" class="faults">
      <div>
        <h1 class="t28" :class="{ outside: fault?.stopped.length }">{{ view.title }}</h1>
        <template v-if="fault">
          <p v-if="fault.words" class="t20">{{ fault.words }}</p>
          <div v-for="s in fault.stopped" :key="s.when" class="stopped" role="alert">
            <b>{{ s.when }}</b><br />{{ s.then }}
          </div>
          <section class="suspects" aria-label="Look here first">
            <h2 class="t20">Look here first: still in, or changed last</h2>
            <ol>
              <li v-for="s in view.suspects" :key="s">{{ s }}</li>
              <li v-if="!view.suspects.length" class="mut">nothing is open, nothing was changed</li>
            </ol>
          </section>
          <p v-if="fault.against" class="block">{{ fault.against }}</p>
          <p v-if="fault.go" class="block">
            This points to another symptom:
            <button type="button" class="btn small" @click="say(fault.go)">Follow it up</button>
          </p>
          <section v-if="test" aria-label="The test" class="test">
            <h2 class="t24">{{ capital(test.do) }}</h2>
            <div class="two" role="group" aria-label="Seen now">
              <button
                v-for="b in test.before"
                :key="b"
                type="button"
                class="btn small"
                :aria-pressed="seen.includes(b)"
                @click="press(b)"
              >
                {{ capital(b) }}
              </button>
            </div>
            <label v-if="test.reading" class="field"
              ><span>what was read, with its unit</span
              ><input v-model="figure" class="entry" name="fault-figure" autocomplete="off" maxlength="60"
            /></label>
            <p v-if="!ready" class="t16 mut">Press what you have seen now; then the answers open.</p>
            <div class="answers" role="group" aria-label="Answer">
              <button
                v-for="(a, k) in test.answers"
                :key="a"
                type="button"
                class="btn"
                :disabled="!ready"
                @click="answer(k)"
              >
                {{ capital(a) }}
              </button>
            </div>
          </section>
          <p v-else-if="fault.causes.length > 1" class="block">
            No test is left that may be done now: prove one of the causes by itself.
          </p>
          <section aria-label="Causes left">
            <h2 class="t20">What it can still be</h2>
            <ul class="causes">
              <li v-for="c in fault.causes" :key="c.id">
                <span
                  ><b>{{ capital(c.what) }}</b
                  ><small>Proof: {{ c.proof }}</small></span
                ><small>{{ c.sort }}</small
                ><button type="button" class="btn small" @click="cause = c.id">It is this</button>
              </li>
            </ul>
            <form class="found" aria-label="The cause" @submit.prevent="found('mended')">
              <label v-if="!cause" class="field"
                ><span>or in your words: what was it?</span
                ><input v-model="own" class="entry" name="fault-what" maxlength="400"
              /></label>
              <p v-else class="t20">
                <b>{{ fault.causes.find((c) => c.id === cause)?.what }}</b>
                <button type="button" class="btn small" @click="cause = null">Another</button>
              </p>
              <label class="field"
                ><span>what was done, and how was it looked at?</span
                ><input v-model="done" class="entry" name="fault-done" maxlength="400"
              /></label>
              <div class="two">
                <button type="submit" class="btn" :disabled="unsaid">Found and mended</button
                ><button type="button" class="btn" :disabled="unsaid" @click="found('other')">
                  It is something else</button
                ><button type="button" class="btn" :disabled="unsaid" @click="found('none')">
                  It was nothing
                </button>
              </div>
            </form>
          </section>
          <details v-if="held.length">
            <summary>{{ held.length }} tests wait</summary>
            <p v-for="t in held" :key="t.id" class="t16">{{ t.do }}: {{ t.held }}.</p>
          </details>
          <ol v-if="fault.tested.length" aria-label="Tested">
            <li v-for="t in fault.tested" :key="t.time" class="t16">
              {{ clockOf(t.time, shop.zone) }} {{ t.do }}: <b>{{ t.words }}</b> {{ t.figure }},
              {{ t.left }} left
            </li>
          </ol>
        </template>
        <button v-if="fault" type="button" class="btn small" @click="choosing = !choosing">
          Something else is wrong, too
        </button>
        <section v-if="!fault || choosing" aria-label="Symptoms">
          <label class="field"
            ><span>in your words (speed, load, cold or hot)</span
            ><input v-model="words" class="entry" name="fault-words" maxlength="300" autocomplete="off"
          /></label>
          <div v-for="g in view.groups" :key="g.name" class="group">
            <h2 class="t16 mut">{{ g.name }}</h2>
            <div class="two">
              <button v-for="s in g.symptoms" :key="s.id" type="button" class="btn small" @click="say(s.id)">
                {{ s.name }}
              </button>
            </div>
          </div>
        </section>
        <section v-if="past.length" aria-label="Found before">
          <h2 class="t20">Found before</h2>
          <p v-for="f in past" :key="f.id">
            <b>{{ f.name }}:</b> {{ f.ended }}
          </p>
        </section>
        <p class="t16 mut">The vehicle maker's manual, local codes and licensed practice go first.</p>
      </div>
      <aside v-if="fault" class="side">
        <h2 class="t24">Stop at once when</h2>
        <button v-for="(s, k) in fault.stops" :key="s.when" type="button" class="stop" @click="stop(k)">
          {{ capital(s.when) }}<small>{{ capital(s.then) }}</small>
        </button>
        <p v-if="!fault.stops.length" class="mut">Nothing special: key off, then think.</p>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.faults {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 20px;
}
.stopped {
  background: var(--outw);
  border-left: 12px solid var(--out);
  padding: 8px 14px;
  font-size: 20px;
  margin: 6px 0;
}
.suspects li {
  display: inline-block;
  border: 2px solid var(--vio);
  padding: 2px 10px;
  margin: 0 6px 6px 0;
}
.test {
  border: 3px solid var(--ink);
  padding: 10px 14px;
  margin: 8px 0;
  display: grid;
  gap: 8px;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.answers {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.causes li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px auto;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
.causes small {
  font-size: 16px;
  display: block;
}
.found {
  display: grid;
  gap: 8px;
  margin: 10px 0;
}
.side {
  display: grid;
  gap: 8px;
  align-content: start;
}
.stop {
  background: var(--ink);
  color: var(--now);
  border: 0;
  border-radius: 3px;
  font: inherit;
  font-size: 20px;
  font-weight: 700;
  padding: 12px;
  text-align: left;
  cursor: pointer;
}
.stop small {
  display: block;
  font-size: 16px;
  font-weight: 460;
}
.group {
  margin: 8px 0;
}
@media (max-width: 959px) {
  .faults {
    grid-template-columns: 1fr;
  }
  .side {
    order: -1;
  }
}
</style>
