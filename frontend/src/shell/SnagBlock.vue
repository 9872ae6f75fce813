<script setup lang="ts">
/** What is left, and for which next place it matters. */
import { computed, ref } from 'vue'
import { v7 } from 'uuid'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

type Place = NonNullable<Schemas['SnagSaidAct']['matters']>[number]
const props = defineProps<{ snags: readonly Schemas['SnagFacts'][] }>()
const book = useBook()
const { problem, served } = useServer()
const PLACES: readonly Place[] = ['paint', 'transport', 'road', 'track']
const next = ref<Place | null>(null)
const what = ref('')
const matters = ref<Place[]>([])
const shown = computed(() => props.snags.filter((s) => !next.value || s.matters.includes(next.value)))
async function say() {
  const entry = { kind: 'snag said' as const, snag: v7(), what: what.value.trim(), matters: matters.value }
  if ((await served(() => book.write(entry))) !== undefined) [what.value, matters.value] = ['', []]
}
const cleared = (snag: string) => served(() => book.write({ kind: 'snag cleared', snag }))
const turn = (p: Place) =>
  (matters.value = matters.value.includes(p) ? matters.value.filter((m) => m !== p) : [...matters.value, p])
</script>

<template>
  <section aria-label="Snags" class="snags">
    <h2 class="t20">
      Snags <span class="mut">{{ shown.length }}{{ next ? ` for ${next}` : '' }}</span>
    </h2>
    <div v-if="snags.length" class="two" role="group" aria-label="Next place">
      next place<button
        v-for="p in PLACES"
        :key="p"
        type="button"
        class="btn small"
        :aria-pressed="next === p"
        @click="next = next === p ? null : p"
      >
        {{ p }}
      </button>
    </div>
    <ul>
      <li v-for="s in shown" :key="s.id">
        <span
          ><b>{{ s.what }}</b
          ><small>{{ s.matters.join(', ') }}</small></span
        ><button type="button" class="btn small" @click="cleared(s.id)">Put right</button>
      </li>
    </ul>
    <form class="two" @submit.prevent="say">
      <label class="field"
        ><span>what is left</span
        ><input v-model="what" class="entry" name="snag-what" maxlength="300" autocomplete="off"
      /></label>
      matters for<button
        v-for="p in PLACES"
        :key="p"
        type="button"
        class="btn small"
        :aria-pressed="matters.includes(p)"
        @click="turn(p)"
      >
        {{ p }}</button
      ><button type="submit" class="btn small" :disabled="what.trim().length < 3">Write it</button>
    </form>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.snags {
  margin-top: 12px;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 3px 0;
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
</style>
