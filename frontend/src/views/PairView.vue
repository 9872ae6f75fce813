<script setup lang="ts">
/** This phone or tablet asks to be let in, with the code that the workshop's computer shows. */
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { client, got } from '@/api/client'
import MarkLogo from '@/shell/MarkLogo.vue'
import { useSession } from '@/stores/session'
import { useServer } from '@/composables/server'

const route = useRoute()
const session = useSession()
const code = ref(String(route.query.code ?? ''))
const name = ref('')
const who = ref(session.who)
const { problem, served } = useServer()

async function pair() {
  await served(async () => {
    await got(
      client.POST('/api/pair', {
        body: { code: code.value.trim(), name: name.value.trim(), who: who.value.trim() },
      }),
    )
    session.setWho(who.value.trim())
    window.location.assign('/')
  })
}
</script>

<template>
  <div class="page">
    <section class="top" aria-label="Hollet"><MarkLogo /></section>
    <main>
      <h1 class="t28">This device is not paired yet</h1>
      <p>On the workshop's computer open Shop, Phones, and show a code.</p>
      <form @submit.prevent="pair">
        <label class="field"
          ><span>code</span
          ><input
            v-model="code"
            class="entry big"
            inputmode="numeric"
            autocomplete="one-time-code"
            maxlength="6"
            name="code"
        /></label>
        <label class="field"
          ><span>name of this device, such as phone of MK</span
          ><input v-model="name" class="entry" maxlength="40" name="device"
        /></label>
        <label class="field"
          ><span>your initials</span
          ><input v-model="who" class="entry" maxlength="6" name="who" autocapitalize="characters"
        /></label>
        <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
        <button
          type="submit"
          class="btn primary long"
          :disabled="!code.trim() || !name.trim() || !who.trim()"
        >
          Pair this device
        </button>
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
  padding: 14px 20px;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  padding: 18px 20px;
}
form {
  display: grid;
  gap: 14px;
  max-width: 420px;
  margin-top: 14px;
}
.entry.big {
  letter-spacing: 0.2em;
}
</style>
