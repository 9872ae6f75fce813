/** Tonight and the evenings: what the server says of them, and what is said to the shop's calendar. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { v7 } from 'uuid'
import { client, got, type Schemas, sentence } from '@/api/client'
import { useSession } from './session'
import { useShop } from './shop'

export type TonightView = Schemas['TonightView']
export type EveningsPlan = Schemas['EveningsPlan']
export type ShopAct = Schemas['ShopEntryEdit']['entry']

const AGAIN_MS = 700

export const useCalendar = defineStore('calendar', () => {
  const tonight = ref<TonightView | null>(null)
  const evenings = ref<Schemas['EveningsView'] | null>(null)
  const problem = ref('')
  const session = useSession()
  const shop = useShop()
  let timer = 0

  async function loadTonight() {
    try {
      tonight.value = (await got<unknown>(client.GET('/api/tonight'))) as TonightView
      problem.value = ''
    } catch (error) {
      problem.value = sentence(error)
    }
  }
  /** The plan as it is; while a newer one is laid it is asked for again. */
  async function loadEvenings() {
    window.clearTimeout(timer)
    try {
      const view = (await got<unknown>(client.GET('/api/evenings'))) as Schemas['EveningsView']
      evenings.value = view
      problem.value = ''
      if (view.laying) timer = window.setTimeout(() => void loadEvenings(), AGAIN_MS)
    } catch (error) {
      problem.value = sentence(error)
    }
  }
  async function stop() {
    evenings.value = (await got<unknown>(client.POST('/api/evenings/stop'))) as Schemas['EveningsView']
  }
  function leave() {
    window.clearTimeout(timer)
  }
  const pending = new Map<string, string>() // the same words once more keep their id: no line twice
  /** Say something to the shop's calendar; false when it was refused, and then `problem` says why. */
  async function say(entry: ShopAct): Promise<boolean> {
    const who = await session.whoIsIt()
    const words = JSON.stringify([who, entry])
    const id = pending.get(words) ?? v7()
    pending.set(words, id)
    try {
      await got(client.POST('/api/shop/entries', { body: { who, id, entry } }))
      pending.delete(words)
      problem.value = ''
    } catch (error) {
      problem.value = sentence(error)
      return false
    }
    await Promise.all([loadTonight(), shop.load(), evenings.value ? loadEvenings() : null])
    return true
  }
  return { tonight, evenings, problem, loadTonight, loadEvenings, stop, leave, say }
})
