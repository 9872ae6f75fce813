<script setup lang="ts">
/** What has to be kept as found before this step destroys it; each is kept, or gone without with a reason. */
import { computed, ref } from 'vue'
import type { Capture } from '@/api/client'
import CaptureDialog from './CaptureDialog.vue'
import AskDialog from './AskDialog.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{
  captures: readonly Capture[]
  step: string
  settled?: boolean
  keys?: readonly string[]
}>()
const book = useBook()
const dialog = ref<InstanceType<typeof CaptureDialog> | null>(null)
const reason = ref<InstanceType<typeof AskDialog> | null>(null)
const first = computed(() => props.captures.find((c) => c.todo)?.id)

async function letGo(capture: Capture) {
  const said = await reason.value?.ask({
    title: `Go on without: ${capture.what}`,
    button: 'Go on without it',
    keys: props.keys,
    least: 10,
    why: 'After this step nobody can look any more. It stays written that it was not kept.',
  })
  if (said)
    await book.act({ kind: 'decision', step: props.step, about: 'capture', thing: capture.id, reason: said })
}
defineExpose({
  own: () => dialog.value?.ask(null, { step: props.step }),
  first: () => {
    const c = props.captures.find((x) => x.id === first.value)
    if (c) dialog.value?.ask(c, { step: props.step })
    else dialog.value?.ask(null, { step: props.step })
  },
})
</script>

<template>
  <p v-if="captures.length && !first" class="quiet t16">
    Kept as found: {{ captures.map((c) => `${c.what}, ${c.words}`).join('; ') }}
  </p>
  <section v-else-if="captures.length" class="closing" aria-label="To keep as found">
    <div class="metal" aria-hidden="true" />
    <div class="body">
      <h2 class="t20">Keep it as found: after this step the chance is gone</h2>
      <ul>
        <li v-for="c in captures" :key="c.id" :class="{ missing: c.id === first }">
          <span class="what"
            ><b>{{ c.kind_words }}: {{ c.what }}</b
            ><small>{{ c.todo ? c.because : c.words }}</small></span
          >
          <span v-if="!c.todo" class="state"
            ><i v-if="!c.gone" class="disc" aria-hidden="true" />{{
              c.gone ? 'gone without' : c.compared || 'kept'
            }}</span
          >
          <span v-else-if="!settled" class="do"
            ><button type="button" class="btn small" @click="dialog?.ask(c, { step })">
              Keep it <kbd v-if="c.id === first">K</kbd></button
            ><button type="button" class="btn small" @click="letGo(c)">Go on without</button></span
          >
        </li>
      </ul>
    </div>
  </section>
  <CaptureDialog ref="dialog" />
  <AskDialog ref="reason" />
</template>

<style scoped>
.missing {
  background: var(--zinc2);
  outline: 2px solid var(--line);
  outline-offset: -2px;
}
.closing .missing small {
  color: var(--ink);
}
</style>
