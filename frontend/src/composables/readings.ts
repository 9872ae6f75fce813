/**
 * The reading in hand: which it is, what is typed for it, with which tool; writing it, and going on to the
 * next.
 */
import { computed, nextTick, ref, type Ref, watch } from 'vue'
import { onlyAsks, type MeasureBenchView, type SentView, sentence } from '@/api/client'
import { useBook } from '@/stores/book'
import { useFigure } from './figure'
import { useInstrument } from './instrument'
import { useKept } from './kept'

/** `bench` is the measuring step on the screen, `entry` the field that figures are typed into. */
export function useReadings(bench: () => MeasureBenchView, entry: Ref<HTMLInputElement | null>) {
  const book = useBook()
  const picked = ref<string | null>(null)
  const toolPicked = ref<Record<string, string>>({})
  const text = ref('')
  const repeats = ref<string[]>([])
  const taken = ref('') // in which state the part was, for this reading
  const sitting = ref('') // the same, said once for this step and sitting
  const question = ref('')
  const problem = ref('')
  const ahead = ref(false) // the next figure was typed and entered while this one was on its way
  const round = ref(false) // reading all once more, one after the other
  const pending = ref<SentView | null>(null) // what its tool sent, and is asked about
  let sending = false

  const onTheWay = useKept('reading', () => bench().base.step)
  const kept = computed(() => new Map(onTheWay.value.map((sent) => [sent.reading, sent.typed])))
  /** What is typed but not acknowledged stands on the drawing too, in the dashed box of what is not read. */
  const readings = computed(() =>
    bench().readings.map((r) =>
      kept.value.has(r.id) ? { ...r, value_text: `${kept.value.get(r.id)?.at(-1)}…`, entry: null } : r,
    ),
  )
  const next = computed(() => {
    const first = bench().next_reading
    return first !== null && kept.value.has(first)
      ? (readings.value.find((r) => r.entry === null && !kept.value.has(r.id))?.id ?? null)
      : first
  })
  const reading = computed(() => readings.value.find((r) => r.id === (picked.value ?? next.value)) ?? null)
  const tools = computed(() =>
    (reading.value?.tools ?? [])
      .map((id) => bench().tools.find((t) => t.id === id))
      .filter((t) => t !== undefined),
  )
  const tool = computed(
    () =>
      tools.value.find((t) => t.id === toolPicked.value[reading.value?.tool_kind ?? '']) ??
      tools.value.at(0) ??
      null,
  )
  const { view: figure } = useFigure(text, () => ({
    dimension: tool.value?.dimension ?? null,
    unit: tool.value?.unit ?? null,
    tool: tool.value?.id ?? null,
  }))

  const spot = computed(() =>
    reading.value && tool.value?.sends && book.card
      ? { build: book.card.id, step: bench().base.step, about: reading.value.id, tool: tool.value.id }
      : null,
  )
  /** What its tool sent is the reading in hand: one press, one reading; `sure` as for a typed one. */
  async function takeSent(sent: SentView, sure = false) {
    if (!reading.value || !tool.value) return
    pending.value = null
    question.value = ''
    const kept = await book
      .write(
        {
          kind: 'sent reading',
          step: bench().base.step,
          reading: reading.value.id,
          events: [sent.id],
          instrument: tool.value.id,
          state: taken.value.trim() || sitting.value || null,
          sure,
        },
        undefined,
        sent.id,
      )
      .catch((error: unknown) => {
        if (!onlyAsks(error)) throw error
        pending.value = sent
        question.value = error.message
        return null
      })
    if (kept !== null) onward()
  }
  const instrument = useInstrument(() => spot.value, takeSent)

  /** What was typed is written or given up; a state typed for one reading never passes on to the next. */
  function clear() {
    text.value = taken.value = question.value = problem.value = ''
    repeats.value = []
    pending.value = null
    ahead.value = false
  }
  function focus() {
    void nextTick(() => entry.value?.focus())
  }
  function pick(id: string) {
    picked.value = id
    clear()
    focus()
  }
  function move(by: number) {
    const all = bench().readings
    const now = all.findIndex((r) => r.id === reading.value?.id)
    if (all.length) pick(all[(now + by + all.length) % all.length].id)
  }
  function again() {
    round.value = true
    pick(bench().readings[0].id)
  }
  /** A digit pressed anywhere begins the figure. */
  function begin(digit: string) {
    text.value += digit
    entry.value?.focus()
  }
  /** One more repeat of the same reading. */
  function another() {
    if (!text.value.trim() || !figure.value?.ok) return
    repeats.value.push(text.value.trim())
    text.value = ''
    entry.value?.focus()
  }
  /** `sure` answers the question about an odd figure. */
  async function write(sure = false) {
    if (pending.value && sure) return takeSent(pending.value, true)
    const typed = [...repeats.value, ...(text.value.trim() ? [text.value.trim()] : [])]
    if (!reading.value || !tool.value || !typed.length) return
    if (book.busy) {
      ahead.value = sending // Enter counts for the reading that is next, once the one before it is written
      return
    }
    const sent = text.value
    sending = true
    problem.value = question.value = text.value = '' // free at once for the next figure
    try {
      await book.write({
        kind: 'reading',
        step: bench().base.step,
        reading: reading.value.id,
        typed,
        unit: tool.value.unit,
        instrument: tool.value.id,
        state: taken.value.trim() || sitting.value || null,
        sure,
      })
      onward()
    } catch (error) {
      ahead.value = false
      text.value = sent
      if (onlyAsks(error)) question.value = error.message
      else problem.value = sentence(error)
    } finally {
      sending = false
    }
  }
  /** To the reading that is next: the first one missing, or in a round the one after this. */
  function onward() {
    const all = bench().readings
    const after = round.value ? all[all.findIndex((r) => r.id === picked.value) + 1] : undefined
    round.value = after !== undefined
    picked.value = after?.id ?? null
    const early = text.value
    const entered = ahead.value
    clear()
    text.value = early
    void nextTick(() => {
      entry.value?.focus()
      if (entered && early.trim()) void write()
    })
  }
  watch(
    () => bench().base.step,
    () => {
      sitting.value = ''
      round.value = false
      picked.value = null
      clear()
    },
  )
  return {
    readings,
    reading,
    tools,
    tool,
    toolPicked,
    text,
    repeats,
    taken,
    sitting,
    figure,
    question,
    problem,
    pick,
    move,
    again,
    begin,
    another,
    write,
    instrument,
    takeSent,
  }
}
