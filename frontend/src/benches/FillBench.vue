<script setup lang="ts">
/**
 * A fluid: the amount by jug, the level by eye, and where it is coolant the written decision for one dry
 * run.
 */
import { computed, ref } from 'vue'
import { onlyAsks, type FillBenchView, sentence } from '@/api/client'
import LimitBar from '@/drawings/LimitBar.vue'
import { useFigure } from '@/composables/figure'
import { useKeys } from '@/composables/keys'
import { useBook } from '@/stores/book'
import BenchFrame from './BenchFrame.vue'
import StepWords from './StepWords.vue'

const props = defineProps<{ bench: FillBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const text = ref('')
const field = ref<HTMLInputElement | null>(null)
const problem = ref('')
const question = ref('')
const tool = computed(() => props.bench.tools[0] ?? null)
const { view: figure } = useFigure(text, () => ({ dimension: 'volume', unit: 'L', tool: null }))

async function pour(sure = false) {
  if (!tool.value || !text.value.trim()) return
  problem.value = question.value = ''
  try {
    const typed = text.value.trim()
    await book.write({
      kind: 'reading',
      step: props.bench.base.step,
      reading: props.bench.base.step,
      typed: [typed],
      unit: 'L',
      instrument: tool.value.id,
      sure,
    })
    if (text.value.trim() === typed) text.value = ''
  } catch (error) {
    if (onlyAsks(error)) question.value = error.message
    else problem.value = sentence(error)
  }
}
/** A digit begins the amount. */
function digit(key: string) {
  text.value += key
  field.value?.focus()
}
useKeys(() => Object.fromEntries([...'0123456789.'].map((key) => [key, () => digit(key)])))
async function dryRun() {
  const reason = await frame.value?.ask({
    title: 'One run without coolant',
    button: 'Decided',
    least: 10,
    why:
      '30 s at most, then a full cool-down. It heats the exhaust valves first. ' +
      'The gates say so, and everything above Fire stays shut.',
  })
  if (reason)
    await book.act({ kind: 'decision', step: props.bench.base.step, about: 'dry_run', seconds: 30, reason })
}
</script>

<template>
  <BenchFrame ref="frame" :bench="bench" :ready="bench.base.lacking === null" @primary="frame?.done()">
    <template #work>
      <StepWords :bench="bench" large />
      <button
        type="button"
        class="btn row level"
        :aria-pressed="bench.level_seen"
        :disabled="bench.level_seen"
        @click="book.act({ kind: 'confirmed', step: bench.base.step, what: bench.level })"
      >
        <i aria-hidden="true">{{ bench.level_seen ? '✓' : '' }}</i><span>{{ bench.level }}</span>
      </button>
      <div v-if="bench.coolant && !bench.base.settled" class="quiet" style="margin-top: 14px">
        <p v-if="bench.dry_run_s">
          Decided in writing: one run of {{ bench.dry_run_s }} s at most without coolant, then a full
          cool-down.
        </p>
        <template v-else
          ><p>Without coolant Fire stays shut.</p>
          <button type="button" class="btn small" @click="dryRun">
            Decide one dry run in writing
          </button></template
        >
      </div>
    </template>
    <template #figure>
      <p class="t20">{{ bench.fluid }}</p>
      <p class="amount">
        {{ bench.amount.target ?? bench.amount.hi }}<span>{{ bench.amount.unit }}</span>
      </p>
      <p>
        <span :class="{ assumed: !bench.amount.source }">{{ bench.amount.source ?? 'assumed' }}</span>
      </p>
      <LimitBar
        :bar="bench.judgement"
        :verdict="bench.judgement.verdict"
        :side="bench.judgement.side"
        :assumed="bench.judgement.assumed"
        :lo-text="bench.amount.lo ?? ''"
        :hi-text="bench.amount.hi ?? ''"
        :words="bench.judgement.words"
      />
      <p v-if="bench.typed.length" class="b">{{ bench.typed.join(', ') }} in, {{ bench.judgement.words }}</p>
      <form @submit.prevent="pour()">
        <label class="field"
          ><span>poured in, L</span
          ><input
            ref="field"
            v-model="text"
            class="entry"
            inputmode="decimal"
            autocomplete="off"
            name="amount"
        /></label>
        <p class="t16" aria-live="polite" style="min-height: 24px">
          {{ text && figure ? (figure.ok ? `is ${figure.value} ${figure.unit}` : figure.words) : '' }}
        </p>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <div v-if="question" class="block">
          <p class="b">{{ question }}</p>
          <button type="button" class="btn small" @click="pour(true)">It is right, write it</button>
        </div>
        <button type="submit" class="btn small" style="width: 100%">Poured in</button>
      </form>
    </template>
  </BenchFrame>
</template>

<style scoped>
.amount {
  font-size: 132px;
  font-weight: 850;
  letter-spacing: -0.05em;
  line-height: 1;
}
.amount span {
  font-size: 36px;
  margin-left: 10px;
  letter-spacing: 0;
}
.level {
  justify-content: flex-start;
  max-width: 560px;
  margin-top: 14px;
}
.level i {
  width: 26px;
  height: 26px;
  border: 2px solid var(--ink);
  font-style: normal;
  line-height: 22px;
}
</style>
