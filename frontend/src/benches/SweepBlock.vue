<script setup lang="ts">
/** One walk round: a place after the other, found by kind; then the ties that are back and not proven. */
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { type KeyMap, useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import TieLine from '@/shell/TieLine.vue'
import { useBook } from '@/stores/book'

type Thing = Schemas['SweepThing']
const props = defineProps<{ sweep: Schemas['SweepFacts']; step: string; settled: boolean }>()
const book = useBook()
const { problem, served } = useServer()
const chosen = ref<string | null>(null)
const words = ref('')
/** The place in hand: the one pressed, else the first that is not looked at. */
const place = computed(
  () =>
    props.sweep.places.find((p) => p.name === chosen.value) ??
    props.sweep.places.find((p) => p.left || p.wrong) ??
    null,
)
const open = computed(() => place.value?.things.filter((t) => !t.found) ?? [])
const build = computed(() => book.card?.id ?? '')

async function found(things: readonly Thing[], how: 'right' | 'wrong' | 'not there') {
  if (!things.length) return
  const said = { things: things.map((t) => t.id), found: how, words: words.value.trim() }
  await served(() => book.write({ kind: 'swept', step: props.step, ...said }))
  if (problem.value) return
  words.value = ''
  if (!place.value?.left) chosen.value = null
}
useKeys((): KeyMap => (props.settled ? {} : { r: () => found(open.value, 'right') }))
</script>

<template>
  <section class="sweep" aria-label="The walk round">
    <h2 class="t20">{{ sweep.title }}</h2>
    <div class="path" role="group" aria-label="Places, in the order of the walk">
      <button
        v-for="p in sweep.places"
        :key="p.name"
        type="button"
        class="btn small"
        :aria-pressed="p === place"
        @click="chosen = p.name"
      >
        {{ p.name }}
        <span :class="p.wrong ? 'outside b' : p.left ? 'mut' : 'inside'">{{
          p.wrong ? `${p.wrong} wrong` : p.left ? p.left : 'seen'
        }}</span>
      </button>
    </div>
    <template v-if="place && !settled">
      <ul>
        <li v-for="t in place.things" :key="t.id">
          <span>{{ t.what }}</span>
          <span v-if="t.found" class="b" :class="t.found === 'wrong' ? 'outside' : 'inside'">{{
            t.found === 'right' ? t.good : t.found === 'wrong' ? t.bad : t.found
          }}</span>
          <span class="two">
            <button v-if="t.found !== 'right'" type="button" class="btn small" @click="found([t], 'right')">
              {{ t.good }}
            </button>
            <button v-if="t.found !== 'wrong'" type="button" class="btn small" @click="found([t], 'wrong')">
              {{ t.bad }}
            </button>
            <button v-if="!t.found" type="button" class="btn small" @click="found([t], 'not there')">
              not there
            </button>
          </span>
        </li>
      </ul>
      <label class="field"
        ><span>words for what is pressed next: what is wrong, or where it was looked for</span
        ><input v-model="words" class="entry" name="swept-words" maxlength="160" autocomplete="off"
      /></label>
      <button v-if="open.length > 1" type="button" class="btn" @click="found(open, 'right')">
        {{ place.name }}: all {{ open.length }} seen here now, and right<kbd>R</kbd>
      </button>
    </template>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <section v-if="sweep.ties.length" aria-label="Ties not proven">
      <h3 class="t20">Back, not proven</h3>
      <TieLine v-for="row in sweep.ties" :key="row.item" :row="row" :build="build" />
    </section>
    <RouterLink class="btn small" :to="{ name: 'ties', params: { build } }">The register of ties</RouterLink>
  </section>
</template>

<style scoped>
.sweep {
  display: grid;
  gap: 10px;
  border-top: 2px solid var(--ink);
  margin-top: 12px;
  padding-top: 6px;
}
.path {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.path .btn {
  gap: 8px;
}
.path [aria-pressed='true'] {
  border-color: var(--ink);
  box-shadow: inset 0 -4px 0 var(--yel);
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  grid-auto-flow: column;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
.two {
  display: flex;
  gap: 6px;
}
@media (max-width: 900px) {
  li {
    grid-template-columns: 1fr auto;
  }
  .two {
    grid-column: 1 / -1;
  }
}
</style>
