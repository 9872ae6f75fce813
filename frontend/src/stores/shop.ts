/** The Shop: builds, sheets and tools. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { client, got, type Schemas } from '@/api/client'

export const useShop = defineStore('shop', () => {
  const view = ref<Schemas['ShopView'] | null>(null)
  const problem = ref('')
  const zone = computed(() => view.value?.time_zone ?? 'UTC')
  const tools = computed(() => view.value?.tools ?? [])

  async function load() {
    try {
      view.value = (await got<unknown>(client.GET('/api/shop'))) as Schemas['ShopView'] // the client widens tuples to lists
      problem.value = ''
    } catch (error) {
      problem.value = (error as Error).message
    }
  }
  return { view, problem, zone, tools, load }
})
