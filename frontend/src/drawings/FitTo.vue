<script setup lang="ts">
/** What it is fit to, from rolling to a long trip: slot up to the edge, metal after; what opens the next. */
import { computed } from 'vue'

const props = defineProps<{ cells: readonly { id: string; name: string; fit: boolean; why: string }[] }>()
const shut = computed(() => props.cells.find((c) => !c.fit) ?? null)
</script>

<template>
  <div class="fit">
    <ol aria-label="Fit to">
      <li v-for="c in cells" :key="c.id" :class="{ metal: !c.fit, edge: c.id === shut?.id }">
        {{ c.name }}<span class="sr">{{ c.fit ? ': yes' : ': not yet' }}</span>
      </li>
    </ol>
    <p v-if="shut">
      <b>{{ shut.name }}:</b> {{ shut.why }}
    </p>
    <p v-else>Nothing stands against a long trip.</p>
  </div>
</template>

<style scoped>
ol {
  display: flex;
  flex-wrap: wrap;
}
li {
  padding: 8px 16px;
  border: 2px solid var(--line);
  border-left-width: 0;
  background: var(--slot);
  font-weight: 680;
}
li:first-child {
  border-left-width: 2px;
}
.metal {
  background: repeating-linear-gradient(-45deg, var(--metal) 0 1.5px, var(--now) 1.5px 6.3px);
  font-weight: 500;
  text-shadow:
    0 0 4px var(--now),
    0 0 4px var(--now),
    0 0 4px var(--now);
}
.edge {
  border-left: 5px solid var(--ink);
}
</style>
