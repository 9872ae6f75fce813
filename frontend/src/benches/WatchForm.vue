<script setup lang="ts">
/** Who watches what, who gives the word, how far it has to go: said before the first move. */
import { reactive, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'

const props = defineProps<{ step: string; people: readonly Schemas['Role'][] }>()
const emit = defineEmits<{ said: [] }>()
const book = useBook()
const session = useSession()
const { problem, served } = useServer()
const rows = ref(
  props.people.map((p, k) => ({ who: k ? '' : (session.who ?? ''), point: `${p.role}: ${p.does}` })),
)
const word = ref(session.who ?? '')
const goes = reactive({ down: '', along: '', side: '', nose: '', least: '5' })
const FIELDS = [
  ['down', 'down still to go, mm'],
  ['along', 'in, mm'],
  ['side', 'to the left, mm'],
  ['nose', 'nose down, degrees'],
  ['least', 'least gap, mm'],
] as const
async function say() {
  const watchers = rows.value.filter((r) => r.who.trim() && r.point.trim())
  const entry = { kind: 'watch said' as const, step: props.step, watchers, word: word.value.trim(), ...goes }
  if ((await served(() => book.write(entry))) !== undefined) emit('said')
}
</script>

<template>
  <form class="watch" aria-label="Who watches what" @submit.prevent="say">
    <h2 class="t24">Who watches what?</h2>
    <div v-for="(r, k) in rows" :key="k" class="row">
      <label class="field"
        ><span>initials</span
        ><input
          v-model="r.who"
          class="entry"
          :name="`watch-who-${k}`"
          maxlength="12"
          autocomplete="off" /></label
      ><label class="field"
        ><span>one watch point</span
        ><input v-model="r.point" class="entry" :name="`watch-point-${k}`" maxlength="120" autocomplete="off"
      /></label>
    </div>
    <button type="button" class="btn small" @click="rows.push({ who: '', point: '' })">One more</button>
    <div class="goes">
      <label class="field"
        ><span>who gives the word</span
        ><input v-model="word" class="entry" name="watch-word" maxlength="12" autocomplete="off" /></label
      ><label v-for="[id, name] in FIELDS" :key="id" class="field"
        ><span>{{ name }}</span
        ><input v-model="goes[id]" class="entry" :name="`watch-${id}`" inputmode="decimal" autocomplete="off"
      /></label>
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <button type="submit" class="btn" :disabled="!word.trim() || !rows.some((r) => r.who.trim())">
      Everybody is placed
    </button>
  </form>
</template>

<style scoped>
.watch {
  display: grid;
  gap: 8px;
  margin: 8px 0;
}
.row {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr);
  gap: 8px;
}
.goes {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
</style>
