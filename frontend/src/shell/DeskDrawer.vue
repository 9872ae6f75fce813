<script setup lang="ts">
/** A drawer beside a desk: the desk stays in reach. */
import { ref } from 'vue'

defineProps<{ title: string }>()
const emit = defineEmits<{ close: [] }>()
const shown = ref(true)
</script>

<template>
  <el-drawer
    v-model="shown"
    direction="rtl"
    :size="420"
    :title="title"
    append-to-body
    :modal="false"
    @closed="emit('close')"
  >
    <slot />
  </el-drawer>
</template>
