/** What is read while an engine runs: the fields, and writing one sample; what was refused stays typed. */
import { reactive, type Ref } from 'vue'
import { type RunBenchView, sentence } from '@/api/client'
import { useBook } from '@/stores/book'

export type Seen = 'fire' | 'fuel leak' | 'leak' | 'noise' | 'smoke' | 'glow'
/** Each has a letter, never a digit: digits are the figure on the gauge. */
export const SENSES: readonly (readonly [Seen, string, string])[] = [
  ['fire', 'Flames', 'X'],
  ['fuel leak', 'Fuel leak', 'F'],
  ['leak', 'Leak', 'L'],
  ['noise', 'Noise', 'N'],
  ['smoke', 'Smoke', 'M'],
  ['glow', 'Glow', 'G'],
]
interface Extra {
  lamp_out?: boolean
  seen?: Seen
  oil?: string
  as_typed?: boolean
}

/** `clock` is the time since the start in seconds. */
export function useSamples(bench: () => RunBenchView, clock: Ref<number>, problem: Ref<string>) {
  const book = useBook()
  const typed = reactive({ rpm: '', oil: '', coolant: '', timing: '' })
  const state = reactive({ vacuum: '' }) // of the advance, as the timing was read

  async function sample(extra: Extra = {}) {
    const { running, base } = bench()
    if (!running) return
    problem.value = ''
    const sent = { ...typed }
    const one = {
      t: Number(clock.value.toFixed(1)),
      rpm: sent.rpm || null,
      oil: sent.oil || null,
      coolant: sent.coolant || null,
      timing: sent.timing || null,
      timing_state: sent.timing && state.vacuum ? state.vacuum : null,
      ...extra,
    }
    typed.rpm = typed.oil = typed.coolant = typed.timing = '' // free at once for the next figure
    const back = () => {
      for (const field of ['rpm', 'oil', 'coolant', 'timing'] as const) typed[field] ||= sent[field]
    }
    try {
      const entry = { kind: 'samples' as const, step: base.step, attempt: running.id, samples: [one] }
      await book.write(entry)
    } catch (error) {
      back()
      problem.value = sentence(error)
    }
  }
  return { typed, state, sample }
}
