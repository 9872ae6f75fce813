<script setup lang="ts">
/** What opens something: here, missing, or not on this vehicle. */
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'

const props = defineProps<{ opener: Schemas['Opener']; build?: string; name?: string }>()
const emit = defineEmits<{ said: [] }>()
const book = useBook()
const session = useSession()
const shop = useShop()
const { problem, served } = useServer()
const ANSWERS = ['here', 'missing', 'not on this vehicle'] as const
const at = computed(() => `${props.opener.number} ${props.opener.title}`)
async function say(answer: (typeof ANSWERS)[number]) {
  const entry = { kind: 'opener said' as const, name: props.opener.name, answer, where: '' }
  if (!props.build) {
    await book.handed(entry)
    return
  }
  const build = props.build
  const who = await session.whoIsIt()
  await served(() => shop.write(build, who, entry))
  if (!problem.value) emit('said')
}
</script>

<template>
  <div class="opener">
    <span
      ><b>{{ opener.name }}</b
      >{{ opener.answer ? `: ${opener.answer}` : ': is it here?' }}
      <small>{{ name ? `${name}, ` : '' }}{{ at }}</small></span
    >
    <span class="chips"
      ><button
        v-for="a in ANSWERS"
        :key="a"
        type="button"
        class="btn small"
        :aria-pressed="a === opener.answer"
        @click="say(a)"
      >
        {{ a }}
      </button></span
    >
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.opener {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 6px 14px;
  align-items: center;
}
small {
  color: var(--mut);
  font-size: 16px;
}
</style>
