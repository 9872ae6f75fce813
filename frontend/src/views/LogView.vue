<script setup lang="ts">
/** The whole log by day, newest first; filter by kind or step, strike with a reason, whole or broken. */
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { client, got, type LogLine, type Schemas } from '@/api/client'
import { clockOf, dayOf } from '@/composables/time'
import LineText from '@/shell/LineText.vue'
import PickOne from '@/shell/PickOne.vue'
import WorkFrame from '@/shell/WorkFrame.vue'
import { useBook } from '@/stores/book'
import { useShop } from '@/stores/shop'
import { capital } from '@/words'
import { useServer } from '@/composables/server'

const props = defineProps<{ build: string }>()
const book = useBook()
const shop = useShop()
const route = useRoute()
const frame = ref<InstanceType<typeof WorkFrame> | null>(null)
const log = ref<Schemas['LogView'] | null>(null)
const kind = ref('all')
const step = ref(typeof route.query.step === 'string' ? route.query.step : '')
const { problem, served } = useServer()
const KINDS = [
  { value: 'all', label: 'All' },
  { value: 'reading', label: 'Readings' },
  { value: 'fastener', label: 'Bolts' },
  { value: 'left open', label: 'Left open' },
  { value: 'struck', label: 'Struck' },
  { value: 'accepted', label: 'Accepted' },
]
const days = computed(() => {
  const found: { day: string; lines: LogLine[] }[] = []
  for (const line of log.value?.lines ?? []) {
    const day = dayOf(line.time, shop.zone)
    if (found.at(-1)?.day !== day) found.push({ day, lines: [] })
    found.at(-1)?.lines.push(line)
  }
  return found
})

let asked = 0
async function load(before?: number) {
  const mine = ++asked
  await served(async () => {
    const query = {
      kind: kind.value,
      ...(step.value ? { step: step.value } : {}),
      ...(before ? { before } : {}),
    }
    const got_ = await got(
      client.GET('/api/builds/{build}/log', { params: { path: { build: props.build }, query } }),
    )
    if (mine !== asked) return
    log.value = before && log.value ? { ...got_, lines: [...log.value.lines, ...got_.lines] } : got_
    problem.value = ''
  })
}
watch([kind, step, () => book.frame?.head], () => void load(), { immediate: true })
</script>

<template>
  <WorkFrame ref="frame" :build="build" desk="log">
    <p v-if="problem" class="block" role="alert">{{ problem }}</p>
    <div v-if="log" class="cols">
      <section>
        <h1 class="t28">{{ log.total }} lines, {{ log.struck }} struck</h1>
        <div class="filters">
          <PickOne v-model="kind" :options="KINDS" label="Filter" />
          <label class="field"
            ><span class="sr">Step</span
            ><select v-model="step" class="entry">
              <option value="">every step</option>
              <option v-for="s in book.frame?.steps ?? []" :key="s.id" :value="s.id">
                {{ s.number }} {{ s.short }}
              </option>
            </select></label
          >
        </div>
        <div v-for="day in days" :key="day.day" class="day">
          <h2 class="t20">
            {{ day.day }} <span class="t16 mut">{{ day.lines.length }} lines</span>
          </h2>
          <ol>
            <li v-for="line in day.lines" :key="line.id" :class="{ conceded: line.conceded }">
              <span class="t16 mut">{{ line.seq }}</span><time class="mut">{{
                clockOf(line.time, shop.zone)
              }}</time
              ><span class="t16">{{ line.step_number }}</span
              ><span class="text"
                ><LineText :line="line" /><video
                  v-if="line.clip"
                  controls
                  preload="none"
                  :src="`/api/clips/${line.clip}`"
                  :aria-label="`clip of line ${line.seq}`" /><audio
                  v-if="line.sound"
                  controls
                  preload="none"
                  :src="`/api/sounds/${line.sound}`"
                  :aria-label="`what was said in line ${line.seq}`" /><RouterLink
                  v-if="line.photo"
                  class="thumb"
                  :to="{ name: 'bags', params: { build }, query: { photo: line.photo } }"
                  ><img
                    :src="`/api/photos/${line.photo}.jpg`"
                    :alt="`photo of line ${line.seq}`"
                    width="96"
                    height="72"
                    loading="lazy" /></RouterLink></span
              ><span class="t16">{{ line.who }}</span>
              <button
                v-if="line.strikable"
                type="button"
                class="btn small strike"
                :aria-label="`Strike line ${line.seq}`"
                @click="frame?.strikeLine(line)"
              >
                strike
              </button>
            </li>
          </ol>
        </div>
        <button v-if="log.lines.length >= 200" type="button" class="btn" @click="load(log.lines.at(-1)?.seq)">
          Older lines
        </button>
        <p v-if="!log.lines.length" class="t20">No line like that.</p>
      </section>
      <aside>
        <h2 class="t20">Is the record whole?</h2>
        <p class="t28" :class="log.whole ? 'in' : 'outside'">
          <i :class="{ whole: log.whole }" aria-hidden="true" />
          {{ log.whole ? 'Whole' : `Broken at line ${log.broken_at}` }}
        </p>
        <p v-for="words in log.changed" :key="words" class="block" role="alert">{{ capital(words) }}.</p>
        <p>
          Each line carries the mark of the line before it.
          {{
            log.whole
              ? `All ${log.total} marks fit: no line was changed, taken out or put between.`
              : 'Lines from there on cannot be trusted. Compare with a backup.'
          }}
        </p>
        <h2 v-if="log.accepted.length" class="t20">Accepted in writing</h2>
        <ul>
          <li v-for="line in log.accepted" :key="line.id" class="t16">{{ line.text }}</li>
        </ul>
        <a class="btn row" :href="`/api/builds/${build}/archive`" download>Whole build as one file</a>
        <a class="btn row" :href="`/api/builds/${build}/attempts.csv`" download>Attempts as CSV</a>
      </aside>
    </div>
  </WorkFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 280px;
  gap: 24px;
}
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin: 4px 0 10px;
  align-items: center;
}
.filters .entry {
  min-height: 44px;
  width: 176px;
}
.day {
  border-top: 3px solid var(--line);
  padding-top: 6px;
  margin-bottom: 18px;
}
.day li {
  display: grid;
  grid-template-columns: 36px 52px 44px minmax(0, 1fr) 34px 60px;
  align-items: center;
  border-top: 1px solid var(--hair);
  min-height: 46px;
  gap: 4px;
}
.strike {
  min-height: 44px;
  padding: 4px 8px;
  font-size: 16px;
  font-weight: 460;
  border: 0;
  text-decoration: underline;
  background: none;
}
.conceded {
  border-left: 8px solid var(--line);
  padding-left: 8px;
}
aside {
  display: grid;
  gap: 10px;
  align-content: start;
}
i {
  display: inline-block;
  width: 22px;
  height: 22px;
  background: var(--out);
}
i.whole {
  border-radius: 50%;
  background: var(--in);
}
@media (max-width: 959px) {
  .cols {
    grid-template-columns: 1fr;
  }
  aside {
    order: -1;
  }
  .day li {
    grid-template-columns: 36px 56px 46px minmax(0, 1fr) 34px 70px;
  }
}
.thumb {
  display: block;
  width: 96px;
  height: 72px;
}
.thumb img {
  width: 96px;
  height: 72px;
  object-fit: cover;
  border: 1.4px solid var(--line);
}
</style>
