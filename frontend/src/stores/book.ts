/**
 * The open build: its frame, the step in hand, and writing to it. Status is displayed here, never computed.
 */
import { until } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import {
  type AppendView,
  type BenchView,
  type BuildCard,
  client,
  type Entry,
  got,
  type LogLine,
  Refusal,
  sentence,
} from '@/api/client'
import { useJournal } from './journal'

/**
 * Kinds that are not about the step on the screen, like whatever is written beside a bench or from a page
 * without one: what was seen of them is the frame's newest line.
 */
const OF_THE_FRAME: Entry['kind'][] = [
  'undone',
  'removed',
  'pinned',
  'compared',
  'captured',
  'replaced',
  'supported',
  'vehicle stands',
  'stopped',
  'secured',
  'gone on',
  'surroundings',
  'part wanted',
  'ordered',
  'order moved',
  'parcel came',
  'feature compared',
  'part taken',
  'part refused',
  'part returned',
  'pause said',
  'budget set',
  'owner said',
  'way weighed',
  'paid',
  'reserve weighed',
  'put by',
  'search begun',
  'search ended',
  'machine ordered',
  'machine moved',
  'machine measured',
  'question asked',
  'question answered',
  'opener said',
  'odometer said',
]

const LOADING = 'this screen is still being loaded: press it once more'

export const useBook = defineStore('book', () => {
  const card = ref<BuildCard | null>(null)
  const bench = ref<BenchView | null>(null)
  const problem = ref('')
  const refused = ref('')
  const touched = ref(false)
  const last = ref<LogLine | null>(null)
  const busy = ref(false)
  const ahead = ref(0) // by how many ms this screen's clock is ahead of the server's
  const frame = computed(() => card.value?.frame ?? null)
  const journal = useJournal()
  let asked = 0
  const inHand = new Set<string>() // what is being written, or waits its turn
  let wanted: string | null = null // the step that the screen is at, also while its bench is still on the way

  let missed = false // something kept was sent while this screen was still loading
  journal.whenSent((view) => {
    if (card.value) void take(view, true)
    else missed = true
  })

  /** Load the frame of a build and the bench of a step; a late answer never overwrites a newer one. */
  async function open(build: string, step: string | null) {
    const mine = ++asked
    wanted = step
    if (card.value?.id !== build) {
      card.value = null
      touched.value = false
      last.value = null
    }
    if (bench.value?.base.step !== step) bench.value = null
    try {
      const loaded = await got(client.GET('/api/builds/{build}', { params: { path: { build } } }))
      const path = { build, step: step ?? '' }
      const stepView = step
        ? await got(client.GET('/api/builds/{build}/steps/{step}', { params: { path } }))
        : null
      if (mine !== asked) return
      card.value = loaded
      ahead.value = Date.now() - new Date(loaded.now).getTime()
      bench.value = stepView as BenchView | null
      problem.value = ''
      if (missed) {
        missed = false
        void reload()
      }
    } catch (error) {
      if (mine === asked) problem.value = sentence(error)
    }
  }
  async function reload() {
    if (card.value) await open(card.value.id, wanted)
  }

  /**
   * Show what was written; resolves when the step on the screen has it too, so that nothing is built upon an
   * older one.
   */
  async function take(view: AppendView, fromQueue = false) {
    if (!card.value || view.build.id !== card.value.id || view.build.frame.head < card.value.frame.head)
      return
    asked++
    card.value = view.build
    last.value = view.line
    touched.value = true
    if (view.bench && view.bench.base.step === wanted) bench.value = view.bench as BenchView
    else if (wanted || !view.bench || fromQueue) await reload()
  }

  /**
   * Write an entry; true when it is on the server, false when it waits in this browser. What was refused, or
   * could not be kept, is thrown: it is said where it was typed, and the form keeps it.
   */
  async function write(entry: Entry, file?: Blob, own?: string): Promise<boolean> {
    const elsewhere = !bench.value || ('step' in entry && entry.step !== bench.value.base.step)
    const ofFrame = elsewhere || OF_THE_FRAME.includes(entry.kind)
    const build = card.value?.id
    const seenNow = () => Math.max((ofFrame ? card.value?.frame.head : bench.value?.base.seen) ?? 0, 0)
    let seen = seenNow()
    let mineNow = false
    const mine = JSON.stringify(entry)
    if (!build) throw new Error(LOADING)
    if (inHand.has(mine)) return false // the same press twice: once is enough
    let behind = inHand.size > 0 // an own act was on its way as it was pressed, though it may end first
    inHand.add(mine)
    const turn = async () => {
      behind ||= busy.value
      while (busy.value) await until(busy).toBe(false) // another act waits its turn, kept and not swallowed
      // behind an own act it is meant for what that left;
      // else for what the hand saw as it pressed, whatever came since
      if (behind && card.value?.id === build) seen = seenNow()
      busy.value = mineNow = true
      refused.value = ''
      return seen
    }
    try {
      const view = await journal.write(build, entry, seen, turn, file, own)
      touched.value = true
      if (view) await take(view)
      return view !== null
    } catch (error) {
      if (error instanceof Refusal && error.status === 409) void reload()
      throw error // nothing is written and nothing waits: the form that asked keeps what was typed
    } finally {
      inHand.delete(mine)
      if (mineNow) busy.value = false
    }
  }
  /** Like `write`, for acts whose refusal the frame itself shows. */
  async function act(entry: Entry, file?: Blob): Promise<boolean> {
    try {
      return await write(entry, file)
    } catch (error) {
      refused.value = sentence(error)
      return false
    }
  }
  /** True unless it was refused: on the server, or waiting here. A form gives back what was refused. */
  async function handed(entry: Entry, file?: Blob): Promise<boolean> {
    return (await act(entry, file)) || !refused.value
  }
  return {
    card,
    bench,
    ahead,
    frame,
    problem,
    refused,
    touched,
    last,
    busy,
    open,
    reload,
    take,
    write,
    act,
    handed,
  }
})
