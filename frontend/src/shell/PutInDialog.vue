<script setup lang="ts">
/** A forgotten step: what it is, where it stands, what must wait for it and why; then the difference. */
import { computed, ref } from 'vue'
import type { PlanAct, PlanRow, Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'

const plan = usePlan()
const emit = defineEmits<{ propose: [acts: PlanAct[]] }>()
const KINDS = [
  'access closes',
  'safety',
  'setting kept',
  'contamination',
  'load needed',
  'drying',
  'spill',
] as const
const open = ref(false)
const title = ref('')
const todo = ref('')
const stage = ref<PlanRow['stage']>('take_down')
const behind = ref('')
const before = ref('')
const because = ref('')
const kind = ref<(typeof KINDS)[number]>('access closes')
const keep = ref(true)
const STAGE_NAMES: Record<string, string> = {
  plan: 'Plan',
  take_down: 'Take down',
  inspect: 'Inspect',
  order: 'Order',
  prepare: 'Prepare',
  build_up: 'Build up',
  fit_in: 'Fit in',
  wake: 'Wake',
  settle: 'Settle',
}
const places = computed(() => (plan.view?.rows ?? []).filter((r) => r.stage === stage.value))
const ready = computed(
  () => title.value.trim() && todo.value.trim() && (!before.value || because.value.trim()),
)

/** Open for a place behind `row`, or for a chance that no step covers at the step that closes it. */
function ask(options: {
  behind?: PlanRow | null
  closing?: PlanRow | null
  chance?: Schemas['Chance'] | null
}) {
  const rows = plan.view?.rows ?? []
  const closing = options.closing ?? null
  stage.value = (closing ?? options.behind ?? rows[0])?.stage ?? 'take_down'
  const inStage = rows.filter((r) => r.stage === stage.value)
  const at = closing ? inStage.findIndex((r) => r.id === closing.id) - 1 : -1
  behind.value = options.behind?.id ?? (at >= 0 ? inStage[at].id : '')
  title.value = options.chance?.thing ?? ''
  todo.value = options.chance ? `${options.chance.thing}: ${options.chance.because}.` : ''
  before.value = closing?.id ?? ''
  because.value = options.chance?.because ?? ''
  kind.value = 'access closes'
  open.value = true
}
/** A step that must come before another stands right before it, unless somebody says otherwise. */
function follow() {
  const at = places.value.findIndex((r) => r.id === before.value)
  if (at >= 0) behind.value = places.value[at - 1]?.id ?? ''
}
function go() {
  if (!ready.value) return
  open.value = false
  const later = before.value ? [{ step: before.value, because: because.value.trim(), kind: kind.value }] : []
  emit('propose', [
    {
      act: 'put_in',
      title: title.value.trim(),
      do: todo.value.trim(),
      stage: stage.value as 'plan',
      behind: behind.value || null,
      before: later,
      after: [],
      keep: keep.value,
    },
  ])
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Put a step in" width="760" append-to-body>
    <form @submit.prevent="go">
      <label class="field"
        ><span>What it is called</span
        ><input v-model="title" class="entry" name="put-title" maxlength="200" autofocus autocomplete="off"
      /></label>
      <label class="field"
        ><span>What to do</span><textarea v-model="todo" class="entry" name="put-do" maxlength="1500" />
      </label>
      <div class="two">
        <label class="field"
          ><span>In which stage</span
          ><select v-model="stage" class="entry" name="put-stage" @change="behind = ''">
            <option v-for="(name, id) in STAGE_NAMES" :key="id" :value="id">{{ name }}</option>
          </select></label
        >
        <label class="field"
          ><span>Behind which step</span
          ><select v-model="behind" class="entry" name="put-behind">
            <option value="">first of its stage</option>
            <option v-for="r in places" :key="r.id" :value="r.id">{{ r.number }} {{ r.short }}</option>
          </select></label
        >
      </div>
      <div class="two">
        <label class="field"
          ><span>It must come before</span
          ><select v-model="before" class="entry" name="put-before" @change="follow">
            <option value="">nothing waits for it</option>
            <option v-for="r in plan.view?.rows ?? []" :key="r.id" :value="r.id">
              {{ r.number }} {{ r.short }}
            </option>
          </select></label
        >
        <label class="field"
          ><span>Kind of reason</span
          ><select v-model="kind" class="entry" name="put-kind">
            <option v-for="k in KINDS" :key="k">{{ k }}</option>
          </select></label
        >
      </div>
      <label v-if="before" class="field"
        ><span>Because</span
        ><input v-model="because" class="entry" name="put-because" maxlength="300" autocomplete="off"
      /></label>
      <el-checkbox v-model="keep"
        >Also into my own copy of the sheet, so that it is not forgotten next time</el-checkbox
      >
      <button type="submit" class="btn" :disabled="!ready">See what it changes</button>
    </form>
  </el-dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
