<script setup lang="ts">
/** Striking a line: the reason in one press, and what stands on it, before it is struck. */
import { ref } from 'vue'
import { client, got, type LogLine } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

const props = defineProps<{ build: string }>()
const book = useBook()
const line = ref<LogLine | null>(null)
const stands = ref<string[]>([])
const own = ref('')
const { problem, served } = useServer()
const REASONS = ['wrong figure', 'wrong place', 'not done']

async function ask(asked: LogLine) {
  line.value = asked
  own.value = book.refused = ''
  stands.value = []
  const path = { build: props.build, entry: asked.id }
  const call = client.GET('/api/builds/{build}/entries/{entry}/stands', { params: { path } })
  const found = await served(() => got(call))
  if (line.value === asked) stands.value = found?.lines ?? []
}
async function strike(reason: string) {
  if (!line.value || reason.trim().length < 3) return
  const asked = line.value
  line.value = null
  if (await book.handed({ kind: 'strike', entry: asked.id, reason: reason.trim() })) await book.reload()
  else line.value = asked
}
defineExpose({ ask })
</script>

<template>
  <el-dialog
    :model-value="line !== null"
    :title="`Strike line ${line?.seq ?? ''}?`"
    width="640"
    append-to-body
    @close="line = null"
  >
    <p class="hand t20">{{ line?.text }}</p>
    <p class="t16 mut">It stays readable, with a line through it, your initials and the reason.</p>
    <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
    <p v-if="problem" class="block" role="alert">What stands on it is not known: {{ problem }}</p>
    <div v-if="stands.length" class="block">
      <p class="b">These stand on it and will count as open:</p>
      <ul>
        <li v-for="s in stands" :key="s">{{ s }}</li>
      </ul>
    </div>
    <div class="reasons">
      <button v-for="reason in REASONS" :key="reason" type="button" class="btn" @click="strike(reason)">
        {{ reason }}
      </button>
    </div>
    <form @submit.prevent="strike(own)">
      <label class="field"
        ><span>or another reason</span><input v-model="own" class="entry" maxlength="400"
      /></label>
      <button type="submit" class="btn" style="margin-top: 10px" :disabled="own.trim().length < 3">
        Strike it
      </button>
    </form>
  </el-dialog>
</template>

<style scoped>
.reasons {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  margin: 14px 0;
}
</style>
