<script setup lang="ts">
/** Shims of all valves: which goes where, the moves as one hand does them, and what each lash became. */
import type { MeasureBenchView } from '@/api/client'
import VerdictMark from '@/drawings/VerdictMark.vue'
import ShimsForm from './ShimsForm.vue'

type Table = NonNullable<MeasureBenchView['valve_shims']>
defineProps<{ table: Table; step: string; tools: MeasureBenchView['kit_tools']; form: boolean }>()
const emit = defineEmits<{ done: [] }>()
</script>

<template>
  <section class="swap" :aria-label="table.name">
    <ShimsForm v-if="!table.read || form" :step="step" :table="table" :tools="tools" @done="emit('done')" />
    <p v-if="table.refusal" class="t20 b outside">{{ table.refusal }}.</p>
    <div class="scroll" tabindex="0" role="region" aria-label="Which shim goes where">
      <table>
        <thead>
          <tr>
            <th>valve</th>
            <th>lash</th>
            <th>shim</th>
            <th>gets</th>
            <th>from</th>
            <th>promised</th>
            <th v-if="table.changed">became</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in table.rows" :key="row.number" :class="{ moved: row.moves }">
            <td>{{ row.name }}</td>
            <td :class="row.verdict">
              <span class="mark"
                ><VerdictMark :verdict="row.verdict" :side="row.side" :size="7" />{{ row.lash || '–' }}</span
              >
            </td>
            <td>{{ row.shim || '–' }}</td>
            <td class="b">{{ row.moves ? row.new : '' }}</td>
            <td>{{ row.source }}</td>
            <td>{{ row.promised }}</td>
            <td v-if="table.changed" :class="row.kept === false ? 'outside b' : 'inside b'">
              {{ row.became ?? (row.moves ? 'read again' : '') }}
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="table.buy.length" class="t20"><b>To buy:</b> {{ table.buy.join(', ') }}</p>
  </section>
</template>

<style scoped>
.swap {
  display: grid;
  gap: 8px;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th {
  text-align: left;
  font-size: 16px;
  font-weight: 460;
  color: var(--mut);
}
td {
  border-top: 1px solid var(--hair);
  padding: 3px 8px 3px 0;
  white-space: nowrap;
}
.mark {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.moved td:first-child {
  box-shadow: inset 5px 0 0 var(--yel);
  padding-left: 12px;
}
</style>
