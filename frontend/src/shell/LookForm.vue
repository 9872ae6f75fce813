<script setup lang="ts">
/** A look begins: which system, what is seen before, how it is pressed; then the pressure goes up. */
import { computed, ref, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

const props = defineProps<{ view: Schemas['LeaksView'] }>()
const book = useBook()
const { problem, served } = useServer()
const fluid = ref(props.view.systems[0]?.kind ?? 'oil')
/** Nothing is chosen before a hand chose it: a clean look counts for what it was clean at. */
const way = ref<'pressed' | 'running' | null>(null)
const heat = ref<'cold' | 'hot' | null>(null)
const pressure = ref('')
const temperature = ref('')
const seen = ref<string[]>([])
const system = computed(() => props.view.systems.find((s) => s.kind === fluid.value) ?? props.view.systems[0])
const name = (kind: string) => props.view.rows.find((r) => r.fluid === kind)?.name ?? kind
const lacks = computed(() => {
  const left = system.value?.needs.filter((n) => !seen.value.includes(n)) ?? []
  return [
    ...(way.value ? [] : ['under pressure or running']),
    ...(heat.value ? [] : ['cold or hot']),
    ...left,
  ]
})
watch(fluid, () => (seen.value = []))
function press(what: string) {
  seen.value = seen.value.includes(what) ? seen.value.filter((n) => n !== what) : [...seen.value, what]
}
async function begin() {
  if (!way.value || !heat.value) return
  const own = { way: way.value, heat: heat.value, pressure: pressure.value.trim() }
  await served(() =>
    book.write({
      kind: 'look begun',
      fluid: fluid.value,
      seen: seen.value,
      ...own,
      temperature: temperature.value.trim(),
    }),
  )
}
</script>

<template>
  <form v-if="system" class="look" aria-label="Look for leaks" @submit.prevent="begin()">
    <h2 class="t24">Look for leaks</h2>
    <div class="two" role="group" aria-label="System">
      <button
        v-for="s in view.systems"
        :key="s.kind"
        type="button"
        class="btn small"
        :aria-pressed="s.kind === fluid"
        @click="fluid = s.kind"
      >
        {{ name(s.kind) }}
      </button>
    </div>
    <p class="t20"><b>How:</b> {{ system.press }}. <b>Clean is:</b> {{ system.clean }}.</p>
    <p class="t16 mut">Look again: {{ system.again.join(', ') }}</p>
    <div class="two" role="group" aria-label="State">
      <button type="button" class="btn small" :aria-pressed="way === 'pressed'" @click="way = 'pressed'">
        Under pressure</button
      ><button type="button" class="btn small" :aria-pressed="way === 'running'" @click="way = 'running'">
        Running</button
      ><button type="button" class="btn small" :aria-pressed="heat === 'cold'" @click="heat = 'cold'">
        Cold</button
      ><button type="button" class="btn small" :aria-pressed="heat === 'hot'" @click="heat = 'hot'">
        Hot
      </button>
    </div>
    <div class="two" role="group" aria-label="Seen now">
      <button
        v-for="n in system.needs"
        :key="n"
        type="button"
        class="btn small"
        :aria-pressed="seen.includes(n)"
        @click="press(n)"
      >
        {{ n }}
      </button>
    </div>
    <label class="field"
      ><span>pressure on the gauge, where there is one</span
      ><input v-model="pressure" class="entry" name="look-pressure" inputmode="decimal" autocomplete="off"
    /></label>
    <label v-if="heat" class="field"
      ><span>{{
        heat === 'hot'
          ? '°C read there, where no run of the last hour made it hot'
          : '°C read there, where a run of the last hours made it hot'
      }}</span
      ><input
        v-model="temperature"
        class="entry"
        name="look-temperature"
        inputmode="decimal"
        autocomplete="off"
    /></label>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="two">
      <button type="submit" class="btn" :disabled="lacks.length > 0">It is up: look now</button>
    </div>
    <p v-if="lacks.length" class="t16">Press first what is so now: {{ lacks.join('; ') }}.</p>
  </form>
</template>

<style scoped>
.look {
  display: grid;
  gap: 8px;
  margin: 12px 0;
}
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
