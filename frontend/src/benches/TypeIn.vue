<script setup lang="ts">
/**
 * A filled sheet typed in, in one pass: Enter writes the figure and goes on to the next; the log has each as
 * it is written.
 */
import { computed, nextTick, ref } from 'vue'
import { onlyAsks, type MeasureBenchView, type ReadingFacts, sentence } from '@/api/client'
import { offered, toolFor } from '@/composables/typein'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: MeasureBenchView }>()
const emit = defineEmits<{ close: [] }>()
const book = useBook()
const texts = ref<Record<string, string>>({})
const said = ref<Record<string, string>>({})
const sure = ref<string | null>(null)
const toolOf = ref<Record<string, string>>({})
const list = ref<HTMLElement | null>(null)
const asAsked = ref(false) // each was read in the state that its line asks for
const kinds = computed(() => [...new Set(props.bench.readings.map((r) => r.tool_kind))])
const asked = computed(() => [...new Set(props.bench.readings.map((r) => r.state).filter(Boolean))])
const tool = (r: ReadingFacts) => toolFor(props.bench, r, toolOf.value[r.tool_kind])

async function go(at: number) {
  await nextTick()
  list.value?.querySelectorAll<HTMLInputElement>('input')[at]?.focus()
}
async function write(r: ReadingFacts, at: number) {
  const text = (texts.value[r.id] ?? '').trim()
  const with_ = tool(r)
  if (!text) return go(at + 1)
  if (!with_) {
    said.value[r.id] = `no ${r.tool_kind} in the shop`
    return
  }
  const typed = text
    .split(';')
    .map((t) => t.trim())
    .filter(Boolean)
  try {
    const done = await book.write({
      kind: 'reading',
      step: props.bench.base.step,
      reading: r.id,
      typed,
      unit: with_.unit,
      instrument: with_.id,
      state: asAsked.value ? r.state : null,
      sure: sure.value === r.id,
    })
    said.value[r.id] = done ? '' : 'not yet saved'
    texts.value[r.id] = ''
    sure.value = null
    await go(at + 1)
  } catch (error) {
    said.value[r.id] = sentence(error)
    if (onlyAsks(error)) {
      said.value[r.id] += ' Enter once more if it is'
      sure.value = r.id
    }
    await go(at)
  }
}
/** To the first that nobody has read. */
const first = () =>
  go(
    Math.max(
      0,
      props.bench.readings.findIndex((r) => r.entry === null),
    ),
  )
function say() {
  asAsked.value = !asAsked.value
  void first()
}
void first()
</script>

<template>
  <section ref="list" class="typein" aria-label="Type the sheet in">
    <div class="head">
      <h2 class="t20">Type the sheet in</h2>
      <button type="button" class="btn small" @click="emit('close')">To the drawing <kbd>W</kbd></button>
    </div>
    <div class="tools">
      <label v-for="k in kinds" :key="k" class="field"
        ><span>{{ k }}</span
        ><select
          class="entry"
          :name="`tool-${k}`"
          :value="toolOf[k] ?? ''"
          @change="toolOf[k] = ($event.target as HTMLSelectElement).value"
        >
          <option value="">the best for each, named in its field</option>
          <option v-for="t in offered(bench, k)" :key="t.id" :value="t.id">{{ t.code }} {{ t.name }}</option>
        </select></label
      >
    </div>
    <button v-if="asked.length" type="button" class="btn small said" :aria-pressed="asAsked" @click="say">
      {{ asAsked ? '✓ ' : '' }}all read {{ asked.join('; ') }}
    </button>
    <p class="t16 mut">Enter writes and goes on; an empty field is passed over. Repeats are parted by ;</p>
    <ol>
      <li v-for="(r, k) in bench.readings" :key="r.id" :class="{ asks: said[r.id] }">
        <label
          ><span>{{ r.name }}</span
          ><b>{{ r.value_text ? `${r.value_text} ${r.unit}` : '–' }}</b
          ><input
            :placeholder="tool(r)?.code ?? ''"
            v-model="texts[r.id]"
            class="entry"
            :name="`in-${r.id}`"
            autocomplete="off"
            @keydown.enter.prevent="write(r, k)"
            @keydown.down.prevent="go(k + 1)"
            @keydown.up.prevent="go(k - 1)"
            @input="sure = sure === r.id ? null : sure"
        /></label>
        <p v-if="said[r.id]" class="problem" role="alert">{{ said[r.id] }}</p>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.typein {
  display: grid;
  gap: 8px;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
}
.tools {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
}
.tools .entry {
  min-height: 44px;
  font-size: 16px;
}
.said {
  justify-content: flex-start;
  text-align: left;
}
ol {
  columns: 2;
  column-gap: 20px;
}
li {
  break-inside: avoid;
  border-top: 1px solid var(--hair);
  padding: 3px 0;
}
li label {
  display: grid;
  grid-template-columns: 1fr auto 110px;
  gap: 8px;
  align-items: center;
  font-size: 16px;
  line-height: 1.15;
}
li .entry {
  min-height: 44px;
  padding: 2px 8px;
}
.asks {
  background: var(--closew);
}
@media (max-width: 900px) {
  ol {
    columns: 1;
  }
}
</style>
