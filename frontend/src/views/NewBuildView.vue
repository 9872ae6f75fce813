<script setup lang="ts">
/** A new build from one sheet or several, and what is known of the vehicle. */
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { v7 } from 'uuid'
import { client, got, sentence } from '@/api/client'
import type { components } from '@/api/schema'
import MarkLogo from '@/shell/MarkLogo.vue'
import SheetLook from '@/shell/SheetLook.vue'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import { counted, hours } from '@/words'
import { useServer } from '@/composables/server'

const shop = useShop()
const session = useSession()
const router = useRouter()
const chosen = ref<string[]>([])
const facts = ref<Record<string, string>>({})
const name = ref('')
const vehicle = ref('')
const about = ref('')
const { problem, served } = useServer()
const id = v7() // the same when it is sent again, so that an answer that was lost makes no second build
const mistake = ref('')
const look = ref<components['schemas']['SheetLook'] | null>(null)
const busy = ref(false)
const sheets = computed(() => (shop.view?.sheets ?? []).filter((s) => chosen.value.includes(s.id)))
const sought = ref('')
/** The chosen ones, and those that hold every word that is sought. */
const shown = computed(() => {
  const words = sought.value.toLowerCase().split(/\s+/).filter(Boolean)
  const holds = (text: string) => words.every((word) => text.toLowerCase().includes(word))
  const all = shop.view?.sheets ?? []
  return all.filter((s) => chosen.value.includes(s.id) || holds(`${s.title} ${s.about}`))
})
const asked = computed(() => [
  ...new Map(sheets.value.flatMap((s) => s.facts ?? []).map((f) => [f.id, f])).values(),
])
const ready = computed(() => chosen.value.length && name.value.trim() && vehicle.value.trim())

onMounted(() => void shop.load())
async function upload(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  mistake.value = ''
  look.value = null
  try {
    const body = { text: await file.text() }
    look.value = await got(client.POST('/api/sheets/check', { body }))
    if (!look.value.refused) {
      const card = await got(client.POST('/api/sheets', { body }))
      await shop.load()
      chosen.value = [...chosen.value, card.id]
    }
  } catch (error) {
    mistake.value = `${file.name} was not taken: ${sentence(error)}`
  }
  input.value = ''
}
async function make() {
  if (!ready.value || busy.value) return
  problem.value = ''
  const who = await session.whoIsIt()
  busy.value = true
  await served(async () => {
    const body = {
      id,
      who,
      sheets: chosen.value,
      facts: Object.fromEntries(Object.entries(facts.value).filter(([, value]) => value.trim())),
      name: name.value.trim(),
      vehicle: vehicle.value.trim(),
      about: about.value.trim() || vehicle.value.trim(),
    }
    const card = await got(client.POST('/api/builds', { body }))
    await router.push({ name: 'plan', params: { build: card.id } })
  })
  busy.value = false
}
</script>

<template>
  <div class="page">
    <section class="top" aria-label="Hollet"><MarkLogo /></section>
    <main>
      <h1 class="t28">
        {{
          chosen.length
            ? `New build from ${chosen.length === 1 ? 'one sheet' : `${chosen.length} sheets`}`
            : 'New build: choose what comes off'
        }}
      </h1>
      <p v-if="shop.problem" class="block" role="alert">{{ shop.problem }}</p>
      <form v-if="shop.view" @submit.prevent="make">
        <fieldset>
          <legend class="t20">Which sheets, in the order of the work</legend>
          <label class="field"
            ><span>find a sheet, such as gearbox, spring, timing</span
            ><input
              v-model="sought"
              class="entry"
              name="sought"
              maxlength="60"
              autocomplete="off"
              @keydown.enter.prevent
          /></label>
          <p v-if="!shown.length" class="t20">
            No sheet holds that word; “As it comes” logs any job without one.
          </p>
          <label v-for="s in shown" :key="s.id" class="sheet"
            ><input v-model="chosen" type="checkbox" name="sheet" :value="s.id" /><span
              ><b>{{ s.title }}</b
              ><small
                >{{ counted(s.steps, 'step') }}, {{ hours(s.hours) }}{{ s.shipped ? '' : ', your own' }}.
                {{ s.about }}</small
              ><small v-if="s.learnt.length" class="learnt"
                ><b>From your own builds:</b> {{ s.learnt.join('; ') }}</small
              ></span
            ></label
          >
          <label class="btn small own"
            >Take a sheet of my own (TOML)<input
              type="file"
              accept=".toml,text/plain"
              class="sr"
              name="sheetfile"
              @change="upload"
          /></label>
          <p v-if="mistake" class="block" role="alert">{{ mistake }}</p>
          <SheetLook v-if="look" :look="look" />
        </fieldset>
        <div class="right">
          <label class="field"
            ><span>What the job is called</span
            ><input v-model="name" class="entry" maxlength="80" name="name"
          /></label>
          <label class="field"
            ><span>Which vehicle</span><input v-model="vehicle" class="entry" maxlength="80" name="vehicle"
          /></label>
          <label class="field"
            ><span>In a few words: make, year, where it stands</span
            ><input v-model="about" class="entry" maxlength="200" name="about"
          /></label>
          <fieldset v-if="asked.length" class="facts">
            <legend class="t20">What is known of the vehicle</legend>
            <p class="t16">
              It decides which steps apply. What is not known yet stays in the plan, marked so.
            </p>
            <label v-for="f in asked" :key="f.id" class="field"
              ><span>{{ f.name }}</span>
              <select v-if="f.value?.length" v-model="facts[f.id]" class="entry" :name="`fact-${f.id}`">
                <option :value="undefined">not known</option>
                <option v-for="v in f.value" :key="v" :value="v">{{ v }}</option>
              </select>
              <input v-else v-model="facts[f.id]" class="entry" :name="`fact-${f.id}`" inputmode="numeric"
            /></label>
          </fieldset>
          <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
          <button type="submit" class="btn primary" :disabled="!ready || busy">Begin this build</button>
        </div>
      </form>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100dvh;
  display: grid;
  grid-template-rows: 76px 1fr;
}
.top {
  padding: 16px 20px;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  padding: 18px 20px;
}
form {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 460px);
  gap: 16px 40px;
  margin-top: 12px;
  align-items: start;
}
.right {
  display: grid;
  gap: 14px;
  position: sticky;
  top: 12px;
}
@media (max-width: 959px) {
  form {
    grid-template-columns: minmax(0, 1fr);
  }
  .right {
    position: static;
  }
}
fieldset {
  border: 0;
  padding: 0;
  margin: 0;
  display: grid;
  gap: 8px;
}
.sheet {
  display: flex;
  gap: 14px;
  align-items: flex-start;
  border-top: 1px solid var(--hair);
  padding: 12px 0;
  cursor: pointer;
}
.sheet input {
  width: 26px;
  height: 26px;
  accent-color: var(--ink);
  flex: none;
}
.sheet small {
  display: block;
  font-size: 16px;
}
.facts {
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
}
.facts legend,
.facts p {
  grid-column: 1 / -1;
}
.own {
  justify-self: start;
  position: relative;
}
.own:focus-within {
  outline: 4px solid var(--ink);
  outline-offset: 3px;
}
</style>
