/** The Shop: builds, sheets and tools. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { v7 } from 'uuid'
import { client, type Entry, got, type Schemas, sentence } from '@/api/client'

export const useShop = defineStore('shop', () => {
  const view = ref<Schemas['ShopView'] | null>(null)
  const problem = ref('')
  const zone = computed(() => view.value?.time_zone ?? 'UTC')
  /**
   * An amount of money as the shop counts it; without a currency it is a bare number, and the Shop asks for
   * one.
   */
  const money = (amount: number | string) =>
    `${amount}${view.value?.currency ? ` ${view.value.currency}` : ''}`
  const tools = computed(() => view.value?.tools ?? [])

  async function load() {
    try {
      // the client widens tuples to lists
      view.value = (await got<unknown>(client.GET('/api/shop'))) as Schemas['ShopView']
      problem.value = ''
    } catch (error) {
      problem.value = sentence(error)
    }
  }
  /** Write to a build from a page of the shop, as it was seen there; a refusal is thrown. */
  async function write(build: string, who: string, entry: Entry) {
    const seen = view.value?.builds.find((b) => b.id === build)?.frame.head ?? 0
    const body = { id: v7(), who, seen, bench_time: new Date().toISOString(), entry }
    await got(client.POST('/api/builds/{build}/entries', { params: { path: { build } }, body }))
    await load()
  }
  return { view, problem, zone, money, tools, load, write }
})
