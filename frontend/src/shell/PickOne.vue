<script setup lang="ts">
/** One of several is shown: a row of words, the one shown underlined; arrow keys go on, a key picks. */
defineProps<{ options: { value: string; label: string; kbd?: string }[]; label: string }>()
const picked = defineModel<string>({ required: true })
</script>

<template>
  <el-segmented v-model="picked" class="pick" :options="options" :aria-label="label">
    <template #default="{ item }">
      <kbd v-if="item.kbd">{{ item.kbd }}</kbd> {{ item.label }}
    </template>
  </el-segmented>
</template>

<style scoped>
.pick {
  --el-segmented-bg-color: none;
  --el-segmented-padding: 0;
  --el-segmented-item-hover-bg-color: none;
  --el-segmented-item-active-bg-color: none;
  --el-segmented-color: var(--ink);
  --el-segmented-item-hover-color: var(--ink);
  --el-segmented-item-selected-color: var(--ink);
  --el-segmented-item-selected-bg-color: none;
  height: auto;
  min-height: 44px;
  font-size: inherit;
}
.pick :deep(.el-segmented__group) {
  flex-wrap: wrap;
  gap: 2px 16px;
}
.pick :deep(.el-segmented__item) {
  flex: none;
  min-height: 44px;
  padding: 0 2px;
  line-height: 1.3;
  border-bottom: 5px solid transparent;
  border-radius: 0;
}
.pick :deep(.el-segmented__item-label) {
  overflow: visible;
}
.pick :deep(.el-segmented__item.is-selected) {
  font-weight: 780;
  border-bottom-color: var(--ink);
}
.pick :deep(.el-segmented__item.is-focus-visible),
.pick :deep(.el-segmented__item:focus-within:has(:focus-visible)) {
  outline: 3px solid var(--ink);
  outline-offset: 2px;
}
.pick :deep(.el-segmented__item-selected) {
  display: none;
}
</style>
