<script setup lang="ts">
/** Fluids and leaks: what is under pressure now, each place that leaked with its looks, and the table. */
import { computed, ref } from 'vue'
import { client, type Schemas } from '@/api/client'
import { pressedTwice, useKeys } from '@/composables/keys'
import { GRADES, useLooking } from '@/composables/looking'
import { clockOf, minutesSeconds } from '@/composables/time'
import { useView } from '@/composables/view'
import DropSign from '@/drawings/DropSign.vue'
import LeakRun from '@/drawings/LeakRun.vue'
import FluidTable from '@/shell/FluidTable.vue'
import LookForm from '@/shell/LookForm.vue'
import MendRow from '@/shell/MendRow.vue'
import TankBlock from '@/shell/TankBlock.vue'
import WetForm from '@/shell/WetForm.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const { view, problem } = useView<Schemas['LeaksView']>(
  () => client.GET('/api/builds/{build}/leaks', { params: { path: { build: props.build } } }),
  () => props.build,
)
const { looking, seconds, left, place, off, seen } = useLooking(() => view.value)
const burning = ref(false)
const others = computed(() => view.value?.places.filter((p) => p.id !== place.value?.id) ?? [])
const looks = (p: Schemas['LeakPlace']) => p.looks.map((l) => ({ ...l, at: clockOf(l.time, shop.zone) }))
const attempt = computed(() => view.value?.unplaced[0]?.attempt ?? null)

