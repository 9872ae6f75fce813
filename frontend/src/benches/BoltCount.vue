<script setup lang="ts">
/** The number of bolts that a sheet for any vehicle only guesses, till somebody counts them. */
import { computed, ref, watch } from 'vue'
import { type TightenBenchView } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'
import { usePlan } from '@/stores/plan'

const props = defineProps<{ joint: TightenBenchView['joint'] }>()
const book = useBook()
const plan = usePlan()
const { problem, asks, served } = useServer()
const bolts = ref('')
const bagged = computed(() =>
  props.joint.bagged === null ? ', as many as usual' : `, ${props.joint.bagged} went into bags`,
)
watch(
  () => props.joint.id,
  () => (bolts.value = ''),
)
watch(bolts, () => {
  asks.value = false
  problem.value = ''
})

async function count() {
  const id = book.card?.id
  if (!id || !/^\d+$/.test(bolts.value.trim())) {
    problem.value = 'How many are there? A whole number, such as 8'
    return
  }
  const { id: joint, version } = props.joint
  const sure = asks.value
  await served(async () => {
    if (plan.build !== id) await plan.load(id)
    await plan.take([{ act: 'count', joint, version, bolts: Number(bolts.value), sure }], '')
  })
}
</script>

<template>
  <form class="quiet count" @submit.prevent="count">
    <p>
      <b>{{ joint.bolts.length }} are drawn here{{ bagged }}.</b> Count them: till then nothing is final.
    </p>
    <label class="field"
      ><span>Counted</span
      ><input v-model="bolts" class="entry" name="bolts" inputmode="numeric" maxlength="3" autocomplete="off"
    /></label>
    <button type="submit" class="btn small">{{ asks ? `It is ${bolts}` : 'That many' }}</button>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </form>
</template>

<style scoped>
.count {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
}
.count p {
  flex: 1 1 260px;
}
.count input {
  width: 90px;
}
</style>
