<script setup lang="ts">
/** How the bolts of this joint are confirmed: said once a joint, asked where it is loud. */
import { ref } from 'vue'
import type { TightenBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

type Way = TightenBenchView['sign']['id']
const props = defineProps<{ bench: TightenBenchView }>()
const book = useBook()
const { problem, served } = useServer()
const WAYS: Way[] = ['heard', 'read', 'seen', 'felt']
const open = ref(false)
const words = ref('')
const ASKS: Partial<Record<Way, string>> = {
  seen: 'who sees it',
  felt: 'which arm, and how long it is',
}
const way = ref<Way>('read')

async function say(sign: Way) {
  way.value = sign
  if (ASKS[sign] && !words.value.trim()) return
  await served(() =>
    book.write({
      kind: 'sign said',
      step: props.bench.base.step,
      joint: props.bench.joint.id,
      sign,
      words: words.value.trim(),
    }),
  )
  if (problem.value) return
  open.value = false
  words.value = ''
}
</script>

<template>
  <section
    v-if="!bench.base.settled"
    class="sign"
    :class="{ block: bench.sign.unheard }"
    aria-label="How it is confirmed"
  >
    <p v-if="bench.sign.unheard" class="b">
      It is loud here: a click may not be heard. Say how it is known, once for this joint.
    </p>
    <p v-else-if="!open" class="t16">
      {{ capital(bench.sign.words) }}.
      <button type="button" class="plain" @click="open = true">In another way</button>
    </p>
    <form v-if="open || bench.sign.unheard" @submit.prevent="say(way)">
      <div class="chips" role="group" aria-label="How it is known">
        <button
          v-for="id in bench.sign.unheard ? WAYS.slice(1) : WAYS"
          :key="id"
          type="button"
          class="btn small"
          :aria-pressed="way === id"
          @click="say(id)"
        >
          {{ bench.sign.ways[id] }}
        </button>
      </div>
      <template v-if="ASKS[way]">
        <label class="field"
          ><span>{{ ASKS[way] }}</span
          ><input v-model="words" class="entry" name="sign-words" maxlength="120" autocomplete="off"
        /></label>
        <button type="submit" class="btn small" :disabled="words.trim().length < 2">It is so</button>
      </template>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </form>
  </section>
</template>

<style scoped>
.sign form {
  display: grid;
  gap: 8px;
}
.plain {
  border: 0;
  background: none;
  font: inherit;
  color: inherit;
  text-decoration: underline;
  min-height: 44px;
  cursor: pointer;
}
</style>
