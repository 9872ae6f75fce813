<script setup lang="ts">
/**
 * Like parts side by side: clearance drawn on one scale, finding and grade of each face, and what the
 * pattern says.
 */
import { computed } from 'vue'
import { whiskers } from './geometry'
import type { Inspection } from '@/api/client'
import { capital } from '@/words'
import VerdictMark from './VerdictMark.vue'

const props = defineProps<{ table: Inspection['tables'][number] }>()
const SHAPES: Record<string, string> = {
  good: 'inside',
  again: 'too_close',
  bad: 'outside',
  not_seen: 'not_read',
}
const read = computed(() => props.table.rows.map((r) => r.clearance).filter((c) => c !== null))
const values = computed(() =>
  read.value
    .flatMap((c) => [
      c.lo,
      c.hi,
      c.value !== null ? c.value + (c.U ?? 0) : null,
      c.value !== null ? c.value - (c.U ?? 0) : null,
    ])
    .filter((v) => v !== null),
)
const low = computed(() => Math.min(...values.value))
const span = computed(() => Math.max(...values.value) - low.value || 1)
const x = (v: number) => 10 + ((v - low.value) / span.value) * 180
</script>

<template>
  <section class="rows">
    <h2 class="t20">{{ table.group }}</h2>
    <ul v-if="table.says.length" class="says">
      <li v-for="s in table.says" :key="s">{{ capital(s) }}.</li>
    </ul>
    <div class="scroll" tabindex="0" role="region" :aria-label="table.group">
      <table>
        <thead>
          <tr>
            <th>place</th>
            <th v-if="values.length">clearance</th>
            <th>faces</th>
            <th>worst</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in table.rows" :key="r.part">
            <td class="b">{{ r.position }}</td>
            <td v-if="values.length" class="bar">
              <template v-if="r.clearance && r.clearance.value !== null"
                ><span>{{ r.clearance.value_text }} {{ r.clearance.unit }}</span
                ><svg viewBox="0 0 200 24" width="200" height="24" role="img" :aria-label="r.clearance.words">
                  <rect
                    v-if="r.clearance.lo !== null && r.clearance.hi !== null"
                    :x="x(r.clearance.lo)"
                    y="2"
                    :width="x(r.clearance.hi) - x(r.clearance.lo)"
                    height="20"
                    class="slot"
                  />
                  <path v-if="r.clearance.lo !== null" :d="`M${x(r.clearance.lo)} 0V24`" class="edge" />
                  <path v-if="r.clearance.hi !== null" :d="`M${x(r.clearance.hi)} 0V24`" class="edge" />
                  <path
                    :d="
                      whiskers(
                        x(r.clearance.value - (r.clearance.U ?? 0)),
                        x(r.clearance.value + (r.clearance.U ?? 0)),
                        12,
                        0,
                      )
                    "
                    class="whisker"
                  />
                  <circle
                    :cx="x(r.clearance.value)"
                    cy="12"
                    r="6"
                    class="dot"
                    :class="r.clearance.verdict"
                  /></svg
              ></template>
            </td>
            <td>
              <span v-for="f in r.faces" :key="f.id" class="face"
                ><VerdictMark :verdict="SHAPES[f.state]" :size="7" :word="f.state.replace('_', ' ')" />
                {{ f.name }}<template v-if="f.grade">: {{ f.words }}</template></span
              >
            </td>
            <td>
              <span class="grade" :aria-label="`grade ${r.grade}`"
                ><i v-for="g in 3" :key="g" :class="{ on: g <= r.grade }"
              /></span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </section>
</template>

<style scoped>
.says li {
  border-left: 8px solid var(--close);
  background: var(--closew);
  padding: 4px 12px;
  margin: 2px 0;
}
.scroll {
  overflow-x: auto;
}
.bar {
  white-space: nowrap;
}
.bar span {
  display: inline-block;
  min-width: 92px;
  font-weight: 650;
}
.bar svg {
  vertical-align: middle;
}
.slot {
  fill: var(--slot);
}
.edge {
  stroke: var(--ink);
  stroke-width: 2.6;
}
.whisker {
  stroke: var(--ink);
  stroke-width: 2.4;
}
.dot {
  fill: var(--mut);
}
.dot.inside {
  fill: var(--in);
}
.dot.outside {
  fill: var(--out);
}
.dot.too_close {
  fill: var(--close);
}
.face {
  display: inline-block;
  margin-right: 14px;
}
.grade {
  display: inline-flex;
  gap: 3px;
}
.grade i {
  width: 12px;
  height: 20px;
  border: 2px solid var(--line);
}
.grade .on {
  background: var(--ink);
}
</style>
