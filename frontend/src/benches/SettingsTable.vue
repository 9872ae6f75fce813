<script setup lang="ts">
/** Settings as they were found and as they are now, side by side; the turns that are left, in words. */
import type { MeasureBenchView } from '@/api/client'

defineProps<{ rows: MeasureBenchView['settings'] }>()
</script>

<template>
  <div v-if="rows.length" class="scroll" tabindex="0" role="region" aria-label="Before and after">
    <table>
      <thead>
        <tr>
          <th>setting</th>
          <th>as found</th>
          <th>now</th>
          <th></th>
          <th>to turn</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.reading">
          <td>{{ r.name }}</td>
          <td>{{ r.found }}</td>
          <td class="b" :class="r.verdict ?? ''">{{ r.now }}</td>
          <td>{{ r.apart }}</td>
          <td class="b">{{ r.turns ?? '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  border-top: 1px solid var(--hair);
  padding: 4px 16px 4px 0;
}
th {
  font-weight: 460;
  font-size: 16px;
}
</style>
