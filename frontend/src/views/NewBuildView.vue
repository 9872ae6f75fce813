<script setup lang="ts">
/** A new build from a sheet, one that ships or the user's own. */
import { computed, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import { v7 } from 'uuid'
import { client, got } from '@/api/client'
import MarkLogo from '@/shell/MarkLogo.vue'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'

const shop = useShop()
const session = useSession()
const router = useRouter()
const sheet = ref('')
const name = ref('')
const vehicle = ref('')
const about = ref('')
const problem = ref('')
const mistake = ref('')
const busy = ref(false)
const ready = computed(() => sheet.value && name.value.trim() && vehicle.value.trim())

onMounted(async () => { await shop.load(); sheet.value ||= shop.view?.sheets[0]?.id ?? '' })
async function upload(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  mistake.value = ''
  try {
    const card = await got(client.POST('/api/sheets', { body: { text: await file.text() } }))
    await shop.load()
    sheet.value = card.id
  } catch (error) {
    mistake.value = `${file.name} was not taken: ${(error as Error).message}`
  }
  input.value = ''
}
async function make() {
  if (!ready.value || busy.value) return
  problem.value = ''
  const who = await session.whoIsIt()
  busy.value = true
  try {
    const body = { id: v7(), who, sheet: sheet.value, name: name.value.trim(), vehicle: vehicle.value.trim(), about: about.value.trim() || vehicle.value.trim() }
    const card = await got(client.POST('/api/builds', { body }))
    await router.push({ name: 'build', params: { build: card.id } })
  } catch (error) {
    problem.value = (error as Error).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="page">
    <section class="top" aria-label="Hollet"><MarkLogo /></section>
    <main>
      <h1 class="t28">New build from a sheet</h1>
      <p v-if="shop.problem" class="block" role="alert">{{ shop.problem }}</p>
      <form v-if="shop.view" @submit.prevent="make">
        <fieldset><legend class="t20">Which sheet</legend>
          <label v-for="s in shop.view?.sheets ?? []" :key="s.id" class="sheet"><input v-model="sheet" type="radio" name="sheet" :value="s.id" /><span><b>{{ s.title }}</b><small>{{ s.steps }} steps{{ s.shipped ? '' : ', your own' }}. {{ s.about }}</small></span></label>
          <label class="btn small own">Take a sheet of my own (TOML)<input type="file" accept=".toml,text/plain" class="sr" name="sheetfile" @change="upload" /></label>
          <p v-if="mistake" class="block" role="alert">{{ mistake }}</p>
        </fieldset>
        <label class="field"><span>What the job is called</span><input v-model="name" class="entry" maxlength="80" name="name" /></label>
        <label class="field"><span>Which vehicle</span><input v-model="vehicle" class="entry" maxlength="80" name="vehicle" /></label>
        <label class="field"><span>In a few words: make, year, where it stands</span><input v-model="about" class="entry" maxlength="200" name="about" /></label>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <button type="submit" class="btn primary" :disabled="!ready || busy">Begin this build</button>
      </form>
    </main>
  </div>
</template>

<style scoped>
.page { min-height: 100dvh; display: grid; grid-template-rows: 76px 1fr; }
.top { padding: 16px 20px; }
main { background: var(--now); border-top: 8px solid var(--yel); padding: 18px 20px; }
form { display: grid; gap: 16px; max-width: 760px; margin-top: 12px; }
fieldset { border: 0; padding: 0; margin: 0; display: grid; gap: 8px; }
.sheet { display: flex; gap: 14px; align-items: flex-start; border-top: 1px solid var(--hair); padding: 12px 0; cursor: pointer; }
.sheet input { width: 26px; height: 26px; accent-color: var(--ink); flex: none; }
.sheet small { display: block; font-size: 16px; }
.own { justify-self: start; position: relative; }
.own:focus-within { outline: 4px solid var(--ink); outline-offset: 3px; }
</style>
