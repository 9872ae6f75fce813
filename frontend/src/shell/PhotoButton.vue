<script setup lang="ts">
/**
 * Take or choose a photo: the file input opens the phone's camera, also where the page is not on a secure
 * address.
 */
import { ref } from 'vue'

withDefaults(defineProps<{ label?: string; cap?: string }>(), { label: 'Photo' })
const emit = defineEmits<{ taken: [file: File] }>()
const input = ref<HTMLInputElement | null>(null)

function chosen() {
  const file = input.value?.files?.[0]
  if (file) emit('taken', file)
  if (input.value) input.value.value = ''
}
defineExpose({ open: () => input.value?.click() })
</script>

<template>
  <span class="photo">
    <button type="button" class="btn small" @click="input?.click()">
      {{ label }}<kbd v-if="cap">{{ cap }}</kbd>
    </button>
    <input
      ref="input"
      class="sr"
      type="file"
      accept="image/*"
      capture="environment"
      tabindex="-1"
      aria-label="Photo file"
      name="photo"
      @change="chosen"
    />
  </span>
</template>

<style scoped>
.photo {
  display: contents;
}
</style>
