<script setup lang="ts">
/** What is so tonight: from when until when, with whom, dark, cold, damp, and from when it must be quiet. */
import { ref } from 'vue'
import { useCalendar } from '@/stores/calendar'

const calendar = useCalendar()
const open = ref(false)
const start = ref('')
const end = ref('')
const people = ref<string[]>([])
const dark = ref(false)
const cold = ref(false)
const damp = ref(false)
const quiet = ref('')
const AROUND = [
  { name: 'dark', model: dark },
  { name: 'cold', model: cold },
  { name: 'damp', model: damp },
]

function ask() {
  const view = calendar.tonight
  start.value = view?.start || '19:00'
  end.value = view?.end || '21:00'
  people.value = [...(view?.evening?.people ?? [])]
  dark.value = view?.evening?.dark ?? false
  cold.value = view?.evening?.cold ?? false
  damp.value = view?.evening?.damp ?? false
  quiet.value = view?.quiet ?? ''
  calendar.problem = ''
  open.value = true
}
async function say() {
  const said = await calendar.say({
    kind: 'tonight',
    start: start.value.trim(),
    end: end.value.trim(),
    people: people.value,
    dark: dark.value,
    cold: cold.value,
    damp: damp.value,
    quiet_from: quiet.value.trim() || null,
  })
  if (said) open.value = false
}
const there = (name: string) =>
  (people.value = people.value.includes(name)
    ? people.value.filter((p) => p !== name)
    : [...people.value, name])
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Tonight" width="560" append-to-body>
    <form class="form" @submit.prevent="say">
      <div class="three">
        <label class="field"
          ><span>from</span
          ><input v-model="start" class="entry" name="start" autocomplete="off" placeholder="19:00" /></label
        ><label class="field"
          ><span>until</span
          ><input v-model="end" class="entry" name="end" autocomplete="off" placeholder="21:00" /></label
        ><label class="field"
          ><span>quiet from</span
          ><input v-model="quiet" class="entry" name="quiet" autocomplete="off" placeholder="20:30"
        /></label>
      </div>
      <p>With</p>
      <div class="chips">
        <button
          v-for="h in calendar.tonight?.helpers ?? []"
          :key="h.id"
          type="button"
          class="btn small"
          :aria-pressed="people.includes(h.name)"
          @click="there(h.name)"
        >
          {{ h.name }}
        </button>
        <button type="button" class="btn small" :aria-pressed="!people.length" @click="people = []">
          alone
        </button>
      </div>
      <div class="chips">
        <button
          v-for="a in AROUND"
          :key="a.name"
          type="button"
          class="btn small"
          :aria-pressed="a.model.value"
          @click="a.model.value = !a.model.value"
        >
          {{ a.name }}
        </button>
      </div>
      <p v-if="calendar.problem" class="problem" role="alert">{{ calendar.problem }}</p>
      <button type="submit" class="btn">So it is tonight</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
</style>
