<script setup lang="ts">
/** What can be done until when: the evening, the best first, three more, and why the rest is not possible. */
import { computed, ref } from 'vue'
import { useNow } from '@vueuse/core'
import { useRouter } from 'vue-router'
import EveningSlot from '@/drawings/EveningSlot.vue'
import OpenerRow from '@/shell/OpenerRow.vue'
import TonightDialog from '@/shell/TonightDialog.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { ago } from '@/composables/time'
import { useCalendar } from '@/stores/calendar'
import { useShop } from '@/stores/shop'

const calendar = useCalendar()
const shop = useShop()
const router = useRouter()
const now = useNow({ interval: 20000 })
const emit = defineEmits<{ close: [] }>()
const dialog = ref<InstanceType<typeof TonightDialog> | null>(null)
const view = computed(() => calendar.tonight)
const lacking = computed(() => (view.value?.tools ?? []).filter((t) => !t.here).map((t) => t.name))
const rows = computed(() => (view.value?.first ? [view.value.first, ...view.value.others] : []))

const was = computed(() => {
  const card = shop.view?.builds.find((b) => b.frame.resume)
  const resume = card?.frame.resume
  if (!card || !resume) return null
  return {
    id: card.id,
    title: resume.title,
    about: `${card.name.split(':')[0]}, ${ago(resume.since, now.value)}`,
  }
})
const back = () => was.value && void router.push({ name: 'build', params: { build: was.value.id } })

function begin(k: number) {
  const row = rows.value[k]
  if (!row) return
  const { offer, build } = row
  if (offer.need) void router.push({ name: 'parts', params: { build } })
  else if (offer.step) void router.push({ name: 'step', params: { build, step: offer.step } })
}
defineExpose({ begin, back, change: () => dialog.value?.ask() })
</script>

<template>
  <section class="tonight" aria-label="Tonight">
    <p v-if="calendar.problem" class="block" role="alert">{{ calendar.problem }}</p>
    <template v-if="view">
      <h1 class="t28">{{ view.title }}</h1>
      <RouterLink v-if="was" class="was" :to="{ name: 'build', params: { build: was.id } }">
        <span
          ><span class="mut">Where you were:</span> <b>{{ was.title }}</b></span
        ><span class="mut">{{ was.about }} <kbd>W</kbd></span>
      </RouterLink>
      <p class="conditions">
        <button v-for="c in view.conditions" :key="c" type="button" class="cond" @click="dialog?.ask()">
          {{ c }}
        </button>
        <button type="button" class="cond plain" @click="dialog?.ask()">
          {{ view.conditions.length ? 'change' : 'I work today' }} <kbd>C</kbd></button
        ><button type="button" class="cond plain end" @click="emit('close')">
          close the evening <kbd>X</kbd>
        </button>
      </p>
      <EveningSlot
        v-if="view.evening"
        :start="view.evening.start"
        :end="view.evening.end"
        :quiet="view.evening.quiet_from"
        :slugs="view.slugs"
      />
      <button v-if="view.first" type="button" class="btn primary go" @click="begin(0)">
        <span class="first"
          ><span
            ><b>{{ view.first.name }}:</b> {{ view.first.reason }}</span
          ><b class="t24">{{ view.first.range }}</b></span
        >
        <span class="big">{{ view.first.offer.title }}</span>
        <span class="first"
          ><span class="t20">{{ view.first.about }}</span
          ><kbd>Space or right pedal</kbd></span
        >
      </button>
      <details v-if="view.tools.length" class="tools">
        <summary>
          Tools of this evening: {{ view.tools.filter((t) => t.here).length }} of {{ view.tools.length }} are
          here{{ lacking.length ? `; look for ${lacking.slice(0, 3).join(', ')}` : '' }}
        </summary>
        <ul>
          <li v-for="t in view.tools" :key="t.name">
            <span :class="{ disc: t.here, ring: !t.here }" /><b>{{ t.name }}</b>
            <span :class="{ mut: !t.known }">{{ t.words }}</span> <small>{{ t.steps }}</small>
          </li>
        </ul>
        <RouterLink class="btn small" to="/tools">Say which are here</RouterLink>
      </details>
      <ul v-if="view.openers.length" class="openers" aria-label="What opens things">
        <li v-for="o in view.openers.slice(0, 3)" :key="o.build + o.opener.opener">
          <OpenerRow
            :opener="o.opener"
            :build="o.build"
            :name="o.name.split(':')[0]"
            @said="calendar.loadTonight()"
          />
        </li>
      </ul>
      <ol v-if="view.others.length">
        <li v-for="r in view.others" :key="r.row">
          <button type="button" class="other" @click="begin(r.row - 1)">
            <kbd>{{ r.row }}</kbd><span
              ><b class="t20">{{ r.offer.title }}</b
              ><small>{{ r.name }} {{ r.about }}</small></span
            ><span class="range"
              ><b>{{ r.range }}</b
              ><small v-if="r.offer.book">book {{ r.offer.book }}</small></span
            >
          </button>
        </li>
      </ol>
      <p v-if="view.more" class="mut">and {{ view.more }} more</p>
      <WorkingLines v-if="view.first" :lines="view.first.offer.working" label="Why this first" />
      <template v-if="view.cannot.length">
        <h2 class="t20">Not tonight, because</h2>
        <ul class="cannot">
          <li v-for="(c, k) in view.cannot" :key="k">
            <span class="metal" aria-hidden="true" /><RouterLink
              :to="
                c.what.need
                  ? { name: 'parts', params: { build: c.build } }
                  : { name: 'step', params: { build: c.build, step: c.what.step ?? '' } }
              "
              ><b>{{ c.what.title }}, {{ c.name.split(':')[0] }}</b></RouterLink
            ><span :class="{ outside: c.what.danger }">{{ c.what.because }}</span>
          </li>
        </ul>
        <p v-if="view.cannot_more" class="mut">and {{ view.cannot_more }} more</p>
      </template>
    </template>
    <TonightDialog ref="dialog" />
  </section>
