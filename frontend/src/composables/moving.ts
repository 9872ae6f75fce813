/** A unit on its way: digits, then an arrow, write a move after it was made; Space is the missing voice. */
import { computed, ref } from 'vue'
import type { Entry, Schemas } from '@/api/client'
import { useBook } from '@/stores/book'
import { useServer } from './server'

type Moving = Schemas['MovingFacts']
export type Way = Schemas['UnitMovedAct']['way']
/** As the keys lie: up above down, out and in beside it, the nose in the corners. */
export const PAD: readonly (readonly [Way, string])[] = [
  ['nose up', 'N'],
  ['up', '↑'],
  ['nose down', 'T'],
  ['out', '←'],
  ['down', '↓'],
  ['in', '→'],
]
export type MovingHand = ReturnType<typeof useMoving>

export function useMoving(step: () => string, moving: () => Moving | null) {
  const book = useBook()
  const { problem, asks, served } = useServer()
  const typed = ref('')
  const used = ref('') // the amount last used holds
  const held = ref<Way | null>(null)
  const amount = computed(() => typed.value || used.value)
  const write = (entry: Entry) => served(() => book.write(entry))

  async function moved(way: Way, own: { by?: string; clear?: boolean; sure?: boolean } = {}) {
    held.value = way
    const by = way.startsWith('nose') && !typed.value ? '1' : amount.value
    const told = await write({ kind: 'unit moved', step: step(), way, by, ...own })
    if (told === undefined) return
    if (typed.value) used.value = typed.value
    typed.value = ''
  }
  /** What the primary key is now: the next missing voice; else the same move once more, all clear. */
  async function next() {
    const now = moving()
    if (now?.next_voice) await clear(now.next_voice)
    else if (now?.at_once && now.last) await moved(now.last as Way, { by: now.last_by, clear: true })
  }
  const clear = (watcher: string, own: { gap?: string; between?: string; widens?: Way | null } = {}) =>
    write({ kind: 'clear said', step: step(), watcher, ...own })
  const touched = (watcher: string, where: string) => write({ kind: 'touched', step: step(), watcher, where })
  const half = (why: string, by: string) => write({ kind: 'half said', step: step(), why, held: by })
  const digit = (key: string) => (typed.value = (typed.value + key).slice(0, 5))
  return { problem, asks, typed, used, amount, held, moved, next, clear, touched, half, digit }
}
