<script setup lang="ts">
/** Read an archive of a build in. */
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { client, got, sentence } from '@/api/client'
import { useShop } from '@/stores/shop'

defineProps<{ large?: boolean }>()
const shop = useShop()
const router = useRouter()
const input = ref<HTMLInputElement | null>(null)

async function read() {
  const file = input.value?.files?.[0]
  if (!file) return
  const form = new FormData()
  form.append('file', file)
  try {
    const card = await got(
      client.POST('/api/archives', {
        body: form as never,
        bodySerializer: (body: unknown) => body as FormData,
      }),
    )
    await router.push({ name: 'build', params: { build: card.id } })
  } catch (error) {
    shop.problem = sentence(error)
  }
  if (input.value) input.value.value = ''
}
</script>

<template>
  <button type="button" class="btn" :class="large ? 'second big' : 'small'" @click="input?.click()">
    Read in an archive
  </button>
  <input ref="input" type="file" accept=".zip" hidden aria-label="Archive of a build" @change="read" />
</template>
