/**
 * What was typed at a step and is on its way or kept in the browser: the hand goes on, nothing is typed
 * twice.
 */
import { computed, type ComputedRef } from 'vue'
import type { Entry } from '@/api/client'
import { useBook } from '@/stores/book'
import { useJournal } from '@/stores/journal'

export type Kept<K extends Entry['kind']> = Extract<Entry, { kind: K }>

/**
 * Entries of one kind at the step, oldest first, that the server does not have; those that it refused only
 * when asked for.
 */
export function useKept<K extends Entry['kind']>(
  kind: K,
  step: () => string,
  refused = false,
): ComputedRef<Kept<K>[]> {
  const book = useBook()
  const journal = useJournal()
  return computed(() =>
    (refused ? journal.waiting : journal.notSaved)
      .filter((item) => item.build === book.card?.id)
      .map((item) => item.entry)
      .filter((entry): entry is Kept<K> => entry.kind === kind && 'step' in entry && entry.step === step()),
  )
}
