<script setup lang="ts">
/** What an earlier hand did, and the choice: put back, repair, or keep as it is. */
import { ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import { capital } from '@/words'

const props = defineProps<{ row: Schemas['EarlierFacts']; build: string }>()
const book = useBook()
const plan = usePlan()
const { problem, served } = useServer()
const choice = ref<'put back' | 'repair' | 'keep' | null>(null)
const held = ref('')
const why = ref('')
const blocks = ref('drive')

/** Put back and repaired is a step with its rung. */
async function planned() {
  await served(async () => {
    await plan.load(props.build)
    const title = `${choice.value === 'repair' ? 'Repair' : 'Put back'}: ${props.row.what}`.slice(0, 120)
    await plan.take(
      [
        {
          act: 'put_in',
          title,
          do: `${title}. ${held.value.trim()}`.trim(),
          stage: 'prepare',
          blocks: blocks.value as 'drive',
          mends: props.row.key,
          before: [],
          after: [],
          keep: false,
        },
      ],
      '',
    )
    choice.value = null
  })
}
async function keep() {
  const [step, part, face] = props.row.key.split('/')
  await served(() => book.write({ kind: 'earlier kept', step, part, face, held: held.value, why: why.value }))
  if (!problem.value) choice.value = null
}
</script>

<template>
  <article>
    <p class="b">{{ capital(row.what) }}</p>
    <p>
      <RouterLink v-if="row.at" :to="{ name: 'step', params: { build, step: row.at } }">{{
        row.words
      }}</RouterLink><span v-else :class="row.choice ? '' : 'too_close b'">{{ capital(row.words) }}</span>
      <span class="t16 mut"> {{ row.who }}</span>
    </p>
    <div class="chips">
      <button
        v-for="one in ['put back', 'repair', 'keep'] as const"
        :key="one"
        type="button"
        class="btn small"
        :aria-pressed="choice === one"
        @click="choice = one"
      >
        {{ one === 'keep' ? 'Keep as it is' : capital(one) }}
      </button>
    </div>
    <form v-if="choice" class="say" @submit.prevent="choice === 'keep' ? keep() : planned()">
      <label class="field"
        ><span>{{ choice === 'keep' ? 'how it is held' : 'what is to be done' }}</span
        ><input v-model="held" class="entry" name="earlier-held" maxlength="160" autocomplete="off"
      /></label>
      <label v-if="choice === 'keep'" class="field"
        ><span>why it stays</span
        ><input v-model="why" class="entry" name="earlier-why" maxlength="400" autocomplete="off"
      /></label>
      <label v-else class="field"
        ><span>shut till it is done</span
        ><select v-model="blocks" class="entry" name="earlier-blocks">
          <option v-for="(name, rung) in book.frame?.rungs ?? {}" :key="rung" :value="rung">
            {{ name }}
          </option>
        </select></label
      >
      <button type="submit" class="btn small">
        {{ choice === 'keep' ? 'Keep it in writing' : 'Into the plan' }}
      </button>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </form>
  </article>
</template>

<style scoped>
article {
  border-top: 1px solid var(--hair);
  padding: 8px 0;
  display: grid;
  gap: 4px;
}
.say {
  display: grid;
  grid-template-columns: 1fr 1fr auto;
  gap: 8px;
  align-items: end;
}
.problem {
  grid-column: 1 / -1;
}
@media (max-width: 700px) {
  .say {
    grid-template-columns: 1fr;
  }
}
</style>
