<script setup lang="ts">
/**
 * The ladder for what does not come: each rung with what it may harm and when to stop; tries and minutes are
 * logged.
 */
import { computed, ref, watch } from 'vue'
import { client, got, type Schemas } from '@/api/client'
import { useBook } from '@/stores/book'
import { useServer } from '@/composables/server'

type Facts = Schemas['StuckFacts']
const props = defineProps<{ step: string; about: string }>()
const book = useBook()
const open = ref(false)
const part = ref('')
const near = ref<string[]>([])
const cleaner = ref<Facts['cleaner']>('none')
const wiped = ref(false)
const nut = ref<Facts['nut']>(null)
const desk = ref<Schemas['StuckDesk'] | null>(null)
const rung = ref<string | null>(null)
const minutes = ref(5)
const { problem, served } = useServer()
const build = computed(() => book.card?.id ?? '')
const facts = computed<Facts>(() => ({
  near: near.value as Facts['near'],
  cleaner: cleaner.value,
  wiped: wiped.value,
  nut: nut.value,
}))
const onSheet = computed(() => desk.value?.about ?? null)
const said = computed(() => new Set<string>(desk.value?.said.near ?? []))
const STATE: Record<string, string> = { free: '', tried: 'tried', refused: 'not here', enough: 'enough' }

async function look() {
  if (!open.value || !part.value.trim()) return
  await served(async () => {
    desk.value = (await got<unknown>(
      client.POST('/api/builds/{build}/stuck', {
        params: { path: { build: build.value } },
        body: { step: props.step, part: part.value.trim(), facts: facts.value },
      }),
    )) as Schemas['StuckDesk']
    problem.value = ''
  })
}
watch([part, facts, () => book.frame?.head], () => void look())
function ask() {
  part.value = part.value || props.about
  rung.value = null
  open.value = true
  void look()
}
async function tried(came: boolean) {
  if (!rung.value) return
  await served(async () => {
    await book.write({
      kind: 'tried',
      step: props.step,
      part: part.value.trim(),
      rung: rung.value as 'soak',
      time: `${minutes.value} min`,
      came,
      ...facts.value,
      harmed: null,
    })
    wiped.value = false
    rung.value = null
    await look()
  })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="It does not come" width="1080" append-to-body>
    <label class="field"
      ><span>What is stuck</span><input v-model="part" class="entry" name="part" maxlength="120"
    /></label>
    <dl v-if="onSheet" class="about">
      <dt>{{ onSheet.thing }}</dt>
      <dd v-if="onSheet.no_soak">Not soaked: {{ onSheet.no_soak }}</dd>
      <dd><b>May be harmed:</b> {{ onSheet.harms }}</dd>
      <dd><b>Not to be harmed:</b> {{ onSheet.spares }}</dd>
      <dd><b>Stop when:</b> {{ onSheet.stop }}</dd>
    </dl>
    <fieldset class="near">
      <legend class="t16 mut">Near it, or on it</legend>
      <label v-for="n in desk?.near ?? []" :key="n.id"
        ><input v-if="said.has(n.id)" type="checkbox" checked disabled :value="n.id" /><input
          v-else
          v-model="near"
          type="checkbox"
          :value="n.id"
        /><span>{{ n.name }}</span></label
      >
    </fieldset>
    <div class="line">
      <label class="field"
        ><span>Cleaner on it</span
        ><select v-model="cleaner" class="entry" name="cleaner">
          <option v-for="c in desk?.cleaners ?? []" :key="c">{{ c }}</option>
        </select></label
      >
      <label class="field"
        ><span>The thread end</span
        ><select v-model="nut" class="entry" name="nut">
          <option :value="null" disabled>not said</option>
          <option v-for="n in desk?.nuts ?? []" :key="n.id" :value="n.id">{{ n.name }}</option>
        </select></label
      >
      <span class="near">
        <label
          ><input v-model="wiped" type="checkbox" name="wiped" /><span
            >wiped dry, and 15 min gone since</span
          ></label
        ></span
      >
    </div>
    <ol class="rungs">
      <li v-for="(r, k) in desk?.rungs ?? []" :key="r.id" :class="[r.state, { at: rung === r.id }]">
        <button
          type="button"
          class="rung"
          :aria-expanded="rung === r.id"
          :disabled="r.refused"
          @click="rung = rung === r.id ? null : r.id"
        >
          <b class="t20">{{ k + 1 }} {{ r.name }}</b
          ><span>{{ r.words || r.do }}</span
          ><em v-if="STATE[r.state]">{{ STATE[r.state] }}</em>
        </button>
        <div v-if="rung === r.id" class="open">
          <p>{{ r.do }}</p>
          <p><b>May harm:</b> {{ r.harm }}</p>
          <p><b>Stop when:</b> {{ r.stop }}</p>
          <div class="line">
            <span>minutes</span
            ><button
              v-for="m in r.long ? [30, 480, 720] : [1, 5, 10, 20]"
              :key="m"
              type="button"
              class="btn small"
              :aria-pressed="minutes === m"
              @click="minutes = m"
            >
              {{ m >= 60 ? `${m / 60} h` : m }}
            </button>
            <button type="button" class="btn" @click="tried(true)">It came</button
            ><button type="button" class="btn" @click="tried(false)">
              {{ r.long ? 'Soaking now' : 'It did not come' }}
            </button>
          </div>
        </div>
      </li>
    </ol>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <p class="t16 mut">
      Eye protection. The vehicle maker's manual goes first; a specialist with the part on the bench is
      cheaper than a hub.
    </p>
  </el-dialog>
</template>

<style scoped>
.near {
  border: 0;
  padding: 0;
  margin: 10px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.about {
  margin: 10px 0;
  border-left: 4px solid var(--ink);
  padding-left: 12px;
}
.about dt {
  font-weight: 700;
}
.about dd {
  margin: 0;
}
.near label {
  position: relative;
}
.near input {
  position: absolute;
  opacity: 0;
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
}
.near span {
  display: block;
  border: 2px solid var(--line);
  padding: 7px 8px;
  min-height: 44px;
  line-height: 26px;
  font-size: 16px;
}
.near input:checked + span {
  background: var(--ink);
  color: var(--now);
}
.near input:focus-visible + span {
  outline: 4px solid var(--ink);
  outline-offset: 3px;
}
.rung {
  display: grid;
  grid-template-columns: 180px 1fr auto;
  gap: 12px;
  align-items: center;
  width: 100%;
  min-height: 48px;
  text-align: left;
  background: none;
  border: 0;
  border-top: 1px solid var(--hair);
  padding: 4px 2px;
  cursor: pointer;
  font-size: 18px;
  color: var(--ink);
}
.rung span {
  font-size: 16px;
}
em {
  font-style: normal;
  font-weight: 700;
  font-size: 16px;
}
.refused .rung {
  color: var(--mut);
  cursor: default;
  background: repeating-linear-gradient(135deg, var(--hair) 0 1px, transparent 1px 7px);
}
.enough em {
  color: var(--out);
}
.at {
  outline: 3px solid var(--ink);
}
.open {
  padding: 4px 12px 10px;
  display: grid;
  gap: 6px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: center;
  flex-wrap: wrap;
}
@media (max-width: 600px) {
  .rung {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
