<script setup lang="ts">
/** The threads of a joint: how they are, said once, and of one hole where it differs. */
import { computed, ref } from 'vue'
import type { Schemas, TightenBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

const props = defineProps<{ bench: TightenBenchView }>()
const book = useBook()
const { problem, served } = useServer()
const open = ref(false)
const hole = ref('')

type Threads = Schemas['ThreadsSaidAct']['threads']
const ways = computed(() => Object.entries(props.bench.threads.ways) as [Threads, string][])

async function say(threads: Threads) {
  const bolt = hole.value.trim() ? Number(hole.value) : null
  const joint = props.bench.joint.id
  await served(() => book.write({ kind: 'threads said', step: props.bench.base.step, threads, bolt, joint }))
  if (!problem.value) {
    open.value = false
    hole.value = ''
  }
}
</script>

<template>
  <section v-if="!bench.joint.final || bench.threads.wrong" aria-label="Threads">
    <p v-if="bench.threads.wrong" class="block b" role="alert">{{ bench.threads.wrong }}.</p>
    <p class="t16">
      {{
        bench.threads.words.length ? bench.threads.words.join('; ') : 'Threads: nobody has said how they are'
      }}.
      <button type="button" class="plain" @click="open = !open">Say it</button>
    </p>
    <div v-if="open" class="ways">
      <label class="field"
        ><span>of hole (empty: all)</span
        ><input v-model="hole" class="entry" name="hole" inputmode="numeric" autocomplete="off"
      /></label>
      <button v-for="[id, words] in ways" :key="id" type="button" class="btn small" @click="say(id)">
        {{ words }}
      </button>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </div>
  </section>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 8px;
  align-items: end;
}
.plain {
  border: 0;
  background: none;
  font: inherit;
  text-decoration: underline;
  min-height: 44px;
  cursor: pointer;
}
</style>
