<script setup lang="ts">
/**
 * One part: what was seen of it and before, what was decided and when; a decision with its reason and its
 * prices.
 */
import { computed, nextTick, ref, watch } from 'vue'
import type { InspectBenchView, PartFacts } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import BesideTable from './BesideTable.vue'

const props = defineProps<{ bench: InspectBenchView; part: PartFacts }>()
const emit = defineEmits<{ close: [] }>()
const book = useBook()
type Choice = string
const choice = ref<Choice | ''>('')
const reason = ref('')
const price = ref('')
const wrong = ref('')
const how = ref('')
const asking = ref(false)
const name = ref('')
const licensed = ref('')
/** Used again although it is bad: accepted in writing, with a name. */
const concedes = computed(() => props.part.asks_name && props.bench.stays_in.includes(choice.value))
const least = computed(() => (concedes.value ? 10 : 3))
watch(
  () => props.part.id,
  () => {
    asking.value = false
    choice.value = ''
    reason.value = how.value = name.value = licensed.value = ''
    price.value = ''
    wrong.value = props.part.wrong?.toString() ?? ''
  },
  { immediate: true },
)
const usual = computed(() => {
  const codes = props.bench.codes.flatMap((c) => c.codes)
  return new Set(props.part.faces.flatMap((f) => codes.find((c) => c.id === f.code)?.usual ?? []))
})
const shop = useShop()
const why = ref<HTMLInputElement | null>(null)
const panel = ref<HTMLElement | null>(null)
function choose(id: Choice) {
  choice.value = id
  asking.value = false
  // what stays costs what is typed
  price.value = props.bench.replaced.includes(id) ? (props.part.new_costs?.toString() ?? '') : ''
  void nextTick(() => why.value?.focus())
}
/**
 * Digits choose only while the question is open, and only a letter opens it: those of the finding pad never
 * decide.
 */
const DIGITS = [...'123456789']
useKeys(() => ({
  x: () => {
    asking.value = !asking.value
  },
  ...Object.fromEntries([...DIGITS, '0'].map((digit) => [digit, () => undefined])),
  ...(asking.value
    ? Object.fromEntries(
        Object.keys(props.bench.dispositions).map((id, k) => [String(k + 1), () => choose(id as Choice)]),
      )
    : {}),
}))
const problem = ref('')
const amount = (text: string) => (text.trim() === '' ? null : Number(text.trim().replace(',', '.')))
async function decide() {
  const odd = [price.value, wrong.value].find((text) => {
    const n = amount(text)
    return n !== null && !(Number.isFinite(n) && n >= 0)
  })
  problem.value = odd === undefined ? '' : `'${odd}' is no amount of money: digits only, such as 120`
  if (problem.value) return
  if (!choice.value || reason.value.trim().length < least.value || (concedes.value && !name.value.trim()))
    return
  const done = await book.handed({
    kind: 'part decided',
    step: props.bench.base.step,
    part: props.part.id,
    choice: choice.value as 'reuse',
    reason: reason.value.trim(),
    price: amount(price.value),
    wrong: amount(wrong.value),
    name: concedes.value ? name.value.trim() : null,
    licensed: concedes.value ? licensed.value.trim() || null : null,
  })
  if (!done) return
  choice.value = reason.value = ''
  void nextTick(() => panel.value?.focus()) // the entry is gone: Tab goes on from here
}
async function right() {
  const said = how.value.trim()
  if (
    said.length >= 3 &&
    (await book.handed({
      kind: 'part put right',
      step: props.bench.base.step,
      part: props.part.id,
      how: said,
    })) &&
    how.value.trim() === said
  )
    how.value = ''
}
</script>

