<script setup lang="ts">
/**
 * Check, connect, fit and wait: the instruction, the reason, the figures that must be said first, one tick.
 */
import { computed, nextTick, ref, watch } from 'vue'
import { onlyAsks, type CheckBenchView, sentence } from '@/api/client'
import { type KeyMap, useKeys } from '@/composables/keys'
import { useBook } from '@/stores/book'
import AsTaken from './AsTaken.vue'
import BenchFrame from './BenchFrame.vue'
import RowsBlock from './RowsBlock.vue'
import PatternBlock from './PatternBlock.vue'
import StepWords from './StepWords.vue'
import SweepBlock from './SweepBlock.vue'

const props = defineProps<{ bench: CheckBenchView }>()
const book = useBook()
const frame = ref<InstanceType<typeof BenchFrame> | null>(null)
const typed = ref<Record<string, string>>({})
const problem = ref<Record<string, string>>({})
const missing = computed(() => props.bench.asks.find((a) => a.words === null) ?? null)
watch(
  () => props.bench.base.step,
  () => {
    typed.value = {}
    problem.value = {}
    asked.value = {}
  },
)

const asked = ref<Record<string, string>>({})
async function say(id: string, sure = false) {
  const text = typed.value[id]?.trim()
  if (!text) return
  problem.value[id] = asked.value[id] = ''
  try {
    await book.write({ kind: 'said', step: props.bench.base.step, figure: id, typed: text, sure })
    if (typed.value[id]?.trim() === text) typed.value[id] = ''
    await nextTick()
    document.getElementById(`said-${missing.value?.id}`)?.focus()
  } catch (error) {
    if (onlyAsks(error)) asked.value[id] = error.message
    else problem.value[id] = sentence(error)
  }
}
useKeys((): KeyMap =>
  props.bench.asks.length && !props.bench.base.settled
    ? { e: () => document.getElementById(`said-${(missing.value ?? props.bench.asks[0]).id}`)?.focus() }
    : {},
)
</script>

<template>
  <BenchFrame ref="frame" :bench="bench" plain @primary="frame?.done()">
    <template #work>
      <PatternBlock
        v-if="bench.pattern"
        :pattern="bench.pattern"
        :step="bench.base.step"
        :settled="bench.base.settled"
      />
      <SweepBlock
        v-if="bench.sweep"
        :sweep="bench.sweep"
        :step="bench.base.step"
        :settled="bench.base.settled"
      />
      <StepWords
        :bench="bench"
        :large="!bench.asks.length && !bench.pattern && !bench.rows.length && !bench.sweep"
      />
      <RowsBlock
        :rows="bench.rows"
        :words="bench.rows_words"
        :step="bench.base.step"
        :settled="bench.base.settled"
      />
      <div v-if="bench.asks.length" class="asks">
        <form v-for="a in bench.asks" :key="a.id" @submit.prevent="say(a.id)">
          <label :for="`said-${a.id}`">{{ a.name }}</label>
          <b v-if="a.words" class="t24"
            >{{ a.words }}<small v-if="a.who"> {{ a.who }}</small></b
          >
          <template v-if="!bench.base.settled"
            ><span class="in"
              ><input
                :id="`said-${a.id}`"
                v-model="typed[a.id]"
                class="entry"
                :name="`said-${a.id}`"
                inputmode="decimal"
                autocomplete="off"
                maxlength="40"
                :placeholder="a.words ? 'anew' : ''"
              /><span class="unit">{{ a.unit }}</span></span
            ><button type="submit" class="btn small" :disabled="!typed[a.id]?.trim()">Said</button></template
          >
          <p v-if="problem[a.id]" class="problem" role="alert">{{ problem[a.id] }}</p>
          <div v-if="asked[a.id]" class="block odd">
            <p class="b">{{ asked[a.id] }}</p>
            <button type="button" class="btn small" @click="say(a.id, true)">It is right, write it</button>
          </div>
          <p v-if="a.problem" class="block">{{ a.problem }}</p>
        </form>
      </div>
    </template>
    <template #figure><AsTaken :bench="bench" /></template>
  </BenchFrame>
</template>

<style scoped>
.asks {
  display: grid;
  gap: 4px;
  margin-top: 14px;
  max-width: 640px;
}
.asks form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(90px, auto) 190px auto;
  gap: 2px 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
.asks small {
  font-size: 16px;
  font-weight: 500;
  color: var(--mut);
}
.asks .in {
  display: flex;
  align-items: center;
  gap: 6px;
}
.asks label {
  grid-column: 1;
}
.asks .in {
  grid-column: 3;
}
.asks .btn {
  grid-column: 4;
}
.asks .entry {
  width: 130px;
}
.asks .unit {
  font-size: 24px;
  font-weight: 700;
  width: 46px;
}
.asks p,
.odd {
  grid-column: 1 / -1;
}
</style>
