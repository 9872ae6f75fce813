<script setup lang="ts">
/** Readings on paper and as files: print the sheet, take the table out, read one in. */
import { ref } from 'vue'
import { client, got, sentence } from '@/api/client'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'

const props = defineProps<{ build: string; step: string }>()
const emit = defineEmits<{ type: [] }>()
const book = useBook()
const session = useSession()
const file = ref<HTMLInputElement | null>(null)
const said = ref('')
const problem = ref('')

async function read() {
  const chosen = file.value?.files?.[0]
  if (!chosen) return
  said.value = problem.value = ''
  const who = await session.whoIsIt()
  try {
    const found = await got(
      client.POST('/api/builds/{build}/readings', {
        params: { path: { build: props.build } },
        body: { who, text: await chosen.text() },
      }),
    )
    said.value = found.unchanged
      ? `${found.written} readings written, ${found.unchanged} stood there already.`
      : `${found.written} readings written.`
    await book.reload()
  } catch (error) {
    problem.value = `Nothing was written. ${sentence(error)}`
  }
  if (file.value) file.value.value = ''
}
function print() {
  window.open(`/api/builds/${props.build}/sheet.pdf?step=${props.step}`, '_blank')
}
defineExpose({ print })
</script>

<template>
  <div class="files">
    <div class="chips">
      <button type="button" class="btn small" @click="print">Print the sheet <kbd>P</kbd></button
      ><button type="button" class="btn small" @click="emit('type')">Type it in <kbd>W</kbd></button
      ><a class="btn small" :href="`/api/builds/${build}/readings.csv?step=${step}`" download
        >Readings as CSV</a
      ><button type="button" class="btn small" @click="file?.click()">Read a CSV in</button
      ><input
        ref="file"
        class="sr"
        type="file"
        accept=".csv,text/csv"
        name="readings-file"
        tabindex="-1"
        aria-label="CSV of readings"
        @change="read"
      />
    </div>
    <p v-if="said" role="status">{{ said }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.files {
  margin: 10px 0;
}
</style>
