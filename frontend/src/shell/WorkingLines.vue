<script setup lang="ts">
/** The arithmetic under a computed number. */
defineProps<{ lines: readonly string[]; label?: string }>()
</script>

<template>
  <details v-if="lines.length" class="working">
    <summary>{{ label ?? 'Working' }}</summary>
    <ol>
      <li v-for="line in lines" :key="line">{{ line }}</li>
    </ol>
  </details>
</template>

<style scoped>
.working {
  font-size: 16px;
}
summary {
  cursor: pointer;
  text-decoration: underline;
  min-height: 32px;
  line-height: 32px;
}
li {
  padding: 2px 0;
  border-top: 1px solid var(--hair);
}
</style>
