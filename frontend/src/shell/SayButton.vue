<script setup lang="ts">
/** Held, it records what is said; where the page may not listen, it opens the phone's recorder. */
import { ref } from 'vue'
import { useRecorder } from '@/composables/recorder'

withDefaults(defineProps<{ label?: string; cap?: string }>(), { label: 'Hold and say it' })
const emit = defineEmits<{ said: [sound: Blob] }>()
const input = ref<HTMLInputElement | null>(null)
const { listening, problem, possible, begin, end } = useRecorder((sound) => emit('said', sound))

function chosen() {
  const file = input.value?.files?.[0]
  if (file) emit('said', file)
  if (input.value) input.value.value = ''
}
defineExpose({ begin, end, listening })
</script>

<template>
  <span class="say">
    <button
      type="button"
      class="btn small"
      :class="{ listening }"
      @pointerdown="possible && begin()"
      @pointerup="end"
      @pointercancel="end"
      @pointerleave="end"
      @keydown.space.prevent="!$event.repeat && begin()"
      @keyup.space.prevent="end"
      @click="!possible && input?.click()"
    >
      {{ listening ? 'Listening, let go to keep it' : label }}<kbd v-if="cap && !listening">{{ cap }}</kbd>
    </button>
    <input
      ref="input"
      class="sr"
      type="file"
      accept="audio/*"
      capture
      tabindex="-1"
      aria-label="Recording file"
      name="sound"
      @change="chosen"
    />
    <small v-if="problem" role="alert">{{ problem }}</small>
  </span>
</template>

<style scoped>
.say {
  display: contents;
}
.listening {
  background: var(--out);
  color: var(--now);
  border-color: var(--out);
}
</style>
