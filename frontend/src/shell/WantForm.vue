<script setup lang="ts">
/** A part that somebody wants, in one line; whether lives hang on it is asked, never guessed. */
import { ref } from 'vue'
import { client, got, type Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

defineProps<{
  build: string
  safeties: Record<string, string>
  steps: readonly { id: string; name: string }[]
}>()
const book = useBook()
const { problem, served } = useServer()
const typed = ref('')
const step = ref('')
const asked = ref<Schemas['WantedLine'] | null>(null)
const field = ref<HTMLInputElement | null>(null)

async function read() {
  if (!typed.value.trim()) return
  const look = await served(() => got(client.POST('/api/wanted', { body: { text: typed.value } })))
  asked.value = look?.line ?? null
}
async function want(safety: string) {
  const done = await book.handed({
    kind: 'part wanted',
    typed: typed.value.trim(),
    step: step.value || null,
    safety: safety as 'none',
  })
  if (done) {
    typed.value = step.value = ''
    asked.value = null
  } else problem.value = book.refused
}
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <form class="want" @submit.prevent="read">
    <label class="sr" for="wanted">A part that is wanted, in one line</label>
    <input
      id="wanted"
      ref="field"
      v-model="typed"
      class="entry"
      name="wanted"
      maxlength="200"
      autocomplete="off"
      placeholder="2 x head gasket WG-201, 24.50, Fri"
      @input="asked = null"
    />
    <label class="sr" for="wantedfor">For which step</label>
    <select id="wantedfor" v-model="step" class="entry" name="wantedfor">
      <option value="">for no step</option>
      <option v-for="s in steps" :key="s.id" :value="s.id">{{ s.name }}</option>
    </select>
    <button type="submit" class="btn small" :disabled="!typed.trim()">Want it <kbd>W</kbd></button>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="asked" class="asked">
      <p>
        <b>{{ asked.count }} × {{ asked.name }}</b
        >{{ asked.number ? `, number ${asked.number}` : ''
        }}{{ asked.price !== null ? `, ${asked.price.toFixed(2)} each` : ''
        }}{{ asked.by ? `, by ${asked.by}` : '' }}. Is it a part of
      </p>
      <div class="chips">
        <button
          v-for="(name, id) in safeties"
          :key="id"
          type="button"
          class="btn small"
          @click="want(String(id))"
        >
          {{ name }}
        </button>
      </div>
    </div>
  </form>
</template>

<style scoped>
.want {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px auto;
  gap: 8px;
  margin-bottom: 10px;
}
.asked,
.problem {
  grid-column: 1 / -1;
}
.asked {
  border: 3px solid var(--ink);
  padding: 8px 12px;
  display: grid;
  gap: 8px;
}
@media (max-width: 700px) {
  .want {
    grid-template-columns: 1fr;
  }
}
</style>
