/** Sends entries: first kept, then sent, then dropped when the server has them. */
import { defineStore } from 'pinia'
import { v7 } from 'uuid'
import { computed, ref } from 'vue'
import { type AppendView, client, type Entry, got, Refusal, sendPhoto, Unreached } from '@/api/client'
import { benchTime } from '@/composables/time'
import { useSession } from './session'
import * as queue from './queue'

const RETRY_MS = 3000

export const useJournal = defineStore('journal', () => {
  const waiting = ref<queue.Waiting[]>([])
  const notSaved = computed(() => waiting.value.filter((item) => item.refused === null))
  const notWritten = computed(() => waiting.value.filter((item) => item.refused !== null))
  const listeners = new Set<(view: AppendView) => void>()
  let timer: number | undefined
  let syncing = false

  async function refresh() {
    waiting.value = await queue.all()
  }
  async function forget(id: string) {
    await queue.drop(id)
    await refresh()
  }
  /** A photo goes first, then its entry with the name that the server gave it. */
  async function post(waiting: queue.Waiting): Promise<AppendView> {
    let item = waiting
    if (item.file && item.entry.kind === 'photo') {
      const stored = await sendPhoto(item.file)
      item = { ...item, entry: { ...item.entry, ...stored }, file: undefined }
      await queue.keep(item)
    }
    const { id, who, bench_time, seen, entry } = item
    const path = { build: item.build }
    const call = client.POST('/api/builds/{build}/entries', { params: { path }, body: { id, who, bench_time, seen, entry } })
    return (await got<unknown>(call)) as AppendView // the client widens tuples to lists
  }

  /** Write one entry. Resolves with the new screen, or null while the server cannot be reached; throws a Refusal. */
  async function write(build: string, entry: Entry, seen: number, file?: Blob): Promise<AppendView | null> {
    const who = await useSession().whoIsIt()
    const item: queue.Waiting = { id: v7(), build, who, bench_time: benchTime(), seen, entry, refused: null, file }
    await queue.keep(item)
    await refresh()
    try {
      const view = await post(item)
      await forget(item.id)
      return view
    } catch (problem) {
      if (problem instanceof Unreached) {
        later()
        return null
      }
      if (problem instanceof Refusal && problem.status === 409) {
        await queue.keep({ ...item, refused: problem.message })
        await refresh()
      } else await forget(item.id)
      throw problem
    }
  }

  function later() {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void sync(), RETRY_MS)
  }

  /** Send all that waits, in order; what is refused stays with its reason. */
  async function sync() {
    if (syncing) return
    syncing = true
    await refresh()
    for (const item of notSaved.value) {
      try {
        const view = await post(item)
        await queue.drop(item.id)
        for (const listener of listeners) listener(view)
      } catch (problem) {
        if (problem instanceof Refusal) await queue.keep({ ...item, refused: problem.message })
        else {
          later()
          break
        }
      }
    }
    await refresh()
    syncing = false
  }

  /** Write a refused entry again, as if typed now. */
  async function again(item: queue.Waiting, seen: number): Promise<AppendView | null> {
    await forget(item.id)
    return write(item.build, item.entry, seen, item.file)
  }
  function whenSent(listener: (view: AppendView) => void) {
    listeners.add(listener)
  }
  return { waiting, notSaved, notWritten, write, sync, again, forget, whenSent }
})
