<script setup lang="ts">
/** The evenings of a usual week, days that are not as usual, who helps and when, and what is dated. */
import { ref } from 'vue'
import { v7 } from 'uuid'
import { priceOf } from '@/composables/desk'
import { useCalendar } from '@/stores/calendar'
import { useShop } from '@/stores/shop'

const calendar = useCalendar()
const shop = useShop()
const open = ref(false)
const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const week = ref(DAYS.map(() => ({ start: '', end: '' })))
const day = ref('')
const from = ref('')
const to = ref('')
const because = ref('')
const helper = ref('')
const visitor = ref('')
const visitDay = ref('')
const visitFrom = ref('10:00')
const visitTo = ref('13:00')
const what = ref('')
const whatDay = ref('')
const whatTime = ref('')
const whatBuild = ref('')
const whatBay = ref('')
const whatHour = ref('')
const own = (text: string) =>
  text
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_') || 'helper'
const fresh = () => `v${v7().replaceAll('-', '').slice(0, 20)}`
const visit = ref(fresh()) // one visit, one thing dated, however often the button is pressed
const dated = ref(fresh())

function ask() {
  week.value = DAYS.map((_, k) => {
    const said = calendar.tonight?.week.find((d) => d.day === k)
    return { start: said?.start ?? '', end: said?.end ?? '' }
  })
  calendar.problem = ''
  open.value = true
}
const sayWeek = () =>
  calendar.say({
    kind: 'evenings set',
    hours: week.value.flatMap((h, k) => (h.start && h.end ? [{ day: k, start: h.start, end: h.end }] : [])),
  })
