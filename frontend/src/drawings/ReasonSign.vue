<script setup lang="ts">
/** The sign of a kind of reason; it never stands without its word beside it. */
const props = defineProps<{ kind: string; size?: number }>()
const SIGNS: Record<string, string> = {
  safety: 'M11 3 L20 19 H2 Z',
  'access closes': 'M3 4 H7 V18 H3 M19 4 H15 V18 H19 M7 11 H9 M15 11 H13',
  'setting kept': 'M11 3 A8 8 0 1 1 10.9 3 M11 3 V11',
  contamination: 'M3 3 H19 V19 H3 Z M11 10 A1 1 0 1 1 10.9 10',
  'load needed': 'M11 3 V14 M6 9 L11 14 L16 9 M3 19 H19',
  drying: 'M4 3 H18 L4 19 H18 Z',
  spill: 'M11 3 C15 9 17 12 17 14 A6 5 0 0 1 5 14 C5 12 7 9 11 3 Z',
}
</script>

<template>
  <svg
    class="sign"
    :width="props.size ?? 22"
    :height="props.size ?? 22"
    viewBox="0 0 22 22"
    aria-hidden="true"
  >
    <path
      :d="SIGNS[kind] ?? SIGNS.safety"
      fill="none"
      stroke="currentcolor"
      stroke-width="2.4"
      stroke-linejoin="round"
    />
  </svg>
</template>

<style scoped>
.sign {
  flex: none;
}
</style>
