<script setup lang="ts">
/** Phones and tablets of the workshop: pair one with a code on this screen, or take one out. */
import { onMounted, ref } from 'vue'
import { client, got, type Schemas } from '@/api/client'
import { useKeys } from '@/composables/keys'
import { dayOf } from '@/composables/time'
import MarkLogo from '@/shell/MarkLogo.vue'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import { useRouter } from 'vue-router'
import { useServer } from '@/composables/server'

const shop = useShop()
const session = useSession()
const router = useRouter()
const view = ref<Schemas['DevicesView'] | null>(null)
const code = ref<Schemas['PairingCode'] | null>(null)
const { problem, served } = useServer()

async function load() {
  await served(async () => {
    view.value = await got(client.GET('/api/devices'))
  })
}
async function show() {
  await served(async () => {
    code.value = await got(client.POST('/api/devices/code'))
  })
}
async function revoke(device: Schemas['DeviceView']) {
  await got(
    client.POST('/api/devices/{device}/revoke', {
      params: { path: { device: device.id } },
      body: { who: await session.whoIsIt() },
    }),
  ).catch((error: Error) => {
    problem.value = error.message
  })
  await load()
}
onMounted(() => {
  void load()
  if (!shop.view) void shop.load()
})
useKeys(() => ({ ' ': show, Escape: () => void router.push('/') }))
</script>

<template>
  <div class="page">
    <section class="top" aria-label="Hollet">
      <MarkLogo /><RouterLink class="btn small" to="/">Shop <kbd>Esc</kbd></RouterLink>
    </section>
    <main>
      <h1 v-if="view" class="t28">
        {{ view.devices.filter((d) => !d.revoked).length }} phones and tablets may open this Hollet
      </h1>
      <p v-if="problem" class="block" role="alert">{{ problem }}</p>
      <template v-if="view">
        <template v-if="view.address">
          <p>
            They open <b>http://{{ view.address }}</b> in the workshop's own network. It is plain http: never
            use it in a public one.
          </p>
          <div v-if="code" class="code">
            <svg
              :viewBox="`0 0 ${code.size} ${code.size}`"
              width="260"
              height="260"
              role="img"
              :aria-label="`Code ${code.code} as a drawing to scan`"
            >
              <rect :width="code.size" :height="code.size" fill="#fff" />
              <path :d="code.qr" fill="#000" />
            </svg>
            <div>
              <p class="t20">Scan it, or open {{ code.url.split('?')[0] }} and type</p>
              <p class="digits">{{ code.code }}</p>
              <p>It holds for ten minutes and for one device.</p>
            </div>
          </div>
          <button type="button" class="btn primary long" @click="show">
            {{ code ? 'Show another code' : 'Show a code to pair with' }}<kbd>Space</kbd>
          </button>
        </template>
        <p v-else class="quiet">
          Hollet is open on this machine only. To let a phone in, stop it and start it with
          <code>hollet serve --workshop</code>.
        </p>
        <table v-if="view.devices.length">
          <thead>
            <tr>
              <th>device</th>
              <th>paired</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="d in view.devices" :key="d.id">
              <td>
                <b>{{ d.name }}</b>
              </td>
              <td>{{ dayOf(d.made, shop.zone) }}</td>
              <td>
                <span v-if="d.revoked" class="mut">taken out {{ dayOf(d.revoked, shop.zone) }}</span
                ><button
                  v-else
                  type="button"
                  class="btn small"
                  :aria-label="`Take out ${d.name}`"
                  @click="revoke(d)"
                >
                  Take it out
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </template>
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
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 20px;
}
main {
  background: var(--now);
  border-top: 8px solid var(--yel);
  padding: 18px 20px;
  display: grid;
  gap: 16px;
  align-content: start;
  justify-items: start;
  max-width: 100vw;
}
.code {
  display: flex;
  gap: 28px;
  align-items: center;
  flex-wrap: wrap;
}
.digits {
  font-size: 132px;
  font-weight: 850;
  letter-spacing: -0.03em;
  line-height: 1;
}
@media (max-width: 700px) {
  .digits {
    font-size: 60px;
  }
}
</style>
