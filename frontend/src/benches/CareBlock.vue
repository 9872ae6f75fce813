<script setup lang="ts">
/**
 * What is laid on here with the time it may still lie open, what is driven home, and what is counted out
 * again.
 */
import { useNow } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { BenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { minutesSeconds } from '@/composables/time'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

const props = defineProps<{ bench: BenchView }>()
const book = useBook()
const now = useNow({ interval: 1000 })
const { problem, served } = useServer()
const base = computed(() => props.bench.base)
const typed = ref<Record<string, string>>({})
const counted = ref<Record<string, string>>({})
const tool = ref('')
const DEGREES = { out: 'it is', needed: 'it goes on at', room: 'the room' } as const
const degrees = ref({ out: '', needed: '', room: '20' })
const press = (what: string) => book.act({ kind: 'confirmed', step: base.value.step, what })
const left = (until: string) => (new Date(until).getTime() - now.value.getTime()) / 1000
const lay = (laid: string) => book.act({ kind: 'laid on', step: base.value.step, laid })

async function read(seat: string) {
  const instrument = tool.value || base.value.depth_tools[0]?.id || ''
  await served(() =>
    book.write({
      kind: 'seat read',
      step: base.value.step,
      seat,
      typed: typed.value[seat] ?? '',
      instrument,
    }),
  )
  if (!problem.value) typed.value[seat] = ''
}
async function warmed(warm: string) {
  await served(() => book.write({ kind: 'out of the oven', step: base.value.step, warm, ...degrees.value }))
}
async function out(item: string) {
  const count = Number.parseInt(counted.value[item] ?? '', 10)
  if (Number.isNaN(count)) return
  await served(() => book.write({ kind: 'counted out', step: base.value.step, item, out: count }))
}
</script>

<template>
  <section
    v-if="base.lays.length || base.warms.length || base.seats.length || base.counts.length"
    class="care"
    aria-label="Laid on, driven home, counted out"
  >
    <ul v-if="base.lays.length">
      <li v-for="l in base.lays" :key="l.id" :class="{ over: l.over }">
        <div>
          <p class="t16 mut">{{ l.name }}</p>
          <p class="b">{{ capital(l.what) }}: {{ l.where }}</p>
          <p class="t16">
            <template v-if="l.how_much">{{ capital(l.how_much) }}. </template
            ><template v-if="l.too_much">Too much: {{ l.too_much }}. </template
            ><template v-if="l.open_words">{{ capital(l.open_words) }}.</template>
          </p>
          <p v-if="l.over && l.box" class="outside b">
            It has skinned: off with it, both faces clean, laid anew.
            <button type="button" class="btn small" @click="press(l.box)">It was closed in time</button>
          </p>
        </div>
        <p v-if="l.on && l.until && !base.settled && !l.over" class="t28 b clock" aria-live="off">
          {{ minutesSeconds(left(l.until)) }}
        </p>
        <span v-else-if="l.on && !l.over" class="t16">✓ {{ l.who }}</span>
        <button v-if="!base.settled && (!l.on || l.over)" type="button" class="btn small" @click="lay(l.id)">
          {{ l.over ? 'Laid anew' : 'It is on now' }}
        </button>
      </li>
    </ul>
    <ul v-if="base.warms.length">
      <li v-for="w in base.warms" :key="w.id" :class="{ over: w.late }">
        <div>
          <p class="b">{{ capital(w.what) }}, {{ w.by === 'oven' ? 'hot' : 'cold' }}: at most {{ w.most }}</p>
          <p class="t16">
            Never with it: {{ w.never }}. Gloves. By a probe or a stick, not by an infrared gun.
          </p>
          <p v-if="w.out" class="t16">
            out at {{ w.out }}, goes on at {{ w.needed }}; the time is a rule of thumb, assumed
          </p>
          <p v-if="w.late" class="outside b">It will not go on any more: back into the {{ w.by }}.</p>
        </div>
        <p v-if="w.until && !base.settled && !w.late" class="t28 b clock" aria-live="off">
          {{ minutesSeconds(left(w.until)) }}
        </p>
        <span v-else-if="w.on" class="t16">✓ home</span>
        <form
          v-if="!base.settled && !w.on && (!w.until || w.late)"
          class="depths"
          @submit.prevent="warmed(w.id)"
        >
          <label v-for="(name, key) in DEGREES" :key="key" class="field"
            ><span>{{ name }}, °C</span
            ><input
              v-model="degrees[key]"
              class="entry"
              :name="`warm-${key}`"
              autocomplete="off"
              inputmode="text"
          /></label>
          <button type="submit" class="btn small">Out of the {{ w.by }}</button>
        </form>
        <button v-if="!base.settled && !w.on" type="button" class="btn small" @click="press(w.box)">
          It is home
        </button>
      </li>
    </ul>
    <ul v-if="base.seats.length">
      <li v-for="s in base.seats" :key="s.id" class="seat">
        <div>
          <p class="t16 mut">{{ s.name }}{{ s.driver ? `, driven by ${s.driver}` : '' }}</p>
          <p class="b">{{ capital(s.way_box) }}</p>
          <p v-if="s.start" class="t16">{{ capital(s.start) }}.</p>
          <p>{{ capital(s.home_box) }}</p>
          <p v-if="s.judgement" class="b" :class="s.judgement.verdict">
            {{ s.depths }}: {{ s.judgement.words }}
          </p>
        </div>
        <div v-if="!base.settled" class="presses">
          <button v-if="!s.way_seen" type="button" class="btn small" @click="press(s.way_box)">
            That way round
          </button>
          <span v-else class="t16">✓ way round</span>
          <button v-if="!s.home_seen" type="button" class="btn small" @click="press(s.home_box)">
            It is home
          </button>
          <span v-else class="t16">✓ home</span>
        </div>
        <form v-if="s.limit && !base.settled" class="depths" @submit.prevent="read(s.id)">
          <label class="field"
            ><span>depths round about, at four points, mm</span
            ><input
              v-model="typed[s.id]"
              class="entry"
              :name="`depths-${s.id}`"
              autocomplete="off"
              placeholder="4.20 4.25 4.20 4.20"
          /></label>
          <label class="field"
            ><span>with</span
            ><select v-model="tool" class="entry" name="depth_tool">
              <option v-for="t in base.depth_tools" :key="t.id" :value="t.id">{{ t.code }}</option>
            </select></label
          >
          <button type="submit" class="btn small">Write them</button>
        </form>
      </li>
    </ul>
    <ul v-if="base.counts.length">
      <li v-for="c in base.counts" :key="c.item">
        <div>
          <p class="b">{{ capital(c.what) }}: {{ c.count }} went in</p>
          <p v-if="c.out !== null && c.out < c.count" class="outside b">
            {{ c.count - c.out }} still in there. Look before anything closes.
          </p>
        </div>
        <span v-if="c.out === c.count" class="t16">✓ all {{ c.count }} out</span>
        <form v-else class="count" @submit.prevent="out(c.item)">
          <label class="field"
            ><span>came out</span
            ><input
              v-model="counted[c.item]"
              class="entry"
              inputmode="numeric"
              :name="`count-${c.item}`"
              autocomplete="off"
          /></label>
          <button type="submit" class="btn small">Counted</button>
        </form>
      </li>
    </ul>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.over {
  border-left: 8px solid var(--out);
  padding-left: 12px;
}
.clock {
  font-variant-numeric: tabular-nums;
}
.presses {
  display: grid;
  gap: 6px;
}
.depths,
.count {
  display: flex;
  gap: 8px;
  align-items: end;
}
.depths {
  grid-column: 1 / -1;
}
.depths label:first-child {
  flex: 1;
}
.count input {
  width: 84px;
}
</style>