const pumpOff = () => (pressedTwice() ? null : off())
async function burns() {
  burning.value = true
  await off()
  await book.act({ kind: 'stopped', why: 'it burns', step: null })
}
useKeys(
  (): Record<string, () => unknown> =>
    looking.value
      ? {
          ' ': () => off(),
          Enter: () => off(),
          PageDown: () => off(),
          PageUp: () => off(),
          b: burns,
          ...(place.value
            ? Object.fromEntries(GRADES.map(([grade, , key]) => [key.toLowerCase(), () => seen(grade)]))
            : {}),
        }
      : {},
  () => looking.value !== null,
)
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="fluids and leaks">
    <p v-if="problem || book.refused" class="problem" role="alert">{{ problem || book.refused }}</p>
    <div v-if="burning" class="burns" role="alert">
      <p>Pump off, key off</p>
      <p>Everybody out</p>
      <p>Call the fire service</p>
      <button type="button" class="btn small" @click="burning = false">It is out</button>
    </div>
    <div v-if="view" class="leaks" :class="{ up: looking }">
      <div>
        <h1 class="t28">{{ view.title }}</h1>
        <p v-if="looking" class="caution">{{ looking.caution }}</p>
        <section v-if="place" :aria-label="place.name" class="place">
          <h2>
            {{ place.name }}<span>{{ looking ? 'cleared only by a clean look' : place.state }}</span>
          </h2>
          <LeakRun
            :looks="looks(place)"
            :now="looking ? `${looking.pressure} ${minutesSeconds(seconds)} long`.trim() : null"
          />
          <p v-if="place.wants && !looking" class="t20"><b>Wanted:</b> {{ place.wants }}</p>
          <div v-if="looking" class="answers" role="group" aria-label="What do you see?">
            <button
              v-for="[grade, word, key, then] in GRADES"
              :key="grade"
              type="button"
              class="btn"
              :class="{ metal: !then && left > 0 }"
              @click="seen(grade)"
            >
              <span><DropSign :grade="grade" />{{ word }}</span
              ><small>{{ then || (left > 0 ? `from ${minutesSeconds(looking.hold_s)}` : 'seen dry') }}</small
              ><kbd>{{ key }}</kbd>
            </button>
          </div>
          <button v-if="looking" type="button" class="btn small" @click="seen('damp', 'doubtful')">
            Damp, not sure: may be cleaner
          </button>
          <MendRow v-if="!looking" :place="place" />
        </section>
        <LookForm v-if="!looking" :view="view" />
        <details :open="!!attempt || (!!looking && !place)" class="more">
          <summary>
            {{ attempt ? `Where was it, at attempt ${view.unplaced[0]?.number}?` : 'Another place is wet' }}
          </summary>
          <WetForm :view="view" :attempt="attempt" />
        </details>
        <section v-for="p in others" :key="p.id" class="place" :aria-label="p.name">
          <h2>
            {{ p.name }}<span>{{ p.state }}</span>
          </h2>
          <p v-if="p.wants" class="t16"><b>Wanted:</b> {{ p.wants }}</p>
          <LeakRun :looks="looks(p)" :now="null" />
          <MendRow v-if="!p.cleared && !looking" :place="p" />
        </section>
        <FluidTable :view="view" />
        <TankBlock v-if="view.tank && !looking" :tank="view.tank" />
        <p class="t16 mut">The vehicle maker's manual, local codes and licensed practice go first.</p>
      </div>
      <aside v-if="looking" class="side">
        <p class="spread">
          <span>{{ looking.name }}, {{ looking.heat }}</span
          ><span>{{ left > 0 ? `${Math.ceil(left)} s left` : 'its time is over' }}</span>
        </p>
        <p class="clock">{{ looking.pressure || minutesSeconds(seconds) }}</p>
        <div class="bar" role="img" :aria-label="`${Math.floor(seconds)} of ${looking.hold_s} s`">
          <i :style="{ width: `${Math.min(seconds / looking.hold_s, 1.2) * 83.3}%` }" />
        </div>
        <button type="button" class="off" @click="pumpOff">
          {{ looking.off }}<small>Switch it off, then press</small><kbd>Space or either pedal</kbd>
        </button>
        <button v-if="left === 0" type="button" class="btn small" @click="off(true)">
          Nothing else wet anywhere, and off
        </button>
        <button type="button" class="burn" @click="burns">It burns<kbd>B</kbd></button>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.leaks.up {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 20px;
}
.caution {
  background: var(--ink);
  color: var(--now);
  font-size: 20px;
  font-weight: 650;
  padding: 6px 14px;
}
.place {
  margin: 10px 0;
}
h2 {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  font-size: 20px;
  font-weight: 680;
  border-top: 2px solid var(--ink);
  padding-top: 4px;
}
h2 span {
  font-size: 16px;
  font-weight: 460;
}
.answers {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 8px;
  margin: 8px 0;
}
.answers .btn {
  min-height: 84px;
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 6px 10px;
  text-align: left;
}
.answers .btn span {
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 4px;
}
.answers small {
  font-size: 16px;
}
.metal {
  background: repeating-linear-gradient(-45deg, var(--metal) 0 1.5px, transparent 1.5px 6.3px) left / 15px
    100% no-repeat var(--now);
  color: var(--mut);
  padding-left: 22px !important;
}
.more {
  margin: 10px 0;
}
summary {
  min-height: 44px;
  font-size: 18px;
  cursor: pointer;
}
.side {
  display: grid;
  gap: 10px;
  align-content: start;
}
.spread {
  display: flex;
  justify-content: space-between;
  font-size: 18px;
}
.clock {
  font-size: 84px;
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 1;
}
.bar {
  height: 34px;
  background:
    linear-gradient(var(--slot), var(--slot)) left / 83.3% 100% no-repeat,
    repeating-linear-gradient(-45deg, var(--metal) 0 1.5px, transparent 1.5px 6.3px);
  border-left: 2px solid var(--ink);
  display: flex;
  align-items: center;
}
.bar i {
  height: 12px;
  background: var(--ink);
}
.off {
  width: 100%;
  min-height: 270px;
  background: var(--ink);
  color: var(--now);
  border: 0;
  border-radius: 3px;
  font: inherit;
  font-size: 72px;
  font-weight: 850;
  line-height: 1;
  cursor: pointer;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 14px;
}
.off small {
  font-size: 22px;
  font-weight: 650;
}
.burn {
  min-height: 52px;
  background: var(--ink);
  color: var(--now);
  border: 0;
  border-radius: 3px;
  font: inherit;
  font-size: 20px;
  font-weight: 680;
  cursor: pointer;
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
}
.burns {
  background: var(--outw);
  border-left: 12px solid var(--out);
  padding: 12px 16px;
  font-size: 28px;
  font-weight: 800;
}
@media (max-width: 959px) {
  .leaks.up {
    grid-template-columns: 1fr;
  }
  .leaks.up .side {
    order: -1;
  }
  .off {
    min-height: 120px;
    font-size: 48px;
  }
  .answers {
    grid-template-columns: repeat(3, 1fr);
  }
}
</style>