</template>

<style scoped>
.tools li {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 34px;
}
.ring {
  width: 14px;
  height: 14px;
  border: 2.5px dashed var(--ink);
  border-radius: 50%;
}
summary {
  min-height: 44px;
  line-height: 44px;
  cursor: pointer;
}
.openers {
  border: 3px solid var(--ink);
  padding: 6px 12px;
  margin: 6px 0;
}
.was > span:last-child {
  flex: none;
}
.was > span {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.was {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: center;
  min-height: 44px;
  text-decoration: none;
}
.conditions {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin: 2px 0 6px;
}
.cond {
  border: 0;
  border-bottom: 2px solid var(--ink);
  background: none;
  font-weight: 680;
  padding: 0;
  min-height: 44px;
  cursor: pointer;
}
.cond.plain {
  border: 0;
  font-weight: 460;
  margin-left: auto;
}
.cond.end {
  margin-left: 0;
}
.go {
  width: 100%;
  align-items: stretch;
  text-align: left;
  margin: 8px 0;
  padding: 10px 18px;
  gap: 4px;
  font-size: 18px;
  font-weight: 460;
}
.go .big {
  font-size: 38px;
  font-weight: 820;
  line-height: 1.05;
}
.first {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: end;
}
.check {
  margin-bottom: 4px;
}
.other {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 14px;
  align-items: center;
  min-height: 64px;
  width: 100%;
  border: 0;
  border-top: 1px solid var(--hair);
  background: none;
  text-align: left;
  cursor: pointer;
}
small {
  display: block;
  font-size: 16px;
}
.range {
  text-align: right;
}
.cannot li {
  display: grid;
  grid-template-columns: 24px 190px minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  min-height: 34px;
}
.cannot a {
  text-decoration: none;
  display: inline-block;
  min-height: 32px;
  line-height: 32px;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.metal {
  width: 22px;
  height: 17px;
  background: repeating-linear-gradient(135deg, var(--metal) 0 1.5px, transparent 1.5px 6px);
  border-right: 3px solid var(--ink);
}
@media (max-width: 700px) {
  .cannot li {
    grid-template-columns: 24px minmax(0, 1fr);
  }
}
</style>
