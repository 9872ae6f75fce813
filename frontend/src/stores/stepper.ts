/** What becomes of a kept entry after one try to send it. Pure: no clock, no network, no storage. */

export interface Tried {
  /** How often the server answered, and the answer was none that tells anything. */
  tries: number
}
/** The answer to one try: its status (null when nothing came back), and whether its body could be read. */
export interface Answered {
  status: number | null
  readable: boolean
}
export type Step = { do: 'sent' } | { do: 'again'; tries: number; pause: number } | { do: 'person' }

export const MOST_TRIES = 5
const FIRST_PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 30_000
const MAY_PASS = [408, 429, 500, 502, 503, 504]

const pause = (tries: number) => Math.min(FIRST_PAUSE_MS * 2 ** tries, LONGEST_PAUSE_MS)

/**
 * Sent; tried again after a pause that grows (without an answer for ever, else five times); or it needs a
 * person, who writes it
 * again or drops it. Nothing is dropped without one.
 */
export function next(state: Tried, answer: Answered): Step {
  const { status, readable } = answer
  if (status !== null && status < 300 && readable) return { do: 'sent' }
  if (status === null) return { do: 'again', tries: state.tries, pause: pause(state.tries) }
  if (!readable || MAY_PASS.includes(status)) {
    const tries = state.tries + 1
    return tries < MOST_TRIES ? { do: 'again', tries, pause: pause(tries) } : { do: 'person' }
  }
  return { do: 'person' }
}

/** What an entry is about, so that only entries about the same wait for each other. */
export function about(build: string, entry: { kind: string } & Record<string, unknown>): string {
  const named = [
    'reading',
    'attempt',
    'item',
    'support',
    'photo',
    'capture',
    'setting',
    'bag',
    'removal',
    'figure',
    'sound',
    'clip',
  ].find((key) => typeof entry[key] === 'string' || typeof entry[key] === 'number')
  const face = typeof entry.face === 'string' ? `${String(entry.part)}/${String(entry.face)}` : ''
  return [
    build,
    typeof entry.step === 'string' ? entry.step : '',
    named ? String(entry[named]) : '',
    face,
  ].join('|')
}

export interface Queued {
  id: string
  about: string
  refused: string | null
}
/**
 * Those that may be sent now, in order: everything that does not wait behind a refused one about the same.
 */
export function sendable<T extends Queued>(items: readonly T[]): T[] {
  const held = new Set<string>()
  return items.filter((item) => {
    if (item.refused !== null) held.add(item.about)
    return item.refused === null && !held.has(item.about)
  })
}
