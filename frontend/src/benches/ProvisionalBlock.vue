<script setup lang="ts">
/**
 * What points one way, each with its drawing and who has seen it; what is on trial, what a trial proved, and
 * what is kept back until the last time.
 */
import { computed, ref } from 'vue'
import type { BenchView } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import OrientSketch from '@/drawings/OrientSketch.vue'
import { useBook } from '@/stores/book'
import { capital } from '@/words'

const props = defineProps<{ bench: BenchView }>()
const book = useBook()
const { problem, served } = useServer()
const words = ref('')
const base = computed(() => props.bench.base)
const trial = computed(() => base.value.trial)
const told = { yes: 'It fits', no: 'It does not fit', unclear: 'It cannot be told' } as const
const press = (what: string) => book.act({ kind: 'confirmed', step: base.value.step, what })
const unseen = computed(() => base.value.orients.find((o) => !o.seen))

async function say(fits: keyof typeof told) {
  await served(async () => {
    await book.write({
      kind: 'trial said',
      step: base.value.step,
      fits,
      words: words.value.trim(),
    })
    words.value = ''
  })
}
useKeys(() => {
  const next = unseen.value
  const keys: Record<string, () => unknown> = {}
  if (next && !base.value.settled) keys.v = () => press(next.how)
  return keys
})
</script>

<template>
  <section
    v-if="trial || base.on_trial.length || base.orients.length"
    class="provisional"
    aria-label="Which way, and for how long"
  >
    <ul v-if="base.on_trial.length" class="block">
      <li v-for="box in base.on_trial" :key="box">
        <b>On trial still.</b>
        <button type="button" class="btn small" @click="press(box)">{{ capital(box) }}</button>
      </li>
    </ul>
    <div v-if="trial" class="trial">
      <p class="t20">
        <b>On trial: nothing here is final.</b> It proves: {{ trial.proves }}.
        <template v-if="trial.apart">{{ capital(trial.apart) }}.</template>
      </p>
      <p v-if="trial.kept_back.length">
        <b>Kept back till the last time:</b> {{ trial.kept_back.join(', ') }}.
      </p>
      <p v-if="trial.fits" class="t20 b" :class="trial.fits === 'yes' ? 'inside' : 'outside'">
        {{ told[trial.fits as keyof typeof told] }}{{ trial.words ? `: ${trial.words}` : '' }}
        <span class="t16 mut">{{ trial.who }}</span>
      </p>
      <template v-if="!base.settled">
        <label class="field"
          ><span>what was found</span
          ><input v-model="words" class="entry" name="trial_words" maxlength="300" autocomplete="off"
        /></label>
        <div class="three">
          <button v-for="(name, fits) in told" :key="fits" type="button" class="btn small" @click="say(fits)">
            {{ name }}
          </button>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      </template>
    </div>
    <ul v-if="base.orients.length" class="orients">
      <li v-for="o in base.orients" :key="o.id" :class="{ seen: o.seen }">
        <OrientSketch :kind="o.kind" />
        <div>
          <p class="t16 mut">{{ o.name }}{{ o.second ? ', two people look' : '' }}</p>
          <p class="b">{{ o.how }}</p>
          <p v-if="o.misleads" class="too_close">What misleads: {{ o.misleads }}</p>
        </div>
        <span v-if="o.seen" class="t16">✓ {{ o.by.join(', ') }}</span>
        <button v-else-if="!base.settled" type="button" class="btn small" @click="press(o.how)">
          {{ o.by.length ? `${o.by[0]} saw it: second` : 'Seen' }} <kbd v-if="o.id === unseen?.id">V</kbd>
        </button>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.provisional {
  display: grid;
  gap: 8px;
}
.trial {
  border: 2px dashed var(--ink);
  padding: 8px 12px;
  display: grid;
  gap: 6px;
}
.three {
  display: flex;
  gap: 8px;
}
.three .btn {
  flex: 1;
}
.orients li {
  display: grid;
  grid-template-columns: 96px 1fr auto;
  gap: 12px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
.orients .seen svg {
  opacity: 0.5;
}
</style>
