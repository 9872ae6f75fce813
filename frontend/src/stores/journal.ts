/**
 * Sends entries: first kept, then sent, then dropped when the server has them. What it refuses waits for a
 * person.
 */
import { defineStore } from 'pinia'
import { v7 } from 'uuid'
import { computed, ref } from 'vue'
import {
  type AppendView,
  client,
  type Entry,
  got,
  Refusal,
  sendClip,
  sendPhoto,
  sendSound,
  Unreached,
} from '@/api/client'
import { benchTime } from '@/composables/time'
import { useSession } from './session'
import * as queue from './queue'
import { about, next, sendable } from './stepper'

/** What is sent before its entry, by the kind of entry. */
const SENT_BEFORE: Record<string, ((file: Blob) => Promise<object>) | undefined> = {
  photo: sendPhoto,
  spoken: sendSound,
  clip: sendClip,
}
const FORM_KEEPS_IT = 422 // the form that sent it still shows what was typed, and the sentence
const answered = (problem: unknown) =>
  problem instanceof Refusal
    ? { status: problem.status, readable: true }
    : { status: problem instanceof Unreached ? problem.status : null, readable: false }

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
  /** Kept on the device, and in the list that the screen shows. */
  async function keep(item: queue.Waiting) {
    await queue.keep(item)
    waiting.value = [...waiting.value.filter((other) => other.id !== item.id), item]
  }
  async function forget(id: string) {
    await queue.drop(id)
    waiting.value = waiting.value.filter((other) => other.id !== id)
  }
  /** A photo, a recording or a clip goes first, then its entry with the name that the server gave it. */
  async function post(waits: queue.Waiting): Promise<AppendView> {
    let item = waits
    const send = SENT_BEFORE[item.entry.kind]
    if (item.file && send) {
      const stored = await send(item.file)
      item = { ...item, entry: { ...item.entry, ...stored }, file: undefined }
      await queue.keep(item)
    }
    const { id, who, bench_time, seen, entry } = item
    const path = { build: item.build }
    const call = client.POST('/api/builds/{build}/entries', {
      params: { path },
      body: { id, who, bench_time, seen, after: item.after ?? null, entry },
    })
    return (await got<unknown>(call)) as AppendView // the client widens tuples to lists
  }
  /** Keep what the answer made of an item; the pause before the next try, or null. */
  async function tried(item: queue.Waiting, problem: unknown): Promise<number | null> {
    const step = next({ tries: item.tries ?? 0 }, answered(problem))
    if (step.do === 'again') {
      if (step.tries !== item.tries) await queue.keep({ ...item, tries: step.tries })
      return step.pause
    }
    await queue.keep({
      ...item,
      refused: problem instanceof Error ? problem.message : 'the server gave no answer that can be read',
    })
    return null
  }

  /**
   * Write one entry (`own`: by the id that its instrument gave it): kept at once, sent when it is its
   * `turn`, which says what was seen by then. Resolves with the new screen, or null while it waits; throws a
   * Refusal.
   */
  async function write(
    build: string,
    entry: Entry,
    seen: number,
    turn: () => Promise<number>,
    file?: Blob,
    own?: string,
  ): Promise<AppendView | null> {
    const who = await useSession().whoIsIt()
    const on = about(build, entry)
    const id = own ?? v7()
    const ahead = () => waiting.value.filter((other) => other.about === on && other.id < id).at(-1)
    const kept: queue.Waiting = {
      id,
      build,
      who,
      bench_time: benchTime(),
      seen,
      entry,
      refused: null,
      file,
      about: on,
      after: ahead()?.id ?? null,
      tries: 0,
    }
    await keep(kept)
    const now = await turn()
    const before = ahead()
    const item = { ...kept, seen: now, after: before?.id ?? null }
    if (item.seen !== kept.seen || item.after !== kept.after) await keep(item)
    if (before) {
      later(0)
      return null // it goes behind the one about the same that is still on its way
    }
    try {
      const view = await post(item)
      await forget(item.id)
      return view
    } catch (problem) {
      if (problem instanceof Refusal && problem.status === FORM_KEEPS_IT) await forget(item.id)
      else {
        const pause = await tried(item, problem)
        await refresh()
        if (pause !== null) {
          later(pause)
          return null
        }
      }
      throw problem
    }
  }

  function later(pause: number) {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void sync(), pause)
  }

  /**
   * Send all that waits, in order; what is refused stays with its reason, and only what is about the same
   * waits behind it.
   */
  async function sync() {
    if (syncing) return
    syncing = true
    await refresh()
    let pause: number | null = null
    const held = new Set<string>()
    for (const item of sendable(waiting.value)) {
      if (held.has(item.about)) continue
      try {
        const view = await post(item)
        await queue.drop(item.id)
        for (const listener of listeners) listener(view)
      } catch (problem) {
        held.add(item.about)
        const wait = await tried(item, problem)
        if (wait !== null) pause = Math.min(pause ?? wait, wait)
        // nobody there: the others need not try
        if (problem instanceof Unreached && problem.status === null) break
      }
    }
    await refresh()
    syncing = false
    if (pause !== null) later(pause)
  }

  /** Send a refused entry again, on what is seen now; it stays kept all the while. */
  async function again(item: queue.Waiting, seen: number): Promise<void> {
    await queue.keep({ ...item, refused: null, tries: 0, seen })
    await sync()
  }
  function whenSent(listener: (view: AppendView) => void) {
    listeners.add(listener)
  }
  return { waiting, notSaved, notWritten, write, sync, again, forget, whenSent }
})
