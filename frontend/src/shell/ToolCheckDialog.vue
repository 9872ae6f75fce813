<script setup lang="ts">
/**
 * A tool held against a standard of known size; when it is off, its readings since the last good check are
 * in doubt.
 */
import { ref } from 'vue'
import { client, got, type Instrument, type Schemas } from '@/api/client'
import { useSession } from '@/stores/session'
import { useServer } from '@/composables/server'

const emit = defineEmits<{ done: [] }>()
const session = useSession()
const tool = ref<Instrument | null>(null)
const standard = ref('')
const nominal = ref('')
const text = ref('')
const { problem, served } = useServer()
const found = ref<Schemas['Checked'] | null>(null)

function ask(wanted: Instrument) {
  tool.value = wanted
  standard.value = nominal.value = text.value = problem.value = ''
  found.value = null
}
const pieces = () =>
  (text.value.includes(';') ? text.value.split(';') : text.value.split(/\s+(?=[\d.-])/))
    .map((t) => t.trim())
    .filter(Boolean)
async function check(keep: boolean) {
  const id = tool.value?.id
  if (!id) return
  problem.value = ''
  const who = await session.whoIsIt()
  await served(async () => {
    found.value = (await got<unknown>(
      client.POST('/api/tools/{tool}/checked', {
        params: { path: { tool: id } },
        body: {
          who,
          standard: standard.value.trim(),
          nominal: nominal.value.trim(),
          typed: pieces(),
          keep_offset: keep,
        },
      }),
    )) as Schemas['Checked']
    emit('done')
  })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog
    :model-value="tool !== null"
    :title="`Check ${tool?.code ?? ''}, ${tool?.name ?? ''}`"
    width="640"
    append-to-body
    @close="tool = null"
  >
    <form v-if="!found" class="form" @submit.prevent="check(false)">
      <label class="field"
        ><span>held against: gauge block, ring, setting rod, mass, another tool</span
        ><input v-model="standard" class="entry" name="standard" maxlength="80" autocomplete="off"
      /></label>
      <label class="field"
        ><span>its size, {{ tool?.unit }}</span
        ><input v-model="nominal" class="entry" name="nominal" autocomplete="off"
      /></label>
      <label class="field"
        ><span>{{ tool?.code }} shows; several parted by spaces, as it shows, known offset not taken off</span
        ><input v-model="text" class="entry big" name="shows" autocomplete="off"
      /></label>
      <p class="t16 mut">
        Tool and standard lay together for an hour, both clean. Permissible is ±{{
          tool?.mpe ?? `${tool?.mpe_percent ?? '?'} %`
        }}
        {{ tool?.mpe ? tool.unit : '' }}.
        {{ tool?.good_at ? `Last good check ${tool.good_at.slice(0, 10)}.` : 'No good check is on record.' }}
      </p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button type="submit" class="btn" :disabled="!standard.trim() || !nominal.trim() || !text.trim()">
        That is what it shows
      </button>
    </form>
    <div v-else class="form">
      <p class="t24" :class="found.good ? 'in' : 'outside'">{{ found.tool.code }} is {{ found.words }}.</p>
      <template v-if="!found.good && found.tool.good_at === tool?.good_at">
        <p>
          Every result made with it since then reads “tool in doubt” everywhere, until measured again or
          accepted in writing. Zero or repair it and check it again; or, if it is off by the same everywhere
          in its range, take that off from now on.
        </p>
        <button type="button" class="btn" @click="check(true)">
          Take {{ found.off }} {{ found.tool.unit }} off from now on
        </button>
      </template>
      <button type="button" class="btn" @click="tool = null">Back to the tools</button>
    </div>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
</style>
