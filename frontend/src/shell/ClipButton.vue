<script setup lang="ts">
/**
 * A clip with sound, 20 s at most: pressed to begin, pressed again to keep it. Where the page may not see, it
 * opens the phone's own camera, and the phone says how long its clip is. What was filmed is kept also when
 * the button has left the screen, as at a STOP.
 */
import { ref } from 'vue'
import { CLIP, useRecorder } from '@/composables/recorder'

const props = withDefaults(
  defineProps<{ keep: (clip: Blob, seconds: number) => unknown; label?: string; cap?: string }>(),
  { label: 'Clip' },
)
const emit = defineEmits<{ begun: [] }>()
const input = ref<HTMLInputElement | null>(null)
const tooLong = ref('')
const { listening, problem, possible, begin, end } = useRecorder(
  (clip, seconds) => props.keep(clip, seconds),
  CLIP,
)
const longest = CLIP.longest_ms / 1000

function press() {
  if (!possible) return input.value?.click()
  if (listening.value) return end()
  emit('begun')
  return begin()
}
/** How long a file plays; 0 where the device cannot tell. */
function secondsOf(file: File): Promise<number> {
  const player = document.createElement('video')
  player.preload = 'metadata'
  player.src = URL.createObjectURL(file)
  return new Promise((told) => {
    player.onloadedmetadata = () => told(Number.isFinite(player.duration) ? player.duration : 0)
    player.onerror = () => told(0)
  }).finally(() => URL.revokeObjectURL(player.src)) as Promise<number>
}
async function chosen() {
  const file = input.value?.files?.[0]
  if (input.value) input.value.value = ''
  if (!file) return
  const seconds = await secondsOf(file)
  tooLong.value = ''
  if (seconds === 0) tooLong.value = 'This device cannot play it: take it as WebM or MP4.'
  else if (seconds > longest)
    tooLong.value = `It is ${seconds.toFixed(0)} s long, ${longest} s at most: cut it, or take it again.`
  else await props.keep(file, seconds)
}
defineExpose({ press })
</script>

<template>
  <span class="clip">
    <button type="button" class="btn small" :class="{ listening }" @click="press">
      {{ listening ? `Recording, press to keep it (${longest} s at most)` : label
      }}<kbd v-if="cap && !listening">{{ cap }}</kbd>
    </button>
    <input
      ref="input"
      class="sr"
      type="file"
      accept="video/*"
      capture="environment"
      tabindex="-1"
      aria-label="Clip file"
      name="clip"
      @change="chosen"
    />
    <small v-if="problem || tooLong" role="alert">{{ problem || tooLong }}</small>
  </span>
</template>

<style scoped>
.clip {
  display: contents;
}
.listening {
  background: var(--out);
  color: var(--now);
  border-color: var(--out);
}
</style>
