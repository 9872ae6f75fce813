<script setup lang="ts">
/**
 * Work at a machine shop: what it must come back as, out, back, measured before and after, judged by the
 * order.
 */
import DeskDrawer from '@/shell/DeskDrawer.vue'
import { computed, ref } from 'vue'
import type { Schemas } from '@/api/client'
import VerdictMark from '@/drawings/VerdictMark.vue'
import PickOne from '@/shell/PickOne.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'

const props = defineProps<{ work: Schemas['MachineFacts'] }>()
const emit = defineEmits<{ close: [] }>()
const book = useBook()
const shop = useShop()
const promised = ref('')
const because = ref('')
const typed = ref('')
const tool = ref('')
const seen = ref('')
const when = computed(() => (props.work.state === 'back' ? 'after' : 'before'))
const tools = computed(() =>
  shop.tools
    .filter((t) => !t.retired && t.dimension === props.work.dimension)
    .map((t) => ({ value: t.id, label: t.code })),
)
async function moved(now: 'out' | 'back' | 'off') {
  const done = await book.handed({
    kind: 'machine moved',
    work: props.work.work,
    now,
    promised: promised.value.trim() || null,
    because: because.value.trim(),
  })
  if (done) promised.value = because.value = ''
}
async function measured() {
  const done = await book.handed({
    kind: 'machine measured',
    work: props.work.work,
    when: when.value,
    typed: typed.value.split(/[;\s]+/).filter(Boolean),
    unit: props.work.unit || null,
    instrument: typed.value.trim() ? tool.value || null : null,
    seen: seen.value.trim(),
  })
  if (done) typed.value = seen.value = ''
}
</script>

<template>
  <DeskDrawer :title="`${work.part}: ${work.to_do}`" @close="emit('close')">
    <div class="work">
      <p>
        <b>{{ work.words }}</b>
      </p>
      <ul class="t16">
        <li v-if="work.asks">comes back with {{ work.asks }}</li>
        <li v-if="work.finish">finish: {{ work.finish }}</li>
        <li v-for="w in work.with_on" :key="w">cut with {{ w }} bolted on</li>
        <li v-if="work.before.length">before: {{ work.before.join(', ') }}</li>
        <li v-if="work.price !== null">{{ shop.money(work.price.toFixed(2)) }}</li>
        <li v-if="work.seen">seen: {{ work.seen }}</li>
      </ul>
      <ul v-if="work.judged.length">
        <li v-for="(j, k) in work.judged" :key="k" class="judged">
          <VerdictMark :verdict="j.verdict" :side="j.side ?? 'high'" :size="8" /><b
            >{{ j.value_text }} {{ j.unit }}</b
          ><span>{{ j.words }}</span>
        </li>
      </ul>
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
      <template v-if="work.state !== 'off'">
        <form v-if="work.state !== 'out'" class="form" @submit.prevent="measured">
          <h3 class="b">{{ when === 'after' ? 'Measured again' : 'Measured before it goes' }}</h3>
          <template v-if="work.asks">
            <label class="field"
              ><span>{{ work.unit }}, several with a blank between</span
              ><input v-model="typed" class="entry" name="machined" autocomplete="off"
            /></label>
            <PickOne v-model="tool" :options="tools" label="With which tool" />
          </template>
          <label class="field"
            ><span>what was seen</span
            ><input v-model="seen" class="entry" name="seen" maxlength="300" autocomplete="off"
          /></label>
          <button type="submit" class="btn small" :disabled="!typed.trim() && !seen.trim()">Write it</button>
        </form>
        <div class="pair">
          <label class="field"
            ><span>promised for</span
            ><input
              v-model="promised"
              class="entry"
              name="workpromised"
              autocomplete="off"
              placeholder="Fri" /></label
          ><label class="field"
            ><span>because</span
            ><input v-model="because" class="entry" name="workbecause" maxlength="300" autocomplete="off"
          /></label>
        </div>
        <div class="chips">
          <button v-if="work.state !== 'out'" type="button" class="btn small" @click="moved('out')">
            It goes out</button
          ><button v-if="work.state === 'out'" type="button" class="btn small" @click="moved('out')">
            Another day</button
          ><button v-if="work.state === 'out'" type="button" class="btn" @click="moved('back')">
            It is back</button
          ><button type="button" class="btn small" @click="moved('off')">The order is off</button>
        </div>
      </template>
    </div>
  </DeskDrawer>
</template>

<style scoped>
.work,
.form {
  display: grid;
  gap: 10px;
}
.judged {
  display: flex;
  gap: 8px;
  align-items: center;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
