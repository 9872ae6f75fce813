<script setup lang="ts">
/** The first start rehearsed on a practice engine: STOP where it will be, and how late the hand was. */
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { GAUGES, useRehearsal } from '@/composables/rehearsal'
import { useServer } from '@/composables/server'
import { minutesSeconds } from '@/composables/time'
import HandLane from '@/drawings/HandLane.vue'
import TryBars from '@/drawings/TryBars.vue'
import VerdictMark from '@/drawings/VerdictMark.vue'
import MarkLogo from '@/shell/MarkLogo.vue'

const router = useRouter()
const faults = ref<readonly Schemas['FaultName'][]>([])
const choosing = ref(false)
const { served } = useServer()
const {
  problem,
  deal,
  played,
  unjudged,
  judged,
  dropped,
  playing,
  watched,
  clock,
  heard,
  acts,
  tries,
  start,
  look,
  inSight,
  reads,
  key,
} = useRehearsal()
onMounted(async () => {
  const found = await served(() => got(client.GET('/api/rehearsal/faults')))
  faults.value = (found as Schemas['FaultName'][] | undefined) ?? []
})
const anew = () => start(null, null)
const again = () => (deal.value && played.value ? start(null, played.value.fault) : anew())
const seeRun = () => deal.value && start(deal.value.seed, played.value?.fault ?? null, true)
const shop = () => void router.push('/')
async function choose(fault: string) {
  choosing.value = false
  await start(null, fault)
}
const late = computed(() => (played.value?.late_s ?? 0) > (played.value?.grace_s ?? 1))
/** The best try at a fault: in time, so late, or not yet. */
function best(fault: string) {
  const own = tries.value[fault] ?? []
  if (own.some((t) => t.ok)) return { verdict: 'inside', words: 'in time' }
  const lates = own.map((t) => t.late).filter((t) => t !== null)
  if (lates.length) return { verdict: 'outside', words: `${Math.min(...lates).toFixed(1)} late` }
  return { verdict: 'not_read', words: own.length ? 'too early' : 'not yet' }
}
const lines = computed(() => {
  const names = Object.fromEntries(GAUGES.map(([id, word]) => [id, word.toLowerCase()]))
  const said = acts.value.map((a) => ({
    at: a.at_s,
    words: a.what === 'key' ? 'key back' : `${names[a.what]} looked at`,
  }))
  return said.slice(-3)
})
useKeys(
  (): Record<string, () => unknown> =>
    playing.value
      ? {
          ' ': key,
          Enter: key,
          PageDown: key,
          PageUp: key,
          ...Object.fromEntries(GAUGES.map(([id, , , letter]) => [letter.toLowerCase(), () => look(id)])),
        }
      : {
          ' ': anew,
          PageDown: anew,
          a: again,
          v: seeRun,
          f: () => (choosing.value = !choosing.value),
          Escape: shop,
        },
  () => playing.value,
)
</script>

