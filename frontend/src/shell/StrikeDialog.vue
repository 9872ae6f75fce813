<script setup lang="ts">
/** Striking a line: the reason in one press, and what stands on it, before it is struck. */
import { ref } from 'vue'
import { client, got, type LogLine } from '@/api/client'
import { useBook } from '@/stores/book'

const props = defineProps<{ build: string }>()
const book = useBook()
const line = ref<LogLine | null>(null)
const stands = ref<string[]>([])
const own = ref('')
const REASONS = ['wrong figure', 'wrong place', 'not done']

async function ask(asked: LogLine) {
  line.value = asked
  own.value = ''
  stands.value = []
  const path = { build: props.build, entry: asked.id }
  stands.value = await got(client.GET('/api/builds/{build}/entries/{entry}/stands', { params: { path } }))
    .then((v) => v.lines)
    .catch(() => [])
}
async function strike(reason: string) {
  if (!line.value || reason.trim().length < 3) return
  const entry = line.value.id
  line.value = null
  await book.act({ kind: 'strike', entry, reason: reason.trim() })
  await book.reload()
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
