<script setup lang="ts">
/** One log line in hand, with its verdict by shape and word, struck where it was struck. */
import type { LogLine } from '@/api/client'
import VerdictMark from '@/drawings/VerdictMark.vue'

defineProps<{ line: LogLine }>()
</script>

<template>
  <span class="line">
    <span class="hand" :class="{ struck: line.struck_by }">{{ line.text }}</span>
    <span v-if="line.struck_reason" class="t16">struck, {{ line.struck_reason }}</span>
    <span v-else-if="line.verdict" class="judged">
      <VerdictMark :verdict="line.verdict" :side="line.side" :size="7" />
      <span class="hand b" :class="line.verdict">{{ line.verdict_words }}</span>
    </span>
  </span>
</template>

<style scoped>
.line {
  min-width: 0;
}
.line > * + *,
.judged > * + * {
  margin-left: 8px;
}
.judged {
  white-space: nowrap;
}
</style>