<template>
  <div class="rehearsal">
    <section class="strip" aria-label="Rehearsal">
      <MarkLogo />
      <h1>Rehearsal</h1>
      <p class="t16 mut">nothing here is written in a log</p>
      <h2>Faults, best time</h2>
      <ol>
        <li v-for="f in faults" :key="f.id" :class="{ now: played?.fault === f.id }">
          <b>{{ f.name }}</b><span
            ><VerdictMark :verdict="best(f.id).verdict" side="high" :size="7" />{{ best(f.id).words }}</span
          >
        </li>
      </ol>
      <p class="plate"><b>0 written</b><span>Every build stays as it was</span></p>
    </section>
    <section class="top" aria-label="Played">
      <b>Played</b>
      <ol>
        <li v-for="l in lines" :key="l.at + l.words">
          <span>{{ l.at.toFixed(1) }} s</span><i>{{ l.words }}</i>
        </li>
      </ol>
      <p><b>Practice engine, stand-in gauges</b><br />{{ deal ? `seed ${deal.seed}, ` : '' }}true speed</p>
    </section>
    <main class="frame">
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div v-if="unjudged && !playing" class="block waits" role="status">
        <p class="b">A start that was played is not judged yet. It waits on this device.</p>
        <button type="button" class="btn small" @click="judged">Judge it now</button
        ><button type="button" class="btn small" @click="dropped">Drop it</button>
      </div>
      <div class="work">
        <template v-if="playing && deal">
          <h2 class="t28">{{ watched ? 'Watch it run' : 'It runs' }}</h2>
          <p class="t20">{{ deal.intro }}. Allowed: {{ deal.limit }}.</p>
          <div class="gauges">
            <button
              v-for="[id, word, unit, letter] in GAUGES"
              :key="id"
              type="button"
              class="btn"
              @click="look(id)"
            >
              <span>{{ word }}</span><b>{{ inSight(id) ? reads(id) : '· · ·' }}</b
              ><small>{{ inSight(id) ? unit : 'look' }}</small
              ><kbd>{{ letter }}</kbd>
            </button>
          </div>
          <p v-for="t in heard" :key="t.words" class="t24 told" role="status">
            {{ t.sense === 'nose' ? 'You smell it: ' : 'You hear: ' }}{{ t.words }}
          </p>
        </template>
        <template v-else-if="played && deal">
          <h2 class="t28">{{ played.title }}</h2>
          <p class="t20">It was: {{ played.name.toLowerCase() }}.</p>
          <HandLane
            :rpm="deal.rpm"
            :oil="deal.oil"
            :beat="deal.beat_s"
            :due="played.due_s"
            :key-at="played.key_s"
            :looked="played.right_at"
            :tells="played.tells"
            :late="late"
          />
          <div class="three">
            <section>
              <h3>Looked at</h3>
              <p v-for="l in played.looked" :key="l.what">■ {{ l.what }}, {{ l.at_s.toFixed(1) }} s</p>
              <p v-if="!played.looked.length" class="mut">nothing</p>
            </section>
            <section>
              <h3>Missed</h3>
              <p v-for="m in played.missed" :key="m">◌ {{ m }}</p>
              <p v-if="!played.missed.length" class="mut">nothing</p>
            </section>
            <section>
              <h3>Tries at this one</h3>
              <TryBars :tries="tries[played.fault] ?? []" :grace="played.grace_s" />
            </section>
          </div>
          <p class="b">{{ played.advice }}</p>
        </template>
        <template v-else>
          <h2 class="t28">Practise the first start before you turn the key</h2>
          <p class="t20">
            A fault is dealt and not told. Gauges show only while you look at them; what you hear and smell
            comes by itself. Turn the key back with Space, Enter or either pedal, as soon as it is due, and no
            sooner than something told you.
          </p>
          <p class="t16 mut">
            Times and courses are of a practice engine. The maker's manual, local codes and licensed practice
            go first.
          </p>
        </template>
        <div v-if="choosing && !playing" class="choose" role="group" aria-label="Choose the fault">
          <button v-for="f in faults" :key="f.id" type="button" class="btn small" @click="choose(f.id)">
            {{ f.name }}
          </button>
        </div>
      </div>
      <aside>
        <template v-if="playing">
          <p class="t20">Running</p>
          <p class="clock">{{ minutesSeconds(clock) }}</p>
          <button type="button" class="stop" @click="key">
            STOP<small>Key off, then press here</small><kbd>Space or either pedal</kbd>
          </button>
        </template>
        <template v-else>
          <template v-if="played && played.late_s !== null && late">
            <p class="t20">Too late by</p>
            <p class="clock outside">{{ played.late_s.toFixed(1) }}<small>s</small></p>
            <p>in time is to {{ played.grace_s }} s after it was due, <span class="assumed">assumed</span></p>
            <p v-if="played.cost"><b>What it cost</b><br />{{ played.cost }}</p>
          </template>
          <template v-else-if="played">
            <p class="t20">{{ played.in_time ? 'In time' : 'Not in time' }}</p>
            <p class="clock">{{ played.key_s !== null ? played.key_s.toFixed(1) : '–' }}<small>s</small></p>
          </template>
          <button type="button" class="btn primary" @click="anew">
            {{ played ? 'Deal another' : 'Deal a start' }}<kbd>Space or right pedal</kbd>
          </button>
          <div class="two">
            <button type="button" class="btn second" :disabled="!played" @click="again">
              Same again<kbd>A</kbd></button
            ><button type="button" class="btn second" :disabled="!played" @click="seeRun">
              See it run<kbd>V</kbd>
            </button>
          </div>
        </template>
      </aside>
    </main>
    <section class="foot" aria-label="Next">
      <b>Next</b>
      <p>
        {{ playing ? 'The key, when it is due' : 'Another fault, not told; the engine off and cold again' }}
      </p>
      <div v-if="!playing">
        <button type="button" class="btn small" @click="shop">Enough, back to the Shop <kbd>Esc</kbd></button
        ><button type="button" class="btn small" @click="choosing = !choosing">
          Choose the fault <kbd>F</kbd>
        </button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.rehearsal {
  min-height: 100dvh;
  display: grid;
  grid-template: auto 1fr auto / 260px minmax(0, 1fr);
}
.strip {
  grid-row: 1 / 4;
  padding: 12px 16px 0 20px;
  display: flex;
  flex-direction: column;
  background: var(--zinc);
}
.strip h1 {
  font-size: 28px;
  font-weight: 800;
  margin-top: 18px;
}
.strip h2 {
  font-size: 18px;
  font-weight: 680;
  margin-top: 10px;
}
.strip li {
  border-bottom: 1px solid var(--hair);
  min-height: 56px;
  padding: 4px 8px;
}
.strip li.now {
  background: var(--now);
}
.strip li span {
  display: flex;
  align-items: center;
  gap: 8px;
}
.plate {
  margin-top: auto;
  border: 2px solid var(--ink);
  padding: 8px 12px;
  margin-left: -20px;
  margin-right: -16px;
}
.plate b {
  font-size: 24px;
  display: block;
}
.top {
  background: var(--zinc);
  min-height: 116px;
  padding: 10px 20px;
  display: flex;
  gap: 20px;
}
.top li {
  display: flex;
  gap: 12px;
}
.top p {
  margin-left: auto;
  text-align: right;
}
.frame {
  border-top: 10px solid;
  border-image: repeating-linear-gradient(90deg, var(--yel) 0 20px, transparent 20px 34px) 10;
  background: var(--now);
  outline: 2px dashed var(--ink);
  outline-offset: -8px;
  padding: 18px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 20px;
}
.gauges {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 8px;
  margin: 16px 0;
}
.gauges .btn {
  display: grid;
  min-height: 130px;
  align-content: space-between;
}
.gauges b {
  font-size: 30px;
  font-weight: 800;
}
.told {
  font-weight: 700;
}
.three {
  display: grid;
  grid-template-columns: 1fr 1.2fr 1fr;
  gap: 16px;
  border-top: 2px solid var(--ink);
  padding-top: 4px;
}
h3 {
  font-size: 18px;
  font-weight: 680;
}
.clock {
  font-size: 120px;
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 1;
}
.clock small {
  font-size: 36px;
}
.stop {
  width: 100%;
  min-height: 280px;
  background: var(--ink);
  color: var(--now);
  border: 0;
  border-radius: 3px;
  font: inherit;
  font-size: 96px;
  font-weight: 850;
  line-height: 1;
  cursor: pointer;
  margin-top: 10px;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: center;
  gap: 14px;
}
.stop small {
  font-size: 24px;
  font-weight: 650;
}
aside {
  display: grid;
  gap: 8px;
  align-content: start;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.choose {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 12px;
}
.foot {
  background: var(--zinc);
  border-top: 3px solid var(--line);
  min-height: 70px;
  padding: 10px 20px;
  display: flex;
  flex-wrap: wrap;
  gap: 12px 20px;
  align-items: center;
}
.foot div {
  margin-left: auto;
  display: flex;
  gap: 8px;
}
@media (max-width: 959px) {
  .rehearsal {
    grid-template: auto auto 1fr auto / 1fr;
  }
  .strip {
    grid-row: auto;
  }
  .strip ol,
  .strip h2,
  .plate {
    display: none;
  }
  .top {
    min-height: 0;
  }
  .frame {
    grid-template-columns: 1fr;
  }
  .frame aside {
    order: -1;
  }
  .clock {
    font-size: 60px;
  }
  .stop {
    min-height: 120px;
    font-size: 60px;
  }
  .gauges {
    grid-template-columns: repeat(3, 1fr);
  }
}
</style>
