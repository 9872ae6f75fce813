<script setup lang="ts">
/** What the instrument in hand says: that it sends, or why nothing of it is taken; and what is asked. */
import type { InstrumentView, SentView } from '@/api/client'

defineProps<{
  device: InstrumentView | null
  hold: string
  asked: SentView[]
  stray: SentView | null
  problem: string
  code: string
}>()
const emit = defineEmits<{ take: [sent: SentView]; drop: [sent: SentView] }>()
</script>

<template>
  <div class="sent" role="status" aria-live="polite">
    <p v-if="hold" class="block b">{{ hold }}</p>
    <p v-else-if="!device" class="t16 mut">{{ code }} is not heard: switch it on, or type the figure.</p>
    <p v-else class="t16">
      {{ device.words
      }}<span v-if="device.reads && !device.pulling"
        >, reads <b>{{ device.reads }}</b></span
      >
    </p>
    <p v-if="stray" class="block b">
      {{ stray.code }} sent {{ stray.words }}, and {{ code }} is in hand here.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-for="sent in asked.slice(-2)" :key="sent.id" class="block">
      <p class="b">{{ code }} sent {{ sent.words }}. Is it for here?</p>
      <p v-if="sent.trouble" class="t16">{{ sent.trouble }}</p>
      <button v-if="sent.may" type="button" class="btn small" @click="emit('take', sent)">Take it</button
      ><button type="button" class="btn small" @click="emit('drop', sent)">Not for here</button>
    </div>
  </div>
</template>
