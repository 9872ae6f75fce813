/** The wrench that sends: its pulls go to the bolt that is next, and are drawn as they run. */
import { computed } from 'vue'
import type { SentView, TightenBenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { useInstrument } from './instrument'

export function usePulls(bench: () => TightenBenchView) {
  const book = useBook()
  const trace = computed(() => bench().trace)
  const pulled = (event: string, bolt: number | null) => ({
    kind: 'sent pull' as const,
    step: bench().base.step,
    joint: bench().joint.id,
    event,
    bolt,
  })
  const spot = computed(() =>
    trace.value && book.card
      ? { build: book.card.id, step: bench().base.step, about: bench().joint.id, tool: trace.value.tool }
      : null,
  )
  const instrument = useInstrument(
    () => spot.value,
    // its own id: two screens write one line
    (sent: SentView) => book.write(pulled(sent.id, null), undefined, sent.id),
  )
  const live = computed(() => (trace.value ? (instrument.feed.view?.pull ?? null) : null))
  const pull = computed(() => live.value ?? trace.value?.last ?? null)
  /** What was taken for one bolt was another's pull: struck, and written for that one. */
  async function toBolt(bolt: number, reason: string) {
    const { last_entry: entry, last_event: event } = trace.value ?? {}
    if (!entry || !event) return
    if (await book.act({ kind: 'strike', entry, reason })) await book.act(pulled(event, bolt))
  }
  /** What was asked about, or came too late: whose pull it was. */
  async function whose(bolt: number) {
    const sent = instrument.troubled.value
    if (!sent) return
    instrument.forget()
    await book.act(pulled(sent.id, bolt))
  }
  return { ...instrument, trace, live, pull, toBolt, whose }
}
