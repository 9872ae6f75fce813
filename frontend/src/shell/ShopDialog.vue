<script setup lang="ts">
/** What the shop is called, where its clock stands, and in which currency it counts. */
import { ref } from 'vue'
import { client, got } from '@/api/client'
import { useSession } from '@/stores/session'
import { useShop } from '@/stores/shop'
import { useServer } from '@/composables/server'

const shop = useShop()
const session = useSession()
const open = ref(false)
const name = ref('')
const zone = ref('')
const currency = ref('')
const { problem, served } = useServer()

function ask() {
  name.value = shop.view?.name ?? ''
  zone.value = shop.view?.time_zone ?? ''
  currency.value = shop.view?.currency ?? ''
  problem.value = ''
  open.value = true
}
async function say() {
  await served(async () => {
    await got(
      client.POST('/api/shop', {
        body: {
          who: await session.whoIsIt(),
          name: name.value,
          time_zone: zone.value.trim(),
          currency: currency.value,
          version: shop.view?.version ?? 0,
        },
      }),
    )
    open.value = false
    await shop.load()
  })
}
defineExpose({ ask })
</script>

<template>
  <el-dialog v-model="open" title="The shop" width="460" append-to-body>
    <form class="shop-form" @submit.prevent="say">
      <label class="field"
        ><span>Its name</span
        ><input v-model="name" class="entry" name="shop-name" maxlength="80" autocomplete="off"
      /></label>
      <label class="field"
        ><span>Time zone</span
        ><input
          v-model="zone"
          class="entry"
          name="shop-zone"
          maxlength="60"
          autocomplete="off"
          placeholder="Europe/London"
      /></label>
      <label class="field"
        ><span>It counts money in</span
        ><input
          v-model="currency"
          class="entry"
          name="shop-currency"
          maxlength="8"
          autocomplete="off"
          placeholder="EUR"
      /></label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button type="submit" class="btn" :disabled="!name.trim() || !zone.trim()">Say it so</button>
    </form>
  </el-dialog>
</template>

<style scoped>
.shop-form {
  display: grid;
  gap: 12px;
}
.problem {
  color: var(--out);
}
</style>
