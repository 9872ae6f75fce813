/** A desk of one build: what the server says of it, read anew after each line; a late answer never wins. */
import { ref, watch, type Ref } from 'vue'
import { useServer } from './server'
import { useBook } from '@/stores/book'

export function useDesk<T>(build: () => string, ask: (build: string) => Promise<T>) {
  const view = ref(null) as Ref<T | null>
  const book = useBook()
  const { problem, served } = useServer()
  let asked = 0

  async function load() {
    const mine = ++asked
    const found = await served(
      () => ask(build()),
      () => mine === asked,
    )
    if (found !== undefined && mine === asked) view.value = found
  }
  watch(() => [build(), book.frame?.head], load, { immediate: true })
  return { view, problem, load }
}

/** An id that is made once for what is being written, and anew when it is on the server. */
export function useOwnId(prefix: string) {
  const fresh = () => `${prefix}${crypto.randomUUID().replaceAll('-', '').slice(0, 12)}`
  const id = ref(fresh())
  return { id, renew: () => (id.value = fresh()) }
}

/**
 * A price as it was typed, or null where nothing stands there; NaN stays, so that the server says what is
 * wrong.
 */
export const priceOf = (text: string) => (text.trim() ? Number(text.trim().replace(',', '.')) : null)
