<script setup lang="ts">
/** One order: what is in it, what was heard of it, and the parcel when it comes. */
import DeskDrawer from '@/shell/DeskDrawer.vue'
import AskLink from '@/shell/AskLink.vue'
import { computed, reactive, ref } from 'vue'
import { useBook } from '@/stores/book'
import { useCalendar } from '@/stores/calendar'
import { type OrderRow, type PartsView, useParts } from '@/stores/parts'

const props = defineProps<{ build: string; placed: OrderRow; view: PartsView }>()
const emit = defineEmits<{ close: [] }>()
const book = useBook()
const promised = ref('')
const note = ref('')
const calendar = useCalendar()
const parts = useParts()
async function noteIt() {
  const said = await calendar.say({
    kind: 'supplier noted',
    supplier: order.value.supplier,
    text: note.value.trim(),
  })
  if (!said) return
  note.value = ''
  await parts.load(props.build)
}
const because = ref('')
const order = computed(() => props.placed.order)
const came = reactive<Record<string, number>>(
  Object.fromEntries(props.placed.order.parts.map((p) => [p.need, p.to_come])),
)
const inIt = computed(() =>
  order.value.parts
    .filter((p) => Number(came[p.need]) > 0)
    .map((p) => ({ need: p.need, count: Number(came[p.need]) })),
)
async function heard(state: string) {
  const done = await book.handed({
    kind: 'order moved',
    order: order.value.id,
    state: state as 'asked',
    promised: promised.value.trim() || null,
    because: because.value.trim() || null,
  })
  if (done) promised.value = because.value = ''
}
const parcel = async () => {
  if (await book.handed({ kind: 'parcel came', order: order.value.id, lines: inIt.value })) emit('close')
}
</script>

<template>
  <DeskDrawer :title="order.supplier" @close="emit('close')">
    <div class="order">
      <p>
        <b>{{ placed.words }}</b>{{
          placed.promised ? `, promised for ${placed.promised}` : ', no day promised'
        }}{{ placed.silent ? `. Silent for ${placed.silent} days` : '' }}
      </p>
      <ul v-if="order.slips.length">
        <li v-for="s in order.slips" :key="s.seq">{{ s.words }}</li>
      </ul>
      <p v-if="order.made" class="t16">Made to order: compared feature by feature when it comes.</p>
      <p v-if="book.refused" class="problem" role="alert">{{ book.refused }}</p>
      <template v-if="order.live">
        <h3 class="b">A parcel came: in it are</h3>
        <div v-for="p in order.parts.filter((x) => x.to_come)" :key="p.need" class="line">
          <label :for="`came${p.need}`">{{ p.name }}, {{ p.to_come }} to come</label
          ><input
            :id="`came${p.need}`"
            v-model="came[p.need]"
            class="entry"
            :name="`came-${p.need}`"
            inputmode="numeric"
            autocomplete="off"
          />
        </div>
        <button type="button" class="btn" :disabled="!inIt.length" @click="parcel">
          {{
            inIt.length === order.parts.filter((x) => x.to_come).length
              ? 'All of it is in it'
              : 'This is in it'
          }}
        </button>
        <h3 class="b">Heard from them</h3>
        <div class="pair">
          <label class="field"
            ><span>promised for</span
            ><input
              v-model="promised"
              class="entry"
              name="promised"
              autocomplete="off"
              placeholder="Tue 8 Dec" /></label
          ><label class="field"
            ><span>because</span><input v-model="because" class="entry" name="because" autocomplete="off"
          /></label>
        </div>
        <div class="chips">
          <button
            v-for="s in view.states"
            :key="s"
            type="button"
            class="btn small"
            :aria-pressed="s === order.state"
            @click="heard(s)"
          >
            {{ s }}
          </button>
        </div>
      </template>
      <ul>
        <li v-for="p in order.parts" :key="p.need">
          {{ p.count }} × {{ p.name }}{{ p.price !== null ? `, ${p.price.toFixed(2)} each` : ', no price'
          }}{{ p.arrived ? `, ${p.arrived} arrived` : '' }}{{ p.refused ? `, ${p.refused} refused` : '' }}
        </li>
      </ul>
      <p v-for="n in view.notes[order.supplier.toLowerCase()] ?? []" :key="n" class="quiet">
        Noted on them: {{ n }}
      </p>
      <form class="pair" @submit.prevent="noteIt">
        <label class="field"
          ><span>a private word on them, for the next order</span
          ><input v-model="note" class="entry" name="note" maxlength="400" autocomplete="off" /></label
        ><button type="submit" class="btn small" :disabled="note.trim().length < 3">Note it</button>
      </form>
      <p v-if="placed.total">In all {{ placed.total.toFixed(2) }}</p>
      <AskLink sort="order" :about="order.id" />
    </div>
  </DeskDrawer>
</template>

<style scoped>
.order {
  display: grid;
  gap: 10px;
}
.line {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 90px;
  gap: 8px;
  align-items: center;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
li {
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
</style>
