<script setup lang="ts">
/** Find a step, a bag or something that came off by a number or a word; Enter goes there. */
import { computed, nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useBook } from '@/stores/book'
import { useParts } from '@/stores/parts'
import { useTakeDown } from '@/stores/takedown'

const props = defineProps<{ build: string; step?: string | null }>()
const LIMIT_MIN = 20
const book = useBook()
const down = useTakeDown()
const parts = useParts()
const router = useRouter()
const open = ref(false)
const text = ref('')
const at = ref(0)
const field = ref<HTMLInputElement | null>(null)

interface Hit {
  id: string
  words: string
  go: () => void
}
const hits = computed<Hit[]>(() => {
  const wanted = text.value.trim().toLowerCase()
  if (!wanted) return []
  const fits = (words: string) => wanted.split(/\s+/).every((part) => words.toLowerCase().includes(part))
  const steps = (book.frame?.steps ?? [])
    .filter((s) => fits(`${s.number} ${s.title}`))
    .map((s) => ({
      id: s.id,
      words: `${s.number} ${s.title}`,
      go: () => void router.push({ name: 'step', params: { build: props.build, step: s.id } }),
    }))
  const bags = (down.view?.bags ?? [])
    .filter((b) => fits(`bag ${b.bag} ${b.what}`))
    .map((b) => ({
      id: `bag${b.bag}`,
      words: `Bag ${b.bag}: ${b.what}, ${b.left} of ${b.pieces} in it`,
      go: () => void router.push({ name: 'bags', params: { build: props.build }, query: { bag: b.bag } }),
    }))
  const things = (parts.view?.kept ?? [])
    .filter((k) => fits(k.what))
    .map((k) => ({
      id: `thing${k.thing}`,
      words: `${k.what} lies ${k.where}`,
      go: () => void router.push({ name: 'parts', params: { build: props.build } }),
    }))
  return [...things, ...steps, ...bags].slice(0, 8)
})
async function ask() {
  open.value = true
  text.value = ''
  at.value = 0
  void down.load(props.build)
  void parts.load(props.build)
  await nextTick()
  field.value?.focus()
}
function move(by: number) {
  if (hits.value.length) at.value = (at.value + by + hits.value.length) % hits.value.length
}
/** Lost: the search begins here, and has its end. */
async function search() {
  const done = await book.handed({
    kind: 'search begun',
    what: text.value.trim(),
    step: props.step ?? null,
    limit_min: LIMIT_MIN,
  })
  if (!done) return
  open.value = false
  void router.push({ name: 'parts', params: { build: props.build } })
}
function go(hit: Hit | undefined) {
  if (!hit) return
  open.value = false
  hit.go()
}
defineExpose({ ask })
</script>

<template>
  <el-dialog
    v-model="open"
    title="Find a step, a bag or a thing"
    width="640"
    append-to-body
    @opened="field?.focus()"
  >
    <form @submit.prevent="go(hits[at])">
      <input
        ref="field"
        v-model="text"
        class="entry big"
        name="find"
        autocomplete="off"
        aria-label="number or word"
        placeholder="starter, 7.04, bag 12, woodruff key"
        @input="at = 0"
        @keydown.down.prevent="move(1)"
        @keydown.up.prevent="move(-1)"
      />
      <ol class="hits" aria-live="polite">
        <li v-for="(h, k) in hits" :key="h.id">
          <button type="button" class="btn row" :aria-pressed="k === at" @click="go(h)">{{ h.words }}</button>
        </li>
        <li v-if="text.trim() && !hits.length">
          Nothing like that in this build.
          <button v-if="text.trim().length > 1" type="button" class="btn small" @click="search">
            Look for it: {{ LIMIT_MIN }} min, then a new one
          </button>
        </li>
        <li v-if="book.refused" class="problem" role="alert">{{ book.refused }}</li>
      </ol>
    </form>
  </el-dialog>
</template>

<style scoped>
.hits {
  display: grid;
  gap: 6px;
  margin-top: 12px;
  min-height: 120px;
  align-content: start;
}
</style>
