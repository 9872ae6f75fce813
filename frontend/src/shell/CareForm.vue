<script setup lang="ts">
/**
 * Said of a step in one line: what points one way, what is laid on and for how long it may lie open, what is
 * driven home, or that it is a dry fit.
 */
import { computed, ref, watch } from 'vue'
import type { PlanAct } from '@/api/client'

type Care = Extract<PlanAct, { act: 'care' }>
const props = defineProps<{
  what: Care['what']
  step: string
  steps: { id: string; number: string; title: string }[]
}>()
const emit = defineEmits<{ add: [act: PlanAct] }>()
const SORTS: Record<Care['what'], string[]> = {
  orient: [
    'arrow',
    'side',
    'label',
    'one position',
    'all one way',
    'washer',
    'lip',
    'drain',
    'ring gaps',
    'mark to mark',
    'felt',
  ],
  lay: ['sealer', 'grease', 'oil', 'locker', 'adhesive', 'cleaner', 'paint'],
  seat: ['seal', 'bearing', 'bush', 'liner', 'race', 'plug', 'ring'],
  trial: [],
}
const ASKS = {
  orient: ['which way, in words', 'what on it says otherwise, if anything'],
  lay: ['what it is', 'where, and how much'],
  seat: ['which way round', 'what tells that it is home'],
  trial: ['what it proves', 'how it comes apart again'],
} as const
const sort = ref('')
const says = ref('')
const where = ref('')
const open = ref('')
const cure = ref('')
const waits = ref('')
const second = ref(false)
const asks = computed(() => ASKS[props.what])
watch(
  () => props.what,
  () => {
    sort.value = SORTS[props.what][0] ?? ''
    says.value = where.value = open.value = cure.value = waits.value = ''
    second.value = false
  },
  { immediate: true },
)
const ready = computed(
  () => says.value.trim().length >= 3 && (props.what !== 'seat' || where.value.trim().length > 0),
)
function add() {
  if (!ready.value) return
  emit('add', {
    act: 'care',
    step: props.step,
    what: props.what,
    sort: sort.value,
    says: says.value.trim(),
    where: where.value.trim(),
    open: open.value.trim(),
    cure: cure.value.trim(),
    waits: waits.value || null,
    second: second.value,
  })
}
</script>

<template>
  <form class="care" @submit.prevent="add">
    <div v-if="SORTS[what].length" class="chips" role="group" aria-label="Of which kind">
      <button
        v-for="one in SORTS[what]"
        :key="one"
        type="button"
        class="btn small"
        :aria-pressed="sort === one"
        @click="sort = one"
      >
        {{ one }}
      </button>
    </div>
    <label class="field"
      ><span>{{ asks[0] }}</span
      ><input v-model="says" class="entry" name="care-says" maxlength="110" autocomplete="off" autofocus
    /></label>
    <label class="field"
      ><span>{{ asks[1] }}</span
      ><input v-model="where" class="entry" name="care-where" maxlength="110" autocomplete="off"
    /></label>
    <template v-if="what === 'lay'">
      <label class="field"
        ><span>closed within, such as 10 min</span
        ><input v-model="open" class="entry" name="care-open" maxlength="20" autocomplete="off"
      /></label>
      <div class="two">
        <label class="field"
          ><span>what waits till it has cured</span
          ><select v-model="waits" class="entry" name="care-waits">
            <option value="">nothing</option>
            <option v-for="s in steps" :key="s.id" :value="s.id">{{ s.number }} {{ s.title }}</option>
          </select></label
        >
        <label class="field"
          ><span>for how long, such as 12 h</span
          ><input v-model="cure" class="entry" name="care-cure" maxlength="20" autocomplete="off"
        /></label>
      </div>
    </template>
    <label v-if="what === 'orient'" class="take"
      ><input v-model="second" type="checkbox" name="care-second" /><span>two people look at it</span></label
    >
    <button type="submit" class="btn" :disabled="!ready">Into the plan</button>
  </form>
</template>

<style scoped>
.care {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1.4fr 1fr;
  gap: 8px;
}
.take {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.take input {
  width: 24px;
  height: 24px;
}
</style>