async function sayDay() {
  const said = await calendar.say({
    kind: 'evening changed',
    day: day.value,
    start: from.value.trim() || null,
    end: to.value.trim() || null,
    because: because.value.trim() || null,
  })
  if (said) day.value = from.value = to.value = because.value = ''
}
async function sayHelper() {
  const said = await calendar.say({
    kind: 'helper kept',
    helper: own(helper.value),
    name: helper.value.trim(),
    can: [],
    gone: false,
  })
  if (said) helper.value = ''
}
async function sayVisit() {
  const said = await calendar.say({
    kind: 'visit',
    visit: visit.value,
    helper: visitor.value,
    day: visitDay.value,
    start: visitFrom.value,
    end: visitTo.value,
    answer: 'to be asked',
    because: null,
  })
  if (!said) return
  visitDay.value = ''
  visit.value = fresh()
}
const clock = (minutes: number) =>
  `${String(Math.floor(minutes / 60) % 24).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
const answer = (visit: NonNullable<typeof calendar.tonight>['visits'][number], words: string) =>
  calendar.say({
    kind: 'visit',
    visit: visit.id,
    helper: visit.helper,
    day: visit.day,
    start: clock(visit.start),
    end: clock(visit.end),
    answer: words as 'yes',
    because: null,
  })
async function sayDated() {
  const said = await calendar.say({
    kind: 'commitment',
    commitment: dated.value,
    what: what.value.trim(),
    day: whatDay.value,
    time: whatTime.value.trim() || null,
    build: whatBuild.value || null,
    bay: whatBay.value.trim() || null,
    an_hour: priceOf(whatHour.value),
    done: false,
    because: null,
  })
  if (!said) return
  what.value = whatDay.value = whatTime.value = whatBuild.value = whatBay.value = whatHour.value = ''
  dated.value = fresh()
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="Evenings and helpers" width="720" append-to-body>
    <div class="form">
      <p v-if="calendar.problem" class="problem" role="alert">{{ calendar.problem }}</p>
      <form @submit.prevent="sayWeek">
        <h3 class="b">A usual week</h3>
        <div class="week">
          <div v-for="(d, k) in DAYS" :key="d">
            <span>{{ d }}</span>
            <label class="sr" :for="`from${k}`">{{ d }} from</label
            ><input
              :id="`from${k}`"
              v-model="week[k].start"
              class="entry"
              :name="`from${k}`"
              autocomplete="off"
            />
            <label class="sr" :for="`to${k}`">{{ d }} until</label
            ><input :id="`to${k}`" v-model="week[k].end" class="entry" :name="`to${k}`" autocomplete="off" />
          </div>
        </div>
        <button type="submit" class="btn small">These are the evenings</button>
      </form>
      <form class="line" @submit.prevent="sayDay">
        <h3 class="b">One day is different</h3>
        <label class="sr" for="daywhich">Which day</label
        ><input
          id="daywhich"
          v-model="day"
          class="entry"
          name="daywhich"
          autocomplete="off"
          placeholder="Sat 12 Dec"
        />
        <label class="sr" for="dayfrom">from</label
        ><input
          id="dayfrom"
          v-model="from"
          class="entry"
          name="dayfrom"
          autocomplete="off"
          placeholder="from, or empty"
        />
        <label class="sr" for="dayto">until</label
        ><input id="dayto" v-model="to" class="entry" name="dayto" autocomplete="off" placeholder="until" />
        <label class="sr" for="daywhy">why</label
        ><input
          id="daywhy"
          v-model="because"
          class="entry"
          name="daywhy"
          autocomplete="off"
          placeholder="on call"
        />
        <button type="submit" class="btn small" :disabled="!day.trim()">So it is</button>
      </form>
      <section>
        <h3 class="b">Who comes, and when</h3>
        <ul>
          <li v-for="v in calendar.tonight?.visits ?? []" :key="v.id">
            <span
              ><b>{{ v.name }}</b> {{ v.words }}</span
            >
            <label class="sr" :for="`answer${v.id}`">the answer of {{ v.name }}</label
            ><select
              :id="`answer${v.id}`"
              class="entry"
              :value="v.answer"
              @change="answer(v, ($event.target as HTMLSelectElement).value)"
            >
              <option v-for="a in calendar.tonight?.answers ?? []" :key="a" :value="a">{{ a }}</option>
            </select>
          </li>
        </ul>
        <form class="line" @submit.prevent="sayVisit">
          <label class="sr" for="visitor">who</label
          ><select id="visitor" v-model="visitor" class="entry" name="visitor">
            <option value="">who</option>
            <option v-for="h in calendar.tonight?.helpers ?? []" :key="h.id" :value="h.id">
              {{ h.name }}
            </option>
          </select>
          <label class="sr" for="visitday">which day</label
          ><input
            id="visitday"
            v-model="visitDay"
            class="entry"
            name="visitday"
            autocomplete="off"
            placeholder="Sat"
          />
          <label class="sr" for="visitfrom">from</label
          ><input id="visitfrom" v-model="visitFrom" class="entry" name="visitfrom" autocomplete="off" />
          <label class="sr" for="visitto">until</label
          ><input id="visitto" v-model="visitTo" class="entry" name="visitto" autocomplete="off" />
          <button type="submit" class="btn small" :disabled="!visitor || !visitDay.trim()">May come</button>
        </form>
        <form class="line two" @submit.prevent="sayHelper">
          <label class="sr" for="helper">name of a helper</label
          ><input
            id="helper"
            v-model="helper"
            class="entry"
            name="helper"
            autocomplete="off"
            placeholder="initials"
          />
          <button type="submit" class="btn small" :disabled="!helper.trim()">Helps too</button>
        </form>
      </section>
      <form class="dated" @submit.prevent="sayDated">
        <h3 class="b">Something dated: paint slot, event, shop closes, a lift rented</h3>
        <label class="sr" for="what">what</label
        ><input
          id="what"
          v-model="what"
          class="entry"
          name="what"
          autocomplete="off"
          placeholder="paint slot"
        />
        <label class="sr" for="whatday">which day</label
        ><input
          id="whatday"
          v-model="whatDay"
          class="entry"
          name="whatday"
          autocomplete="off"
          placeholder="Tue 8 Dec"
        />
        <label class="sr" for="whattime">until when on that day</label
        ><input
          id="whattime"
          v-model="whatTime"
          class="entry"
          name="whattime"
          autocomplete="off"
          placeholder="14:00"
        />
        <label class="sr" for="whatbuild">of which build</label
        ><select id="whatbuild" v-model="whatBuild" class="entry" name="whatbuild">
          <option value="">of no build</option>
          <option v-for="b in shop.view?.builds ?? []" :key="b.id" :value="b.id">{{ b.name }}</option>
        </select>
        <label class="sr" for="whatbay">bay or lift rented until then</label
        ><input
          id="whatbay"
          v-model="whatBay"
          class="entry"
          name="whatbay"
          maxlength="60"
          autocomplete="off"
          placeholder="bay or lift rented until then"
        />
        <label class="sr" for="whathour">what it costs an hour after that</label
        ><input
          id="whathour"
          v-model="whatHour"
          class="entry"
          name="whathour"
          inputmode="decimal"
          autocomplete="off"
          placeholder="an hour after"
        />
        <button type="submit" class="btn small" :disabled="!what.trim() || !whatDay.trim()">Keep it</button>
      </form>
    </div>
  </el-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 16px;
}
form,
section {
  display: grid;
  gap: 8px;
}
.week {
  display: grid;
  grid-template-columns: repeat(2, 1fr);
  gap: 6px 20px;
}
.week > div {
  display: grid;
  grid-template-columns: 48px 1fr 1fr;
  gap: 6px;
  align-items: center;
}
.line {
  grid-template-columns: 1fr 1fr 1fr 1fr auto;
}
.line h3 {
  grid-column: 1 / -1;
}
.line.two {
  grid-template-columns: 1fr auto;
}
li {
  display: grid;
  grid-template-columns: 1fr 180px;
  gap: 10px;
  align-items: center;
  border-top: 1px solid var(--hair);
  padding: 4px 0;
}
@media (max-width: 700px) {
  .line,
  .week {
    grid-template-columns: 1fr;
  }
}
.dated {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px;
}
.dated h3 {
  grid-column: 1 / -1;
}
@media (max-width: 560px) {
  .dated {
    grid-template-columns: 1fr;
  }
}
</style>
