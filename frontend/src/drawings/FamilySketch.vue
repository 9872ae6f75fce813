<script setup lang="ts">
/** One line drawing a family of sums: cut metal in outline, what is measured as arrows. */
import { DRAWN } from './families'

defineProps<{ family: string }>()
</script>

<template>
  <svg
    viewBox="0 0 200 120"
    width="200"
    height="120"
    role="img"
    :aria-label="`drawing: ${family}`"
    class="family"
  >
    <defs>
      <pattern
        id="family-hatch"
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V7" class="hatch" />
      </pattern>
    </defs>
    <template v-if="family in DRAWN">
      <path :d="DRAWN[family].m ?? ''" class="m" />
      <path :d="DRAWN[family].l ?? ''" class="l" />
      <path :d="DRAWN[family].c ?? ''" class="c" />
      <path :d="DRAWN[family].a ?? ''" class="a" />
    </template>
  </svg>
</template>

<style scoped>
.family {
  flex: none;
  background: var(--now);
  border: 1px solid var(--hair);
}
.hatch {
  stroke: var(--metal);
  stroke-width: 2.6;
}
.m {
  fill: url(#family-hatch);
  stroke: var(--line);
  stroke-width: 1.6;
}
.l {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.2;
  stroke-linejoin: round;
}
.c {
  fill: none;
  stroke: var(--metal);
  stroke-width: 1.4;
  stroke-dasharray: 12 4 3 4;
}
.a {
  fill: var(--yel);
  stroke: var(--ink);
  stroke-width: 1.8;
}
</style>
