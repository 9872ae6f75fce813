<script setup lang="ts">
/** Who is at the bench: asked before the first entry, changed in one touch. */
import { ref, watch } from 'vue'
import { useSession } from '@/stores/session'

const session = useSession()
const initials = ref('')
const problem = ref('')
watch(
  () => session.asked,
  (open) => {
    if (open) {
      initials.value = session.who
      problem.value = ''
    }
  },
)

function say() {
  const clean = initials.value.trim()
  if (!/^\p{L}{1,6}$/u.test(clean)) problem.value = 'One to six letters, such as MK.'
  else session.setWho(clean)
}
</script>

<template>
  <el-dialog
    :model-value="session.asked"
    title="Who is at the bench?"
    width="420"
    append-to-body
    @close="session.dismiss()"
  >
    <form @submit.prevent="say">
      <label class="field"
        ><span>Your initials stand on every line you write</span>
        <input
          v-model="initials"
          class="entry big"
          autofocus
          maxlength="6"
          autocomplete="off"
          name="initials"
          :aria-invalid="!!problem"
      /></label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button type="submit" class="btn" style="margin-top: 14px; width: 100%">This is me</button>
    </form>
  </el-dialog>
</template>
