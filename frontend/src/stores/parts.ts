/** The parts desk of one build; read anew after each line. */
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { client, got, sentence, type Schemas } from '@/api/client'
import { useBook } from './book'

export type PartsView = Schemas['PartsView']
export type PartRow = Schemas['PartRow']
export type OrderRow = Schemas['OrderRow']

export const useParts = defineStore('parts', () => {
  const view = ref<PartsView | null>(null)
  const problem = ref('')
  const build = ref('')
  const book = useBook()
  let asked = 0

  async function load(id: string) {
    if (build.value !== id) view.value = null
    build.value = id
    const mine = ++asked
    try {
      const loaded = await got<PartsView>(
        client.GET('/api/builds/{build}/parts', { params: { path: { build: id } } }),
      )
      if (mine === asked) {
        view.value = loaded
        problem.value = ''
      }
    } catch (error) {
      if (mine === asked) problem.value = sentence(error)
    }
  }
  watch(
    () => book.frame?.head,
    () => {
      if (build.value && book.card?.id === build.value) void load(build.value)
    },
  )
  return { view, problem, build, load }
})
