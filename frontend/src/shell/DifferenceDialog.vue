<script setup lang="ts">
/** What a change of the plan would do, shown before it is taken; nothing is written until then. */
import { computed, ref } from 'vue'
import { v7 } from 'uuid'
import type { Difference, PlanAct } from '@/api/client'
import { hours } from '@/words'
import { usePlan } from '@/stores/plan'
import { useServer } from '@/composables/server'

const plan = usePlan()
const open = ref(false)
const acts = ref<PlanAct[]>([])
const found = ref<Difference | null>(null)
const reason = ref('')
const needed = ref(false)
const { problem, served } = useServer()
const busy = ref(false)
let seen = 0
let id = '' // the same when it is sent again, so that an answer that was lost is not taken twice
const must = computed(() => needed.value || (found.value?.standing.length ?? 0) > 0)
const quiet = computed(
  () =>
    found.value !== null &&
    ![found.value.steps_in, found.value.steps_out, found.value.moved, found.value.figures].some(
      (list) => list.length,
    ),
)

/** Look at the difference of `wanted`; `withReason` asks for one even where nothing is lost. */
async function propose(wanted: PlanAct[], withReason = false) {
  acts.value = wanted
  needed.value = withReason
  reason.value = problem.value = ''
  found.value = null
  seen = plan.view?.version ?? 0
  id = v7()
  open.value = true
  await served(async () => {
    found.value = await plan.look(wanted)
  })
}
async function take() {
  if (busy.value || (must.value && reason.value.trim().length < 3)) return
  busy.value = true
  await served(async () => {
    await plan.take(acts.value, reason.value.trim(), seen, id)
    open.value = false
  })
  busy.value = false
}
const emit = defineEmits<{ closed: [] }>()
defineExpose({ propose })
</script>

<template>
  <el-dialog
    v-model="open"
    title="What changes"
    width="760"
    append-to-body
    class="difference"
    @closed="emit('closed')"
  >
    <p v-if="problem" class="block" role="alert">{{ problem }}</p>
    <form v-if="found" @submit.prevent="take">
      <p class="t20">{{ found.what }}</p>
      <div v-if="found.late" class="block late">
        <template v-if="found.late.off.length"
          ><p class="b">Has to come off again, in this order:</p>
          <ol>
            <li v-for="s in found.late.off" :key="s">{{ s }}</li>
          </ol>
          <p>
            Off and on again: {{ hours(found.late.hours)
            }}<template v-if="found.late.without_hours.length"
              >, and {{ found.late.without_hours.join(', ') }} without hours</template
            >.
          </p></template
        >
        <template v-if="found.late.too_late.length"
          ><p class="b">Too late for this, taking off does not bring it back:</p>
          <ul>
            <li v-for="s in found.late.too_late" :key="s">{{ s }}</li>
          </ul></template
        >
        <p v-if="!found.late.off.length && !found.late.too_late.length" class="b">
          In time: nothing has to come off again.
        </p>
      </div>
      <div class="two">
        <section v-if="found.steps_in.length">
          <h3 class="b">{{ found.steps_in.length }} in</h3>
          <ul>
            <li v-for="s in found.steps_in.slice(0, 12)" :key="s">+ {{ s }}</li>
            <li v-if="found.steps_in.length > 12">and {{ found.steps_in.length - 12 }} more</li>
          </ul>
        </section>
        <section v-if="found.steps_out.length">
          <h3 class="b">{{ found.steps_out.length }} out</h3>
          <ul>
            <li v-for="s in found.steps_out.slice(0, 12)" :key="s">− {{ s }}</li>
            <li v-if="found.steps_out.length > 12">and {{ found.steps_out.length - 12 }} more</li>
          </ul>
        </section>
        <section v-if="found.moved.length">
          <h3 class="b">{{ found.moved.length }} in another place</h3>
          <ul>
            <li v-for="s in found.moved.slice(0, 6)" :key="s">{{ s }}</li>
          </ul>
        </section>
        <section v-if="found.figures.length">
          <h3 class="b">Figures</h3>
          <ul>
            <li v-for="s in found.figures.slice(0, 12)" :key="s">{{ s }}</li>
          </ul>
        </section>
      </div>
      <p v-if="quiet && !found.late && !found.clashes.length">No step and no figure changes by it.</p>
      <div v-if="found.clashes.length" class="block">
        <ul>
          <li v-for="s in found.clashes" :key="s" class="b">{{ s }}</li>
        </ul>
      </div>
      <div v-if="found.not_there.length" class="block">
        <p class="b">Others wait for these as for a danger:</p>
        <ul>
          <li v-for="s in found.not_there" :key="s">{{ s }}</li>
        </ul>
      </div>
      <div v-if="found.standing.length" class="block">
        <p class="b">
          These have lines in the log. The lines stay, and count for nothing once the step is out:
        </p>
        <ul>
          <li v-for="s in found.standing" :key="s">{{ s }}</li>
        </ul>
      </div>
      <p class="t16">
        Hours {{ hours(found.hours_before)
        }}<template v-if="String(found.hours_before) !== String(found.hours_after)">
          become {{ hours(found.hours_after) }}</template
        >. To hunt: {{ found.hunt_before
        }}<template v-if="found.hunt_before !== found.hunt_after"> becomes {{ found.hunt_after }}</template
        >.
      </p>
      <label class="field"
        ><span>{{
          must ? 'Your reason, it goes into the log' : 'Your reason, if you like: it goes into the log'
        }}</span
        ><input v-model="reason" class="entry" name="plan-reason" maxlength="400" autocomplete="off"
      /></label>
      <div class="acts">
        <button type="submit" class="btn" :disabled="busy || (must && reason.trim().length < 3)">
          Take it</button
        ><button type="button" class="btn" @click="open = false">Leave it as it was</button>
      </div>
    </form>
    <p v-else-if="!problem">Looking at what it changes.</p>
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
  gap: 16px;
  max-height: 300px;
  overflow: auto;
}
.two li,
.late li {
  padding: 2px 0;
}
.late ol {
  list-style: decimal;
  padding-left: 24px;
}
.late ol li {
  list-style: decimal;
}
.acts {
  display: flex;
  gap: 8px;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
