<script setup lang="ts">
/**
 * A part that may be needed: now, or only once it is needed and waited for; how likely is a key or hangs on
 * a figure.
 */
import { computed, ref } from 'vue'
import { priceOf } from '@/composables/desk'
import PickOne from '@/shell/PickOne.vue'
import { useBook } from '@/stores/book'

const props = defineProps<{
  limits: readonly { id: string; name: string }[]
  steps: readonly { id: string; name: string }[]
  chances: Readonly<Record<string, number>>
}>()
const book = useBook()
const BLANK = { name: '', count: '1', price: '', wait: '', aDay: '', limit: '', beyond: '', step: '' }
const r = ref({ ...BLANK })
const chance = ref('perhaps')
const keys = computed(() =>
  Object.entries(props.chances).map(([key, share]) => ({ value: key, label: `${key} (${share}, assumed)` })),
)
const ready = computed(() => r.value.name.trim() && r.value.price.trim() && r.value.wait.trim())
async function weigh(buy: boolean) {
  const done = await book.handed({
    kind: 'reserve weighed',
    name: r.value.name.trim(),
    count: Number(r.value.count),
    price: priceOf(r.value.price) ?? NaN,
    wait_days: Number(r.value.wait),
    a_day: priceOf(r.value.aDay) ?? 0,
    chance: r.value.limit ? null : (chance.value as 'perhaps'),
    limit: r.value.limit || null,
    beyond: r.value.limit ? r.value.beyond.trim() : null,
    step: r.value.step || null,
    buy,
  })
  if (done) r.value = { ...BLANK }
}
</script>

<template>
  <form class="reserve" @submit.prevent>
    <div class="grid">
      <label class="field wide"
        ><span>what may be needed</span
        ><input v-model="r.name" class="entry" name="reserve" maxlength="120" autocomplete="off" /></label
      ><label class="field"
        ><span>how many</span
        ><input
          v-model="r.count"
          class="entry"
          name="reservecount"
          inputmode="numeric"
          autocomplete="off" /></label
      ><label class="field"
        ><span>each</span
        ><input
          v-model="r.price"
          class="entry"
          name="reserveprice"
          inputmode="decimal"
          autocomplete="off" /></label
      ><label class="field"
        ><span>days of waiting</span
        ><input v-model="r.wait" class="entry" name="wait" inputmode="numeric" autocomplete="off" /></label
      ><label class="field"
        ><span>a day is worth</span
        ><input v-model="r.aDay" class="entry" name="aday" inputmode="decimal" autocomplete="off"
      /></label>
    </div>
    <div class="pair">
      <label class="field"
        ><span>it hangs on this figure</span
        ><select v-model="r.limit" class="entry" name="hangs">
          <option value="">on none that was read</option>
          <option v-for="l in limits" :key="l.id" :value="l.id">{{ l.name }}</option>
        </select></label
      ><label v-if="r.limit" class="field"
        ><span>needed beyond</span
        ><input v-model="r.beyond" class="entry" name="beyond" placeholder="over 2.4" autocomplete="off"
      /></label>
    </div>
    <PickOne v-if="!r.limit" v-model="chance" :options="keys" label="How likely" />
    <div class="chips">
      <button type="button" class="btn small" :disabled="!ready" @click="weigh(true)">Buy it ahead</button
      ><button type="button" class="btn small" :disabled="!ready" @click="weigh(false)">Wait and see</button>
    </div>
  </form>
</template>

<style scoped>
.reserve,
.grid {
  display: grid;
  gap: 8px;
}
.grid {
  grid-template-columns: repeat(4, minmax(0, 1fr));
}
.wide {
  grid-column: 1 / -1;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
@media (max-width: 700px) {
  .grid,
  .pair {
    grid-template-columns: 1fr;
  }
}
</style>
