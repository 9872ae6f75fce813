/** What a desk shows of a build: asked for at once, and again whenever something is written. */
import { shallowRef, watch, type WatchSource } from 'vue'
import { got } from '@/api/client'
import { useServer } from '@/composables/server'
import { useBook } from '@/stores/book'

/** `get` asks the server; it is asked again when the log has grown or one of `also` has changed. */
export function useView<T>(get: () => Parameters<typeof got<T>>[0], ...also: WatchSource[]) {
  const book = useBook()
  const view = shallowRef<T | null>(null)
  const { problem, served } = useServer()
  async function load() {
    const found = await served(() => got(get()))
    if (found) view.value = found
  }
  watch([() => book.frame?.head, ...also], () => void load(), { immediate: true })
  return { view, load, problem, served }
}
