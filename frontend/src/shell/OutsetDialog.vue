<script setup lang="ts">
/** Before the first spanner: what still ties each unit, what carries what, which fluid goes where. */
import { computed, ref } from 'vue'
import type { PlanView, Schemas } from '@/api/client'
import PickOne from './PickOne.vue'

const props = defineProps<{ outset: PlanView['outset'] }>()
const open = ref(false)
const shown = ref('ties')
const kinds = computed(() =>
  [
    { value: 'ties', label: `Ties ${props.outset.ties.length}` },
    { value: 'carriers', label: `Carried by ${props.outset.carriers.length}` },
    { value: 'fluids', label: `Fluids ${props.outset.fluids.length}` },
  ].filter((k) => props.outset[k.value as 'ties'].length),
)
const units = computed(() => [...new Set(props.outset.ties.map((t) => t.unit))])
const of = (unit: string): readonly Schemas['TieLine'][] => props.outset.ties.filter((t) => t.unit === unit)

function ask() {
  shown.value = kinds.value[0]?.value ?? 'ties'
  open.value = true
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Before the first spanner" width="980" append-to-body>
    <p>{{ outset.words }}</p>
    <PickOne v-model="shown" :options="kinds" label="What of it" />
    <template v-if="shown === 'ties'">
      <table v-for="unit in units" :key="unit">
        <caption>
          What ties the
          {{
            unit
          }}, in the order of a walk round it
        </caption>
        <tbody>
          <tr v-for="t in of(unit)" :key="t.name" :class="{ open: t.unknown }">
            <th scope="row">{{ t.name }}</th>
            <td>
              <b>{{ t.state }}</b>
            </td>
            <td>{{ t.words }}</td>
          </tr>
        </tbody>
      </table>
      <p class="quiet">What the sheets do not name they do not know: walk round the unit yourself too.</p>
    </template>
    <table v-else-if="shown === 'carriers'">
      <caption>
        What carries what, from step to step
      </caption>
      <tbody>
        <tr v-for="c in outset.carriers" :key="c.number">
          <th scope="row">{{ c.number }} {{ c.title }}</th>
          <td colspan="2">{{ c.words }}</td>
        </tr>
      </tbody>
    </table>
    <table v-else>
      <caption>
        Which fluid is let out where, and comes back where
      </caption>
      <tbody>
        <tr v-for="f in outset.fluids" :key="f.name">
          <th scope="row">{{ f.name }}</th>
          <td>{{ f.amount ?? 'how much is not given' }}</td>
          <td>{{ f.words }}; runs out {{ f.runs_out }}</td>
        </tr>
      </tbody>
    </table>
  </el-dialog>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
  margin-top: 10px;
}
caption {
  text-align: left;
  padding: 4px 0;
}
th,
td {
  text-align: left;
  vertical-align: top;
  height: auto;
  padding: 5px 12px 5px 0;
  border-top: 1px solid var(--hair);
}
th {
  width: 32%;
  font: inherit;
  color: inherit;
}
td:nth-child(2):not([colspan]) {
  width: 18%;
}
.open {
  box-shadow: inset 6px 0 0 var(--yel);
}
.open th {
  padding-left: 14px;
}
</style>
