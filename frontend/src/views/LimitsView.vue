<script setup lang="ts">
/** The figures of a build with their sources; what has none is assumed. An edit judges again and says what turned. */
import { computed, ref, watch } from 'vue'
import { v7 } from 'uuid'
import { client, got, type Schemas } from '@/api/client'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'

const props = defineProps<{ build: string }>()
const book = useBook()
const session = useSession()
const rows = ref<Schemas['LimitRow'][]>([])
const only = ref(false)
const editing = ref<Schemas['Limit'] | null>(null)
const form = ref({ lo: '', hi: '', target: '', source: '', reason: '' })
const turned = ref<string[]>([])
const problem = ref('')
const assumed = computed(() => rows.value.filter((r) => !r.limit.source).length)
const shown = computed(() => (only.value ? rows.value.filter((r) => !r.limit.source) : rows.value))

async function load() {
  rows.value = await got(client.GET('/api/builds/{build}/limits', { params: { path: { build: props.build } } })).catch((error: Error) => { problem.value = error.message; return rows.value })
}
watch(() => [props.build, book.frame?.head], load, { immediate: true })
function edit(limit: Schemas['Limit']) {
  editing.value = limit
  problem.value = ''
  form.value = { lo: limit.lo ?? '', hi: limit.hi ?? '', target: limit.target ?? '', source: limit.source ?? '', reason: '' }
}
async function save() {
  const limit = editing.value
  if (!limit) return
  const who = await session.whoIsIt()
  const text = (value: string) => value.trim() || null
  try {
    const body = { id: v7(), who, version: limit.version, lo: text(form.value.lo), hi: text(form.value.hi), target: text(form.value.target), source: text(form.value.source), reason: text(form.value.reason) }
    const view = await got(client.POST('/api/builds/{build}/limits/{limit}', { params: { path: { build: props.build, limit: limit.id } }, body }))
    turned.value = view.turned
    editing.value = null
    await book.reload()
  } catch (error) {
    problem.value = (error as Error).message
  }
}
</script>

<template>
  <WorkFrame :build="build" desk="figures">
    <h1 class="t28">{{ rows.length }} figures, {{ assumed }} assumed</h1>
    <div class="filters" role="group" aria-label="Filter"><button type="button" :class="{ on: !only }" :aria-pressed="!only" @click="only = false">All {{ rows.length }}</button><button type="button" :class="{ on: only }" :aria-pressed="only" @click="only = true">Assumed {{ assumed }}</button></div>
    <div v-if="turned.length" class="block" role="alert"><p class="b">Judged again:</p><ul><li v-for="t in turned" :key="t">{{ t }}</li></ul></div>
    <table>
      <thead><tr><th>Figure, when</th><th>Value</th><th>From</th><th>Step</th><th><span class="sr">Edit</span></th></tr></thead>
      <tbody><tr v-for="row in shown" :key="row.limit.id"><td><b>{{ row.limit.name }}</b><br /><span class="t16 mut">{{ row.limit.condition }}</span></td><td class="b">{{ row.words }}<span v-if="row.limit.target" class="t16 mut"><br />aim {{ row.limit.target }}</span></td><td><span v-if="row.limit.source">{{ row.limit.source }}</span><span v-else class="assumed">assumed</span></td><td class="t16">{{ row.steps.join(', ') }}</td><td><button type="button" class="btn small" :aria-label="`Edit ${row.limit.name}`" @click="edit(row.limit)">Edit</button></td></tr></tbody>
    </table>
    <el-dialog :model-value="editing !== null" :title="editing?.name ?? ''" width="640" append-to-body @close="editing = null">
      <form class="edit" @submit.prevent="save">
        <label class="field"><span>From where? Without a source it stays assumed</span><input v-model="form.source" class="entry" maxlength="200" autofocus name="source" /></label>
        <div class="three"><label class="field"><span>at least, {{ editing?.unit }}</span><input v-model="form.lo" class="entry" name="lo" /></label><label class="field"><span>at most, {{ editing?.unit }}</span><input v-model="form.hi" class="entry" name="hi" /></label><label class="field"><span>aim, {{ editing?.unit }}</span><input v-model="form.target" class="entry" name="target" /></label></div>
        <label class="field"><span>Why it changes</span><input v-model="form.reason" class="entry" maxlength="400" name="why" /></label>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <button type="submit" class="btn">Write it</button>
      </form>
    </el-dialog>
  </WorkFrame>
</template>

<style scoped>
.filters { display: flex; gap: 18px; }
.filters button { border: 0; background: none; min-height: 44px; border-bottom: 5px solid transparent; cursor: pointer; padding: 0 2px; }
.filters .on { font-weight: 780; border-bottom-color: var(--ink); }
.edit { display: grid; gap: 14px; }
.three { display: grid; grid-template-columns: repeat(3, 1fr); gap: 10px; }
@media (max-width: 959px) { td:nth-child(4), th:nth-child(4) { display: none; } }
</style>
