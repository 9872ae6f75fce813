<script setup lang="ts">
/** With a part in the hand: it goes in before the step in hand; and what comes off again for it. */
import { computed, ref } from 'vue'
import type { BenchView, PlanAct } from '@/api/client'

const props = defineProps<{ bench: BenchView }>()
const emit = defineEmits<{ add: [act: PlanAct, off: string[]] }>()
const title = ref('')
const off = ref<string[]>([])
const comes = computed(() => props.bench.base.comes_off)
const ready = computed(() => title.value.trim().length >= 3)
function add() {
  if (!ready.value) return
  const act = { act: 'this_first', step: props.bench.base.step, title: title.value.trim() } as const
  emit('add', { ...act, off: off.value }, off.value)
}
</script>

<template>
  <form class="first" @submit.prevent="add">
    <label class="field"
      ><span>Which part goes in before {{ bench.base.number }} {{ bench.base.title }}</span
      ><input
        v-model="title"
        class="entry big"
        name="first-part"
        maxlength="120"
        autocomplete="off"
        autofocus
    /></label>
    <p v-if="comes.begun" class="block">
      Begun already: {{ comes.begun }}. Does it come off again for it? Then loosen it, bolt by bolt.
    </p>
    <fieldset v-if="comes.steps.length">
      <legend>What comes off again for it</legend>
      <label v-for="row in comes.steps" :key="row.step"
        ><input v-model="off" type="checkbox" name="first-off" :value="row.step" /> {{ row.name }}</label
      >
    </fieldset>
    <p class="t16 mut">Why it comes first is asked when the evening is closed.</p>
    <button type="submit" class="btn" :disabled="!ready">This first</button>
  </form>
</template>

<style scoped>
.first,
fieldset {
  display: grid;
  gap: 8px;
}
fieldset {
  border: 2px solid var(--line);
  margin: 0;
  padding: 8px 12px;
}
label input[type='checkbox'] {
  width: 24px;
  height: 24px;
  margin-right: 8px;
}
fieldset label {
  display: flex;
  align-items: center;
  min-height: 44px;
}
</style>
