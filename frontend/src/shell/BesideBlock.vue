<script setup lang="ts">
/**
 * What is worth knowing before a step: notes of an earlier build, what opens things, where small things
 * lie.
 */
import type { BenchView } from '@/api/client'
import OpenerRow from '@/shell/OpenerRow.vue'
import { counted } from '@/words'

defineProps<{ bench: BenchView }>()
</script>

<template>
  <ul
    v-if="
      bench.base.notes.length ||
      bench.base.openers.length ||
      bench.base.kept.length ||
      bench.base.last_time.length
    "
    class="beside"
    aria-label="Worth knowing"
  >
    <li v-for="n in bench.base.notes" :key="n.note">
      <b>Last time:</b> {{ n.text
      }}<small v-if="n.minutes || n.build_name"
        >{{ n.minutes ? `it cost ${n.minutes} min` : '' }}{{ n.minutes && n.build_name ? ', ' : ''
        }}{{ n.build_name }}</small
      >
    </li>
    <li v-if="bench.base.last_time.length">
      <details :open="bench.base.last_time.length < 3">
        <summary>
          <b>Last time on this vehicle</b>, {{ bench.base.last_time[0].name }}:
          {{ counted(bench.base.last_time.length, 'thing') }}
        </summary>
        <p v-for="l in bench.base.last_time" :key="l.key">
          {{ l.what }}: <b>{{ l.figure }}</b> {{ l.words }}<small>{{ l.day }}</small>
        </p>
      </details>
    </li>
    <li v-for="k in bench.base.kept" :key="k.thing">
      <b>{{ k.what }}</b> lies {{ k.where }}<small>{{ k.who }}</small>
    </li>
    <li v-for="o in bench.base.openers" :key="o.opener"><OpenerRow :opener="o" /></li>
  </ul>
</template>

<style scoped>
.beside {
  border-left: 6px solid var(--ink);
  padding: 2px 0 2px 12px;
  margin: 6px 0;
}
summary {
  cursor: pointer;
  min-height: 36px;
}
small {
  font-size: 16px;
  color: var(--mut);
  margin-left: 8px;
}
</style>
