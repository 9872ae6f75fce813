<script setup lang="ts">
/** Refit: what comes out of which bag, what is still in it, and the marks to look at again. */
import { computed, ref } from 'vue'
import type { BagContent, BenchView, Capture, Entry } from '@/api/client'
import AskDialog from './AskDialog.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: BenchView; quiet?: boolean }>()
const book = useBook()
const reason = ref<InstanceType<typeof AskDialog> | null>(null)
const strokes = ref<Record<string, number>>({})
const typed = ref<Record<string, string>>({})
type Line = BagContent['lines'][number]
const asLine = (l: Line, count: number) => ({
  count,
  size: l.size,
  length: l.length,
  odd: l.odd,
  holes: null,
})

const todo = computed(
  () =>
    props.bench.base.refit_bags.some((b) => b.left || b.missing) ||
    props.bench.base.compares.some((c) => !c.agrees),
)
const all = (bag: BagContent, how: 'fitted' | 'new') =>
  book.act({
    kind: 'unbagged',
    step: props.bench.base.step,
    bag: bag.bag,
    how,
    lines: bag.lines.filter((l) => l.left).map((l) => asLine(l, l.left)),
  })
const one = (bag: BagContent, l: Line, how: 'fitted' | 'lost') =>
  book.act({ kind: 'unbagged', step: props.bench.base.step, bag: bag.bag, how, lines: [asLine(l, 1)] })
async function replaced(bag: BagContent) {
  const said = await reason.value?.ask({
    title: `${bag.missing} lost from bag ${bag.bag}`,
    button: 'Replaced',
    why: 'Say with what: the same size, length and grade.',
  })
  if (said) await book.act({ kind: 'replaced', bag: bag.bag, count: bag.missing, by: said })
}
async function compare(c: Capture, same: boolean | null) {
  const entry: Entry = {
    kind: 'compared',
    step: props.bench.base.step,
    capture: c.id,
    same,
    words: null,
    strokes: c.strokes && same === null ? (strokes.value[c.id] ?? c.strokes) : null,
    typed: typed.value[c.id]?.trim() || null,
  }
  if (same === false) {
    const said = await reason.value?.ask({
      title: `Not as found: ${c.what}`,
      button: 'It differs',
      why: `It was: ${c.words}. What is different?`,
    })
    if (!said) return
    entry.words = said
  }
  if (same === true && c.by_length) {
    const said = await reason.value?.ask({
      title: `${c.what}: near enough`,
      button: 'Near enough',
      why: `It was ${c.words}; now ${c.compared}. Why does it not matter?`,
    })
    if (!said) return
    entry.words = said
  }
  await book.act(entry)
}
</script>

