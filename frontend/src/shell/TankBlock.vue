<script setup lang="ts">
/** What is in the tank: which fuel, how old, nose and jar; and whether a pump may see it. */
import { reactive, watch } from 'vue'
import type { Schemas } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

type Told = Schemas['FuelToldAct']
const props = defineProps<{ tank: Schemas['Tank'] }>()
const book = useBook()
const { problem, served } = useServer()
const FUELS: readonly Told['fuel'][] = ['petrol', 'diesel', 'other']
const NOSES: readonly NonNullable<Told['nose']>[] = ['fresh', 'sour', 'not smelt']
const JARS: readonly NonNullable<Told['jar']>[] = ['clear', 'water', 'layers', 'rust', 'not looked at']
const LOOK: Record<Schemas['Tank']['verdict'], string> = {
  'not told': 'mut',
  sound: 'inside b',
  old: 'too_close b',
  wrong: 'outside b',
  'not known': 'too_close b',
}
const said = reactive({
  fuel: null as Told['fuel'] | null,
  since: '',
  nose: 'not smelt' as (typeof NOSES)[number],
  jar: 'not looked at' as (typeof JARS)[number],
  storage: false,
})
/** What it is stays said; what nose and jar say is never filled in: it is looked at each time. */
watch(
  () => props.tank.told,
  (told) => {
    if (told) Object.assign(said, { fuel: told.fuel, since: told.since, storage: told.storage })
    said.nose = 'not smelt'
    said.jar = 'not looked at'
  },
  { immediate: true },
)
async function tell() {
  const { fuel, ...own } = said
  if (!fuel) return
  await served(() => book.write({ kind: 'fuel told', ...own, fuel, since: said.since.trim() }))
}
</script>

<template>
  <section class="tank" aria-label="In the tank">
    <p>
      <b class="t20">In the tank</b
      ><span :class="LOOK[tank.verdict]">{{ tank.words || 'nobody has told what is in it' }}</span>
    </p>
    <form @submit.prevent="tell">
      <span class="two" role="group" aria-label="Fuel">
        <button
          v-for="f in FUELS"
          :key="f"
          type="button"
          class="btn small"
          :aria-pressed="said.fuel === f"
          @click="said.fuel = f"
        >
          {{ f }}
        </button>
        <button
          type="button"
          class="btn small"
          :aria-pressed="said.storage"
          @click="said.storage = !said.storage"
        >
          to be stored
        </button>
      </span>
      <label class="field"
        ><span>since, such as 2026-04-30</span
        ><input
          v-model="said.since"
          class="entry"
          name="fuel-since"
          placeholder="not known"
          maxlength="10"
          autocomplete="off"
      /></label>
      <span class="two" role="group" aria-label="It smells">
        <span>it smells</span
        ><button
          v-for="n in NOSES"
          :key="n"
          type="button"
          class="btn small"
          :aria-pressed="said.nose === n"
          @click="said.nose = n"
        >
          {{ n }}
        </button>
      </span>
      <span class="two" role="group" aria-label="A jar of it">
        <span>a jar of it on white paper</span
        ><button
          v-for="j in JARS"
          :key="j"
          type="button"
          class="btn small"
          :aria-pressed="said.jar === j"
          @click="said.jar = j"
        >
          {{ j }}
        </button>
      </span>
      <button type="submit" class="btn" :disabled="!said.fuel">Told</button>
    </form>
    <p class="t16 mut">
      Nobody smells at an open pipe, nobody draws it by mouth; no flame, extinguisher at hand.
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.tank {
  display: grid;
  gap: 8px;
  padding: 10px 0;
  border-bottom: 2px solid var(--ink);
}
.tank > p:first-child {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
}
form,
.two {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
form {
  align-items: end;
}
</style>
