<script setup lang="ts">
/** Find a step, a bag or something that came off by a number or a word; Enter goes there. */
import { computed, nextTick, ref } from 'vue'
import { useRouter } from 'vue-router'
import { useBook } from '@/stores/book'
import { useTakeDown } from '@/stores/takedown'

const props = defineProps<{ build: string }>()
const book = useBook()
const down = useTakeDown()
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
  return [...steps, ...bags].slice(0, 8)
})
async function ask() {
  open.value = true
  text.value = ''
  at.value = 0
  void down.load(props.build)
  await nextTick()
  field.value?.focus()
}
function move(by: number) {
  if (hits.value.length) at.value = (at.value + by + hits.value.length) % hits.value.length
}
function go(hit: Hit | undefined) {
  if (!hit) return
  open.value = false
  hit.go()
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Find a step or a bag" width="640" append-to-body @opened="field?.focus()">
    <form @submit.prevent="go(hits[at])">
      <input
        ref="field"
        v-model="text"
        class="entry big"
        name="find"
        autocomplete="off"
        aria-label="number or word"
        placeholder="starter, 7.04, bag 12"
        @input="at = 0"
        @keydown.down.prevent="move(1)"
        @keydown.up.prevent="move(-1)"
      />
      <ol class="hits" aria-live="polite">
        <li v-for="(h, k) in hits" :key="h.id">
          <button type="button" class="btn row" :aria-pressed="k === at" @click="go(h)">{{ h.words }}</button>
        </li>
        <li v-if="text.trim() && !hits.length">Nothing like that in this build.</li>
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
[aria-pressed='true'] {
  background: var(--ink);
  color: var(--now);
}
</style>
