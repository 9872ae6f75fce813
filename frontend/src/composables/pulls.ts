/** The wrench that sends: its pulls go to the bolt that is next, and are drawn as they run. */
import { computed } from 'vue'
import type { SentView, TightenBenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { useInstrument } from './instrument'

export function usePulls(bench: () => TightenBenchView) {
  const book = useBook()
  const trace = computed(() => bench().trace)
  const write = (event: string, bolt: number | null, own?: string) =>
    book.write(
      { kind: 'sent pull', step: bench().base.step, joint: bench().joint.id, event, bolt },
      undefined,
      own,
    )
  const spot = computed(() =>
    trace.value && book.card
      ? { build: book.card.id, step: bench().base.step, about: bench().joint.id, tool: trace.value.tool }
      : null,
  )
  const instrument = useInstrument(
    () => spot.value,
    (sent: SentView) => write(sent.id, null, sent.id), // its own id: two screens write one line
  )
  const live = computed(() => (trace.value ? (instrument.feed.view?.pull ?? null) : null))
  const pull = computed(() => live.value ?? trace.value?.last ?? null)
  /** What was taken for one bolt was another's pull: struck, and written for that one. */
  async function toBolt(bolt: number, reason: string) {
    const { last_entry: entry, last_event: event } = trace.value ?? {}
    if (!entry || !event) return
    if (await book.act({ kind: 'strike', entry, reason })) await write(event, bolt)
  }
  /** What was asked about, or came too late: whose pull it was. */
  async function whose(bolt: number) {
    const sent = instrument.troubled.value
    if (!sent) return
    instrument.forget()
    await book.act({
      kind: 'sent pull',
      step: bench().base.step,
      joint: bench().joint.id,
      event: sent.id,
      bolt,
    })
  }
  return { ...instrument, trace, live, pull, toBolt, whose }
}
