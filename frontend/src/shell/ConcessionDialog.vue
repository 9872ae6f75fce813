<script setup lang="ts">
/**
 * A value outside its limit, or one that no tool decides, accepted in writing: why, for which use, by whom,
 * looked at again when.
 */
import { computed, ref } from 'vue'
import type { ResultFacts } from '@/api/client'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'

const props = defineProps<{ step: string }>()
const book = useBook()
const session = useSession()
const result = ref<ResultFacts | null>(null)
const reason = ref('')
const use = ref('')
const name = ref('')
const recheck = ref('')
const licensed = ref('')
const LEAST = 10
const barred = computed(() => result.value?.stays_shut ?? null)

function ask(wanted: ResultFacts) {
  result.value = wanted
  reason.value = use.value = recheck.value = licensed.value = ''
  name.value = session.who
}
async function accept() {
  const target = result.value
  if (!target || reason.value.trim().length < LEAST || !name.value.trim()) return
  const done = await book.handed({
    kind: 'concession',
    step: props.step,
    result: target.id,
    reason: reason.value.trim(),
    name: name.value.trim(),
    use: use.value.trim() || null,
    recheck: recheck.value.trim() || null,
    licensed: licensed.value.trim() || null,
  })
  if (done) result.value = null
}
defineExpose({ ask })
</script>

<template>
  <el-dialog
    :model-value="result !== null"
    :title="`Accept ${result?.name ?? ''} in writing`"
    width="680"
    append-to-body
    @close="result = null"
  >
    <form v-if="result" class="form" @submit.prevent="accept">
      <p>
        Wanted {{ result.limit.lo ?? ''
        }}{{ result.limit.lo && result.limit.hi ? ' to ' : result.limit.hi ? 'at most ' : ' or more'
        }}{{ result.limit.hi ?? '' }} {{ result.limit.unit }}, found
        <b>{{ result.judgement.value_text }} ±{{ result.judgement.U_text }} {{ result.judgement.unit }}</b
        >: {{ result.judgement.words }}. It is shown again wherever this value shows, at the gates and in the
        record.
      </p>
      <p v-if="barred" class="block">
        This is {{ barred }} stays shut all the same, until it is replaced or a licensed inspection is named.
      </p>
      <label class="field"
        ><span>why, at least {{ LEAST }} characters</span
        ><textarea v-model="reason" class="entry" name="reason" maxlength="900" autofocus />
      </label>
      <div class="three">
        <label class="field"
          ><span>for which use</span
          ><input v-model="use" class="entry" name="use" maxlength="200" autocomplete="off" /></label
        ><label class="field"
          ><span>looked at again at, or after</span
          ><input
            v-model="recheck"
            class="entry"
            name="recheck"
            maxlength="80"
            autocomplete="off"
            placeholder="1000 km or 3 months" /></label
        ><label class="field"
          ><span>agreed by</span
          ><input v-model="name" class="entry" name="agreed" maxlength="80" autocomplete="off"
        /></label>
      </div>
      <label v-if="barred" class="field"
        ><span>licensed inspection: by whom, and its number</span
        ><input v-model="licensed" class="entry" name="licensed" maxlength="200" autocomplete="off"
      /></label>
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
      <button type="submit" class="btn" :disabled="reason.trim().length < LEAST || !name.trim()">
        Accepted
      </button>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
  align-items: end;
}
@media (max-width: 700px) {
  .three {
    grid-template-columns: 1fr;
  }
}
</style>
