/** A look under pressure: how long it lasts, and what its keys write. */
import { computed } from 'vue'
import { useNow } from '@vueuse/core'
import type { Schemas } from '@/api/client'
import { useBook } from '@/stores/book'

type Leaks = Schemas['LeaksView']
export type Grade = Schemas['LeakSeenAct']['grade']
/** What is seen, with its letter: no digit decides. */
export const GRADES: readonly (readonly [Grade, string, string, string])[] = [
  ['dry', 'Dry', 'Y', ''],
  ['damp', 'Damp', 'U', 'wipe it'],
  ['drop', 'Drips', 'I', 'off, mend'],
  ['run', 'Runs', 'K', 'off, mend'],
  ['stream', 'Stream', 'M', 'off now'],
]

export function useLooking(view: () => Leaks | null) {
  const book = useBook()
  const now = useNow({ interval: 250 })
  const looking = computed(() => view()?.looking[0] ?? null)
  const seconds = computed(() => {
    if (!looking.value) return 0
    return Math.max(0, (now.value.getTime() - book.ahead - new Date(looking.value.began).getTime()) / 1000)
  })
  const left = computed(() => Math.max(0, (looking.value?.hold_s ?? 0) - seconds.value))
  const place = computed(
    () =>
      view()?.places.find((p) => !p.cleared && (!looking.value || p.fluid === looking.value.fluid)) ?? null,
  )

  /** The pressure is off; `clean`, that nothing else was wet. */
  async function off(clean = false) {
    if (looking.value) await book.act({ kind: 'look ended', look: looking.value.id, clean })
  }
  /** What is seen at the place in hand. */
  async function seen(grade: Grade, sure: 'certain' | 'doubtful' = 'certain') {
    if (!place.value) return
    await book.act({
      kind: 'leak seen',
      fluid: place.value.fluid,
      place: place.value.id,
      grade,
      sure,
      look: looking.value?.id ?? null,
    })
  }
  return { looking, seconds, left, place, off, seen }
}