<template>
  <section ref="panel" class="part" tabindex="-1" :aria-label="part.name">
    <div class="head">
      <h2 class="t20">
        {{ part.mark }} {{ part.name }}: {{ part.seen }} of {{ part.faces.length }} faces seen{{
          part.seen < part.faces.length ? ', every verdict is provisional' : ''
        }}
      </h2>
      <button type="button" class="btn small" @click="emit('close')">Back <kbd>Esc</kbd></button>
    </div>
    <p v-if="part.reached" class="t16">{{ part.reached }}.</p>
    <p v-if="part.barred" class="block">
      <b>{{ part.stays_shut }}.</b>
    </p>
    <p v-if="part.wipe" class="block">{{ part.wipe }}.</p>
    <p v-if="part.since" class="block">{{ part.since }}.</p>
    <ul class="looks">
      <template v-for="f in part.faces" :key="f.id"
        ><li v-for="s in f.now" :key="s.entry">
          <b>{{ f.name }}</b> <span class="hand">{{ s.words }}</span> <span class="t16 mut">{{ s.who }}</span>
        </li>
        <li v-for="s in f.earlier" :key="s.entry" class="mut">
          <b>{{ f.name }}</b>, said before: <span class="hand">{{ s.words }}</span>
        </li></template
      >
    </ul>
    <ol v-if="part.decided.length" class="looks">
      <li v-for="(d, k) in part.decided" :key="d.entry" :class="{ mut: k < part.decided.length - 1 }">
        <b>{{ k < part.decided.length - 1 ? 'decided before' : 'decided' }}</b>
        {{ ' ' }}<span class="hand">{{ d.words }}</span> <span class="t16 mut">{{ d.who }}</span>
      </li>
    </ol>
    <BesideTable v-if="part.beside.length" :step="bench.base.step" :part="part" />
    <p v-if="part.right" class="in b">Put right: {{ part.right }}</p>
    <form v-else-if="part.to_do" class="line" @submit.prevent="right">
      <label class="field"
        ><span
          >{{ part.to_do }}. Done? Say how: new one here and compared, reworked to what, cleaned with
          what</span
        ><input v-model="how" class="entry" name="how" maxlength="900" autocomplete="off" /></label
      ><button type="submit" class="btn small" :disabled="how.trim().length < 3">Put right</button>
    </form>
    <form @submit.prevent="decide">
      <fieldset>
        <legend class="b">
          What happens to it?
          <button type="button" class="btn small" :aria-pressed="asking" @click="asking = !asking">
            by digits <kbd>X</kbd>
          </button>
        </legend>
        <div class="chips">
          <button
            v-for="(words, id, k) in bench.dispositions"
            :key="id"
            type="button"
            class="btn small"
            :class="{ usual: usual.has(id as 'reuse') }"
            :aria-pressed="choice === id"
            @click="choose(id as 'reuse')"
          >
            <kbd v-if="asking">{{ k + 1 }}</kbd><span>{{ words }}</span>
          </button>
        </div>
        <p v-if="usual.size" class="t16 mut">Underlined: what is usually done with what was found.</p>
      </fieldset>
      <div v-if="choice" class="line">
        <label class="field wide"
          ><span>{{
            concedes
              ? 'it is bad: why it is used again, ten characters or more'
              : 'why, at least three letters'
          }}</span
          ><input ref="why" v-model="reason" class="entry" name="reason" maxlength="900" autocomplete="off"
        /></label>
        <template v-if="concedes">
          <p v-if="part.stays_shut" class="block wide">{{ part.stays_shut }}.</p>
          <label class="field"
            ><span>accepted by, name</span
            ><input v-model="name" class="entry" name="name" maxlength="80" autocomplete="off"
          /></label>
          <label v-if="part.stays_shut" class="field"
            ><span>licensed inspection, name and number</span
            ><input v-model="licensed" class="entry" name="licensed" maxlength="200" autocomplete="off"
          /></label>
        </template>
        <label class="field"
          ><span>it costs{{ shop.view?.currency ? `, ${shop.view.currency}` : '' }}</span
          ><input v-model="price" class="entry" name="price" inputmode="decimal" autocomplete="off"
        /></label>
        <label class="field"
          ><span>if that is wrong</span
          ><input v-model="wrong" class="entry" name="wrong" inputmode="decimal" autocomplete="off"
        /></label>
        <p v-if="problem" class="problem wide" role="alert">{{ problem }}</p>
        <button
          type="submit"
          class="btn small"
          :disabled="reason.trim().length < least || (concedes && !name.trim())"
        >
          Decided
        </button>
      </div>
    </form>
  </section>
</template>

<style scoped>
.part {
  border: 3px solid var(--ink);
  padding: 8px 12px;
  display: grid;
  gap: 8px;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  align-items: flex-start;
}
.looks li {
  border-top: 1px solid var(--hair);
  padding: 3px 0;
  font-size: 16px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
}
.chips {
  margin-top: 4px;
}
.chips .btn {
  padding: 4px 8px;
}

.usual span {
  text-decoration: underline 3px;
  text-underline-offset: 4px;
}
.line {
  display: flex;
  gap: 8px;
  align-items: flex-end;
  flex-wrap: wrap;
  margin-top: 8px;
}
.line .field {
  flex: 1 1 90px;
}
.line .wide {
  flex: 1 1 100%;
}
</style>
