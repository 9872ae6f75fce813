<script setup lang="ts">
/** The limit book out and in as a file: what it would change is shown before it is taken. */
import { ref } from 'vue'
import { v7 } from 'uuid'
import { client, type Difference, got, sentence } from '@/api/client'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'
import { useSession } from '@/stores/session'

type Form = 'csv' | 'toml'
const props = defineProps<{ build: string }>()
const problem = defineModel<string>('problem', { required: true })
const book = useBook()
const plan = usePlan()
const session = useSession()
const read = ref<{ text: string; form: Form; name: string; found: Difference } | null>(null)

async function chooseFile(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  problem.value = ''
  await readIn(await file.text(), file.name.toLowerCase().endsWith('.csv') ? 'csv' : 'toml', file.name, false)
}
async function readIn(text: string, form: Form, name: string, take: boolean) {
  const who = await session.whoIsIt()
  const call = client.POST('/api/builds/{build}/limits', {
    params: { path: { build: props.build } },
    body: { id: v7(), who, text, form, take },
  })
  try {
    const found = (await got<unknown>(call)) as Difference
    read.value = take ? null : { text, form, name, found }
    if (take) {
      await plan.loadFigures(props.build)
      await book.reload()
    }
  } catch (error) {
    read.value = null
    problem.value = `${name} was not taken: ${sentence(error)}`
  }
}
</script>

<template>
  <nav class="io" aria-label="In and out">
    <a class="btn small" :href="`/api/builds/${build}/limits.csv`" download>CSV</a
    ><a class="btn small" :href="`/api/builds/${build}/limits.toml`" download>TOML</a
    ><label class="btn small file"
      >Read in<input
        type="file"
        accept=".csv,.toml,text/csv,text/plain"
        class="sr"
        name="limitsfile"
        @change="chooseFile"
    /></label>
  </nav>
  <el-dialog
    :model-value="read !== null"
    title="What the file changes"
    width="760"
    append-to-body
    @close="read = null"
  >
    <div v-if="read">
      <p class="b">{{ read.name }}: {{ read.found.figures.length }} figures</p>
      <ul class="told">
        <li v-for="f in read.found.figures" :key="f">{{ f }}</li>
      </ul>
      <div class="line">
        <button type="button" class="btn" @click="readIn(read.text, read.form, read.name, true)">
          Take them</button
        ><button type="button" class="btn" @click="read = null">Leave the book as it is</button>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.io {
  display: flex;
  gap: 8px;
}
.file {
  position: relative;
}
.file:focus-within {
  outline: 4px solid var(--ink);
  outline-offset: 3px;
}
.line {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: start;
}
.told {
  max-height: 320px;
  overflow: auto;
  margin: 10px 0;
}
.told li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
</style>
