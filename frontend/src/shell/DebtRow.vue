<script setup lang="ts">
/** One joint below its final state: its bolts, what it waits for, one press to its bench. */
import type { Schemas } from '@/api/client'
import BoltStrip from '@/drawings/BoltStrip.vue'

defineProps<{ debt: Schemas['Debt']; build: string; hidden?: boolean }>()
</script>

<template>
  <li :class="{ hidden }">
    <RouterLink :to="{ name: 'step', params: { build, step: debt.step } }">
      <span>
        <b>{{ debt.name }}</b>
        <small>{{ debt.step_number }}, {{ debt.size }}</small>
      </span>
      <BoltStrip :bolts="debt.bolts" />
      <span class="waits">
        <svg width="16" height="16" aria-hidden="true">
          <rect v-if="debt.alone" x="2" y="2" width="12" height="12" class="alone" />
          <circle v-else cx="8" cy="8" r="6" class="other" />
        </svg>
        <span
          ><b>{{ debt.waits }}</b
          ><small>{{ debt.reason }}</small></span
        >
      </span>
    </RouterLink>
  </li>
</template>

<style scoped>
li {
  border-top: 1px solid var(--hair);
}
.hidden {
  border-left: 3px solid var(--ink);
  box-shadow: -12px 0 0 var(--hair);
  margin-left: 12px;
}
a {
  display: grid;
  grid-template-columns: minmax(140px, 188px) auto minmax(0, 1fr);
  gap: 4px 12px;
  align-items: center;
  min-height: 52px;
  padding: 3px 0 3px 8px;
  color: inherit;
  text-decoration: none;
}
a:hover b {
  text-decoration: underline;
}
small {
  display: block;
  font-size: 16px;
  font-weight: 460;
  color: var(--mut);
}
.waits {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  gap: 4px;
}
.waits svg {
  margin-top: 4px;
}
.alone {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.other {
  fill: none;
  stroke: var(--vio);
  stroke-width: 3.4;
}
@media (max-width: 700px) {
  a {
    grid-template-columns: 1fr;
  }
}
</style>
