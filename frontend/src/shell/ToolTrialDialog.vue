<script setup lang="ts">
/**
 * The hands of the user: one thing read ten times; how far the readings scatter counts in all that the same
 * hands read afterwards.
 */
import { computed, nextTick, ref } from 'vue'
import { client, got, type Instrument } from '@/api/client'
import TrialDots from '@/drawings/TrialDots.vue'
import { useSession } from '@/stores/session'
import { useServer } from '@/composables/server'

const TEN = 10
const emit = defineEmits<{ done: [words: string] }>()
const session = useSession()
const tool = ref<Instrument | null>(null)
const thing = ref('')
const text = ref('')
const typed = ref<string[]>([])
const { problem, served } = useServer()
const entry = ref<HTMLInputElement | null>(null)
const figures = computed(() =>
  typed.value.map((t) => Number.parseFloat(t.replace(',', '.'))).filter((x) => Number.isFinite(x)),
)

function ask(wanted: Instrument) {
  tool.value = wanted
  thing.value = text.value = problem.value = ''
  typed.value = []
}
function add() {
  const pieces = text.value
    .split(/[;\s]+(?=[\d.-])/)
    .map((t) => t.trim())
    .filter(Boolean)
  typed.value.push(...pieces)
  text.value = ''
  void nextTick(() => entry.value?.focus())
}
async function keep() {
  const id = tool.value?.id
  if (!id) return
  problem.value = ''
  const who = await session.whoIsIt()
  await served(async () => {
    const kept = (await got<unknown>(
      client.POST('/api/tools/{tool}/tried', {
        params: { path: { tool: id } },
        body: { who, thing: thing.value.trim(), typed: typed.value },
      }),
    )) as Instrument
    emit(
      'done',
      `${kept.code}: the hands of ${who} scatter by s = ${kept.hands.at(-1)?.s ?? ''} ${kept.unit}.`,
    )
    tool.value = null
  })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog
    :model-value="tool !== null"
    :title="`Your hands with ${tool?.code ?? ''}`"
    width="640"
    append-to-body
    @close="tool = null"
  >
    <div class="form">
      <label class="field"
        ><span>what you read</span
        ><input
          v-model="thing"
          class="entry"
          name="thing"
          maxlength="80"
          autocomplete="off"
          placeholder="a gauge block, a piston pin"
      /></label>
      <form @submit.prevent="add">
        <label class="field"
          ><span
            >reading {{ typed.length + 1 }} of {{ TEN }}, {{ tool?.unit }}: tool off and on again each
            time</span
          ><input ref="entry" v-model="text" class="entry big" name="trial" autocomplete="off"
        /></label>
      </form>
      <TrialDots v-if="figures.length > 1" :figures="figures" :unit="tool?.unit ?? ''" />
      <p class="t16">{{ typed.join(', ') }}</p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button type="button" class="btn" :disabled="typed.length < 5 || !thing.trim()" @click="keep">
        {{ typed.length < TEN ? `Enough after ${typed.length}` : 'That is all ten' }}
      </button>
    </div>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
</style>
