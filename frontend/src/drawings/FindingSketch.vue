<script setup lang="ts">
/** A line drawing of one term: a small field of the face, and what the eye meets on it. */
import { computed } from 'vue'
import { DRAWN } from './terms'

const props = defineProps<{ code: string; name: string }>()
const drawn = computed(() => (props.code in DRAWN ? DRAWN[props.code] : {}))
</script>

<template>
  <svg
    viewBox="0 0 120 80"
    width="120"
    height="80"
    role="img"
    :aria-label="`drawing: ${name}`"
    class="sketch"
  >
    <rect x="1" y="1" width="118" height="78" class="field" />
    <path v-if="drawn.d" :d="drawn.d" class="d" />
    <path v-if="drawn.l" :d="drawn.l" class="l" />
    <path v-if="drawn.f" :d="drawn.f" class="f" />
  </svg>
</template>

<style scoped>
.sketch {
  flex: none;
}
.field {
  fill: var(--zinc2);
  stroke: var(--hair);
}
.l {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linejoin: round;
}
.d {
  fill: none;
  stroke: var(--metal);
  stroke-width: 1.6;
  stroke-dasharray: 5 4;
}
.f {
  fill: var(--ink);
  stroke: none;
}
</style>
