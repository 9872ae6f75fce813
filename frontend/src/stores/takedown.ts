/** What is off, the tray and the register of one build; read anew after each line. */
import { defineStore } from 'pinia'
import { ref, watch } from 'vue'
import { client, got, sentence, type TakeDown } from '@/api/client'
import { useBook } from './book'

export const useTakeDown = defineStore('takedown', () => {
  const view = ref<TakeDown | null>(null)
  const problem = ref('')
  const build = ref('')
  const book = useBook()
  let asked = 0

  async function load(id: string) {
    if (build.value !== id) view.value = null
    build.value = id
    const mine = ++asked
    try {
      const loaded = (await got<unknown>(
        client.GET('/api/builds/{build}/takedown', { params: { path: { build: id } } }),
      )) as TakeDown
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
  return { view, problem, load }
})
