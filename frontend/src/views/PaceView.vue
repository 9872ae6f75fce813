<script setup lang="ts">
/** Own pace by kind of work, what time was lost to, and what stands before steps next time. */
import { onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { useServer } from '@/composables/server'
import PaceBore from '@/drawings/PaceBore.vue'
import ShopFrame from '@/shell/ShopFrame.vue'
import WorkingLines from '@/shell/WorkingLines.vue'
import { useCalendar } from '@/stores/calendar'
import { capital } from '@/words'

const view = ref<Schemas['PaceDesk'] | null>(null)
const { problem, served } = useServer()
const calendar = useCalendar()
const router = useRouter()
async function load() {
  const found = await served(() => got(client.GET('/api/pace')))
  if (found) view.value = found
}
onMounted(load)
async function drop(note: Schemas['NoteRow']) {
  const { note: id, step, title, text, minutes } = note
  if (await calendar.say({ kind: 'next time noted', note: id, step, title, text, minutes, gone: true }))
    await load()
}
useKeys(() => ({ Escape: () => void router.back() }))
</script>

<template>
  <ShopFrame>
    <template #nav
      ><button type="button" class="btn small" @click="router.back()">Back <kbd>Esc</kbd></button
      ><RouterLink class="btn small" to="/">Tonight</RouterLink></template
    >
    <p v-if="problem || calendar.problem" class="block" role="alert">{{ problem || calendar.problem }}</p>
    <template v-if="view">
      <h1 class="t28">{{ view.title }}</h1>
      <p class="quiet">
        Read from entries alone. A column is a finished job; the slot is where the next one lies, 8 in 10; the
        chain line is the book.
      </p>
      <div class="cols">
        <section aria-label="Pace by kind of work">
          <article v-for="k in view.kinds" :key="k.pace.kind">
            <h2 class="t20">{{ capital(k.pace.words) }}</h2>
            <PaceBore :steps="k.steps" :lo="k.pace.lo" :hi="k.pace.hi" :label="k.pace.words" />
            <WorkingLines :lines="k.pace.working" />
          </article>
        </section>
        <aside>
          <section aria-label="Lost time">
            <h2 class="t20">Lost time</h2>
            <p v-if="!view.lost.length" class="quiet">
              Nothing so far. A pause of which you say what it was stands here.
            </p>
            <dl v-else>
              <template v-for="l in view.lost" :key="l.cause"
                ><dt>{{ l.cause }}</dt>
                <dd>{{ l.words }}</dd></template
              >
            </dl>
          </section>
          <section aria-label="Next time">
            <h2 class="t20">Next time</h2>
            <p v-if="!view.notes.length" class="quiet">
              What the closing card of an evening asks stands here, and before its step in every later build.
            </p>
            <ul>
              <li v-for="n in view.notes" :key="n.note">
                <b>{{ n.title }}</b>
                <p>
                  {{ n.text }}
                  <small v-if="n.minutes"
                    >it cost {{ n.minutes }} min{{ n.build_name ? `, ${n.build_name}` : '' }}</small
                  >
                </p>
                <button type="button" class="btn small" @click="drop(n)">Say it no longer</button>
              </li>
            </ul>
          </section>
        </aside>
      </div>
    </template>
  </ShopFrame>
</template>

<style scoped>
.cols {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 380px;
  gap: 28px;
  margin-top: 8px;
}
article {
  margin-bottom: 14px;
}
aside {
  display: grid;
  gap: 18px;
  align-content: start;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 12px;
}
li {
  border-top: 1px solid var(--hair);
  padding: 6px 0;
}
small {
  display: block;
  font-size: 16px;
}
@media (max-width: 1000px) {
  .cols {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
