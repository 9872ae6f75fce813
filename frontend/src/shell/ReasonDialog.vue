<script setup lang="ts">
/** One act that needs a reason: skip, not applicable, reopen, out of order, pass over, a shut rung. */
import { ref } from 'vue'

const open = ref(false)
const title = ref('')
const why = ref('')
const button = ref('')
const reason = ref('')
const least = ref(3)
let done: (reason: string) => void = () => undefined

function ask(options: { title: string; why?: string; button: string; least?: number }): Promise<string> {
  title.value = options.title
  why.value = options.why ?? ''
  button.value = options.button
  least.value = options.least ?? 3
  reason.value = ''
  open.value = true
  return new Promise((resolve) => (done = resolve))
}
function say() {
  if (reason.value.trim().length < least.value) return
  open.value = false
  done(reason.value.trim())
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" :title="title" width="640" append-to-body>
    <form @submit.prevent="say">
      <p v-if="why" style="margin-bottom: 10px">{{ why }}</p>
      <label class="field"><span>The reason, at least {{ least }} characters</span><textarea v-model="reason" class="entry" name="reason" maxlength="900" autofocus /></label>
      <button type="submit" class="btn" style="margin-top: 12px" :disabled="reason.trim().length < least">{{ button }}</button>
    </form>
  </el-dialog>
</template>
