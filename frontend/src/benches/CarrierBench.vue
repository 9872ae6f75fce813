<script setup lang="ts">
/** A carrier between its packs: what lies in, which shim crosses over, and what every move has shown. */
import { ref, watch } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import CarrierSketch from '@/drawings/CarrierSketch.vue'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

const props = defineProps<{
  carrier: NonNullable<MeasureBenchView['carrier']>
  step: string
  tools: MeasureBenchView['kit_tools']
  form: boolean
}>()
const emit = defineEmits<{ done: [] }>()
const book = useBook()
const { problem, asks, served } = useServer()
const near = ref('')
const far = ref('')
const tool = ref('')
const asRead = ref(false)
watch(
  () => [props.form, props.carrier.near, props.carrier.near_after],
  () => {
    near.value = props.carrier.near_after ?? props.carrier.near ?? ''
    far.value = props.carrier.far_after ?? props.carrier.far ?? ''
    tool.value = props.tools.find((t) => t.code === props.carrier.measured_with)?.id ?? tool.value
  },
  { immediate: true },
)
async function write(sure = false) {
  const saved = await served(() =>
    book.write({
      kind: 'carrier set',
      step: props.step,
      near: near.value,
      far: far.value,
      instrument: tool.value || null,
      as_read: asRead.value,
      sure,
    }),
  )
  if (saved !== undefined && !problem.value) emit('done')
}
</script>

<template>
  <section class="carrierbench" aria-label="Carrier between its packs">
    <form v-if="carrier.wants_packs || form" class="packs" @submit.prevent="write()">
      <label class="field"
        ><span>pack at the {{ carrier.near_name }}, mm</span
        ><input v-model="near" class="entry" name="pack_near" autocomplete="off"
      /></label>
      <label class="field"
        ><span>pack at the {{ carrier.far_name }}, mm</span
        ><input v-model="far" class="entry" name="pack_far" autocomplete="off"
      /></label>
      <label class="field"
        ><span>how thick</span
        ><select v-model="tool" class="entry" name="pack_tool">
          <option value="">as printed on them</option>
          <option v-for="t in tools" :key="t.id" :value="t.id">measured with {{ t.code }}</option>
        </select></label
      >
      <button type="submit" class="btn">They lie in so <kbd>Enter</kbd></button>
      <label v-if="carrier.wants_packs && carrier.lash_text" class="check"
        ><input v-model="asRead" type="checkbox" name="as_read" /> {{ carrier.lash_text }} was read with these
        in</label
      >
      <p v-if="problem" class="problem" role="alert">
        {{ problem }}
        <button v-if="asks" type="button" class="btn small" @click="write(true)">Yes, as typed</button>
      </p>
    </form>
    <p v-if="carrier.total_moved" class="block">{{ capital(carrier.total_moved) }}.</p>
    <CarrierSketch
      v-if="carrier.near && carrier.far"
      :near-name="carrier.near_name"
      :far-name="carrier.far_name"
      :near="carrier.near"
      :far="carrier.far"
      :lash="carrier.ready ? (carrier.lash_text ?? '') : 'to be read'"
      :move="carrier.move"
    />
    <p class="t16">
      Backlash over shim: {{ carrier.factor_words }}.
      <template v-if="carrier.measured_with">Packs measured with {{ carrier.measured_with }}.</template>
    </p>
    <table v-if="carrier.rounds.length > 1" class="rounds">
      <thead>
        <tr>
          <th>round</th>
          <th>{{ carrier.near_name }}</th>
          <th>{{ carrier.far_name }}</th>
          <th>backlash</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(r, k) in carrier.rounds" :key="k">
          <td>{{ k + 1 }}</td>
          <td>{{ r.near }}</td>
          <td>{{ r.far }}</td>
          <td>{{ r.lash ?? 'to be read' }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped>
.carrierbench {
  display: grid;
  gap: 8px;
}
.packs {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr auto;
  gap: 8px;
  align-items: end;
}
.packs .problem,
.check {
  grid-column: 1 / -1;
}
.check {
  display: flex;
  gap: 8px;
  align-items: center;
  min-height: 44px;
}
.check input {
  width: 24px;
  height: 24px;
}
.rounds {
  border-collapse: collapse;
  max-width: 620px;
}
.rounds th,
.rounds td {
  text-align: left;
  border-top: 1px solid var(--hair);
  padding: 4px 12px 4px 0;
}
.rounds th {
  font-weight: 460;
  font-size: 16px;
}
@media (max-width: 700px) {
  .packs {
    grid-template-columns: 1fr;
  }
}
</style>