<template>
  <p v-if="(bench.base.refit_bags.length || bench.base.compares.length) && !todo && !quiet" class="quiet">
    {{
      bench.base.refit_bags.length
        ? `All out of bag ${bench.base.refit_bags.map((b) => b.bag).join(', ')}. `
        : ''
    }}{{ bench.base.compares.map((c) => `${c.what}: as found.`).join(' ') }}
  </p>
  <section v-else-if="todo" class="refit" aria-label="Back on">
    <div v-for="bag in bench.base.refit_bags" :key="bag.bag" class="bag">
      <p class="head">
        <b class="n">{{ bag.bag }}</b><span class="t20"
          >{{ bag.left ? `${bag.left} of ${bag.pieces} still in bag ${bag.bag}` : `Bag ${bag.bag} is empty`
          }}<small>{{ bag.what }}{{ bag.place ? `; the part lies ${bag.place}` : '' }}</small></span
        >
        <button v-if="bag.left && !bench.base.settled" type="button" class="btn" @click="all(bag, 'fitted')">
          All {{ bag.left }} out</button
        ><button
          v-if="bag.left && !bench.base.settled"
          type="button"
          class="btn small"
          @click="all(bag, 'new')"
        >
          New ones instead
        </button>
      </p>
      <ul>
        <li v-for="l in bag.lines" :key="`${l.size}${l.length}${l.odd}`">
          <span>{{ l.words }}{{ l.holes ? `, holes ${l.holes}` : '' }}{{ l.odd ? `, ${l.odd}` : '' }}</span>
          <span v-if="l.left && !bench.base.settled" class="do"
            ><button type="button" class="btn small" @click="one(bag, l, 'fitted')">One out</button
            ><button type="button" class="btn small" @click="one(bag, l, 'lost')">One is lost</button></span
          >
        </li>
      </ul>
      <p v-if="bag.missing" class="block">
        {{ bag.missing }} lost from bag {{ bag.bag }}
        <button type="button" class="btn small" @click="replaced(bag)">Replaced</button>
      </p>
    </div>
    <div v-for="c in bench.base.compares" :key="c.id" class="mark" :class="c.state">
      <span class="what"
        ><b>{{ c.kind_words }}: {{ c.what }}</b
        ><small>as found: {{ c.words }}{{ c.compared ? `. Now: ${c.compared}` : '' }}</small></span
      >
      <RouterLink
        v-if="c.photo"
        class="btn small"
        :to="{ name: 'bags', params: { build: book.card?.id ?? '' }, query: { photo: c.photo } }"
        >Photo</RouterLink
      >
      <span v-if="!bench.base.settled" class="do">
        <template v-if="c.strokes"
          ><button
            type="button"
            class="btn small"
            :aria-label="`one stroke less, ${c.what}`"
            @click="strokes[c.id] = Math.max(0, (strokes[c.id] ?? c.strokes) - 1)"
          >
            −</button
          ><output class="t24">{{ strokes[c.id] ?? c.strokes }}</output
          ><button
            type="button"
            class="btn small"
            :aria-label="`one stroke more, ${c.what}`"
            @click="strokes[c.id] = Math.min(20, (strokes[c.id] ?? c.strokes) + 1)"
          >
            +</button
          ><button type="button" class="btn small" @click="compare(c, null)">In line</button></template
        >
        <template v-else-if="c.by_length"
          ><input
            v-model="typed[c.id]"
            class="entry"
            inputmode="decimal"
            :aria-label="`length now, ${c.what}`"
            size="8"
          /><button
            type="button"
            class="btn small"
            :disabled="!typed[c.id]?.trim()"
            @click="compare(c, null)"
          >
            So long now</button
          ><button
            v-if="c.differs && !c.within"
            type="button"
            class="btn small"
            :disabled="!typed[c.id]?.trim()"
            @click="compare(c, true)"
          >
            Near enough
          </button></template
        >
        <button v-else type="button" class="btn small" @click="compare(c, true)">As found</button>
        <button type="button" class="btn small" @click="compare(c, false)">It differs</button>
      </span>
    </div>
    <AskDialog ref="reason" />
  </section>
</template>

<style scoped>
.refit {
  border: 3px solid var(--ink);
}
.bag,
.mark {
  padding: 8px 12px;
  border-top: 1px solid var(--hair);
}
.bag:first-child,
.mark:first-child {
  border-top: 0;
}
.head {
  display: flex;
  gap: 14px;
  align-items: center;
}
.head > span {
  flex: 1;
}
.n {
  font-size: 60px;
  font-weight: 850;
  line-height: 1;
  letter-spacing: -0.03em;
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
  font-weight: 460;
}
li {
  display: flex;
  gap: 10px;
  align-items: center;
  justify-content: space-between;
  min-height: 44px;
  flex-wrap: wrap;
}
.do {
  display: flex;
  gap: 6px;
  align-items: center;
  flex-wrap: wrap;
}
.mark {
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
}
.what {
  flex: 1 1 240px;
}
.mark.differs {
  background: var(--outw);
  border-left: 8px solid var(--out);
}
.do .entry {
  width: 130px;
}
</style>
