<script setup lang="ts">
/** One small drawing for each thing that points one way; the metal hatched, what is looked at in ink. */
import { useId } from 'vue'
import MetalPattern from './MetalPattern.vue'

defineProps<{ kind: string }>()
const id = useId()
</script>

<template>
  <svg width="96" height="72" viewBox="0 0 96 72" aria-hidden="true">
    <defs>
      <MetalPattern :id="`o${id}`" />
    </defs>
    <g fill="none" stroke="var(--line)" stroke-width="2.6" stroke-linejoin="round">
      <template v-if="kind === 'arrow'">
        <circle cx="48" cy="36" r="28" :fill="`url(#o${id})`" />
        <path d="M28 32 H50 V22 L70 36 L50 50 V40 H28 Z" fill="var(--ink)" stroke="none" />
      </template>
      <template v-else-if="kind === 'side'">
        <path d="M20 10 H44 V62 H20 Z" :fill="`url(#o${id})`" />
        <path d="M52 10 H76 V62 H52 Z" />
        <path d="M32 26 V46 M26 40 L32 48 L38 40" stroke="var(--ink)" stroke-width="4" />
      </template>
      <template v-else-if="kind === 'label'">
        <path d="M14 18 H66 L82 36 L66 54 H14 Z" :fill="`url(#o${id})`" />
        <path d="M24 62 L76 10" stroke="var(--out)" stroke-width="6" />
      </template>
      <template v-else-if="kind === 'one position'">
        <circle cx="48" cy="36" r="28" :fill="`url(#o${id})`" />
        <g fill="var(--now)">
          <circle cx="48" cy="14" r="5" />
          <circle cx="68" cy="44" r="5" />
          <circle cx="34" cy="54" r="5" />
        </g>
        <circle cx="34" cy="54" r="9" stroke="var(--ink)" stroke-width="4" />
      </template>
      <template v-else-if="kind === 'all one way'">
        <g v-for="x in [18, 42, 66]" :key="x">
          <path :d="`M${x} 20 h14 v8 h-14 Z`" :fill="`url(#o${id})`" />
          <path :d="`M${x + 4} 28 v26 M${x + 10} 28 v26`" />
        </g>
        <path d="M8 64 H88" stroke="var(--ink)" stroke-width="4" />
      </template>
      <template v-else-if="kind === 'washer'">
        <path d="M18 46 Q48 18 78 46" stroke="var(--ink)" stroke-width="6" />
        <path d="M10 60 H86" />
        <path d="M48 8 V26 M42 20 L48 28 L54 20" />
      </template>
      <template v-else-if="kind === 'lip'">
        <path d="M16 12 H36 V60 H16 Z" :fill="`url(#o${id})`" />
        <path d="M36 20 H52 L64 44 L54 52" stroke="var(--ink)" stroke-width="5" />
        <circle cx="62" cy="34" r="5" fill="var(--now)" />
        <path d="M54 60 H92" />
      </template>
      <template v-else-if="kind === 'drain'">
        <circle cx="48" cy="32" r="24" :fill="`url(#o${id})`" />
        <circle cx="48" cy="50" r="6" fill="var(--now)" />
        <path d="M48 58 V70 M42 64 L48 71 L54 64" stroke="var(--ink)" stroke-width="4" />
      </template>
      <template v-else-if="kind === 'ring gaps'">
        <path d="M70 18 A28 28 0 1 1 60 11" />
        <path d="M30 52 A20 20 0 1 0 26 46" stroke="var(--ink)" stroke-width="4" />
        <path d="M58 44 A12 12 0 1 1 60 36" />
      </template>
      <template v-else-if="kind === 'mark to mark'">
        <path d="M8 14 A60 60 0 0 0 88 14" />
        <path d="M8 60 A60 60 0 0 1 88 60" />
        <path d="M48 32 V16 M48 42 V58" stroke="var(--ink)" stroke-width="6" />
      </template>
      <template v-else>
        <path d="M12 54 Q48 30 84 54" />
        <circle cx="48" cy="20" r="10" :fill="`url(#o${id})`" />
        <path d="M48 30 V40 M36 34 L30 46 M60 34 L66 46" stroke="var(--ink)" stroke-width="4" />
      </template>
    </g>
  </svg>
</template>
