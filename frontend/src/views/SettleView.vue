<script setup lang="ts">
/** Settle: what creeps and what rests, each figure measured again beside its first, what it is fit to. */
import { useRouter } from 'vue-router'
import { client, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useView } from '@/composables/view'
import CreepTrack from '@/drawings/CreepTrack.vue'
import FitTo from '@/drawings/FitTo.vue'
import LimitBar from '@/drawings/LimitBar.vue'
import ComplaintBlock from '@/shell/ComplaintBlock.vue'
import SnagBlock from '@/shell/SnagBlock.vue'
import WorkFrame from '@/shell/WorkFrame.vue'

const props = defineProps<{ build: string }>()
const router = useRouter()
const { view, problem } = useView<Schemas['SettleView']>(
  () => client.GET('/api/builds/{build}/settle', { params: { path: { build: props.build } } }),
  () => props.build,
)
function go() {
  const step = view.value?.next?.step
  if (step) void router.push({ name: 'step', params: { build: props.build, step } })
}
const record = () => void router.push({ name: 'record', params: { build: props.build } })
const trip = () => void router.push({ name: 'again' })
useKeys(() => ({
  ' ': go,
  PageDown: go,
  a: trip,
  e: record,
  p: () => void window.open('/api/again.pdf', '_blank'),
  Escape: () => void router.push({ name: 'gate', params: { build: props.build } }),
}))
</script>

<template>
  <WorkFrame :build="build" :step="null" desk="settling">
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div v-if="view" class="settle">
      <div>
        <h1 class="t28">{{ view.title }}</h1>
        <p class="mut">Again beside the first figure: same state, same datum, by distance and day.</p>
        <section v-for="c in view.creeps" :key="c.reading" class="track" :aria-label="c.name">
          <RouterLink :to="{ name: 'step', params: { build, step: c.step } }" class="name"
            ><b>{{ c.name }}</b
            ><span class="t28" :class="c.verdict">{{ c.points.at(-1)?.value }}</span
            ><small>{{ c.unit }}</small></RouterLink
          >
          <CreepTrack
            :points="c.points"
            :lo="c.lo"
            :hi="c.hi"
            :aim="c.aim"
            :verdict="c.verdict"
            :name="c.name"
          />
          <p>
            <b class="t20" :class="c.verdict">{{ c.word }}</b><br />{{ c.detail }}
          </p>
        </section>
        <p v-if="view.creeps.length" class="t16 mut">Figures under the track: km since the first reading.</p>
        <h2 class="t20">Fit to</h2>
        <FitTo :cells="view.fit" />
        <table v-if="view.figures.length">
          <thead>
            <tr>
              <th>Measured again</th>
              <th>first</th>
              <th>now</th>
              <th>first ring, now mark</th>
              <th>how it stands</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="f in view.figures" :key="f.id">
              <td>
                <RouterLink :to="{ name: 'step', params: { build, step: f.step } }"
                  ><b>{{ f.name }}</b
                  ><small>{{ f.about }}</small></RouterLink
                >
              </td>
              <td class="mut">{{ f.first }}</td>
              <td>
                <b :class="f.bar?.verdict">{{ f.bar ? f.now : '' }}</b><small v-if="!f.bar">{{
                  f.now
                }}</small>
              </td>
              <td>
                <LimitBar
                  v-if="f.bar"
                  :bar="f.bar"
                  :verdict="f.bar.verdict"
                  :side="f.bar.side"
                  :first="f.first_value"
                  size="s"
                  :width="150"
                  :words="f.bar.words"
                />
              </td>
              <td>
                <b>{{ f.word }}</b><small>{{ f.detail }}</small>
              </td>
            </tr>
          </tbody>
        </table>
        <ComplaintBlock :complaints="view.complaints" />
        <SnagBlock :snags="view.snags" />
        <p class="t16 mut">The vehicle maker's manual, local codes and licensed practice go first.</p>
      </div>
      <aside class="side">
        <h2 class="t28">Due</h2>
        <p class="mut">date, km or cycle, whichever is first</p>
        <RouterLink
          v-for="d in view.due"
          :key="d.id"
          class="due"
          :class="{ now: d.id === view.next?.id }"
          :to="{ name: 'step', params: { build, step: d.step } }"
          ><b>{{ d.what }}</b
          ><span
            ><small>{{ d.when }}</small
            ><b>{{ d.due ? 'now' : d.left || 'later' }}</b></span
          ><i v-if="d.share !== null" class="way" aria-hidden="true"
            ><i :style="{ width: `${Math.min(d.share ?? 0, 1.2) * 80}%` }" /></i
        ></RouterLink>
        <p v-if="!view.due.length">Nothing is due on this build.</p>
        <div class="two">
          <button type="button" class="btn second" @click="trip">Every vehicle<kbd>A</kbd></button
          ><a class="btn second" href="/api/again.pdf" target="_blank">Print it<kbd>P</kbd></a>
        </div>
        <button type="button" class="btn small" @click="record">The record <kbd>E</kbd></button>
        <button
          v-if="view.next"
          type="button"
          class="btn primary"
          :class="{ long: view.next.what.length > 15 }"
          @click="go"
        >
          {{ view.next.what }}<kbd>Space or right pedal</kbd>
        </button>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.settle {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 308px;
  gap: 20px;
}
.track {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) 160px;
  gap: 10px;
  align-items: start;
  margin-top: 6px;
}
.name {
  color: inherit;
  text-decoration: none;
}
.name span {
  display: block;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin: 10px 0;
}
th {
  text-align: left;
  font-weight: 460;
  font-size: 16px;
  border-bottom: 2px solid var(--ink);
}
td {
  border-bottom: 1px solid var(--hair);
  padding: 3px 8px 3px 0;
  vertical-align: middle;
}
td a {
  color: inherit;
  text-decoration: none;
}
td b {
  font-size: 18px;
}
small {
  display: block;
  font-size: 16px;
  color: var(--mut);
}
.side {
  display: grid;
  gap: 8px;
  align-content: start;
}
.due {
  display: block;
  color: inherit;
  text-decoration: none;
  border-bottom: 1px solid var(--hair);
  padding: 4px 8px;
}
.due.now {
  background: var(--yel);
  color: var(--onyel);
  border: 3px solid var(--yeledge);
}
.due span {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
.due.now small {
  color: inherit;
}
.way {
  display: block;
  height: 14px;
  background:
    linear-gradient(var(--slot), var(--slot)) left / 80% 100% no-repeat,
    repeating-linear-gradient(-45deg, var(--metal) 0 1.5px, transparent 1.5px 6.3px);
}
.way i {
  display: block;
  height: 6px;
  background: var(--ink);
  transform: translateY(4px);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
@media (max-width: 959px) {
  .settle {
    grid-template-columns: 1fr;
  }
  .track {
    grid-template-columns: 1fr;
  }
}
</style>
