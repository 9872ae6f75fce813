// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { effectScope, ref } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Entry, Refusal, type RunBenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { screen } from '@/testing'
import { useAttempt } from './attempt'
import { useSamples } from './samples'

const NOON = new Date('2030-05-01T12:00:00Z')
const at = (seconds: number) => new Date(NOON.getTime() + seconds * 1000).toISOString()
const bench = (own: object) =>
  ({ base: { step: 'crank' }, running: null, rest: null, ...own }) as unknown as RunBenchView
const attempt = (own: object = {}) => ({
  id: 'a1',
  started: NOON.toISOString(),
  limit_s: 15,
  deadlines: [] as object[],
  stop: null,
  stop_at: null,
  ...own,
})
const scope = effectScope()
const watched = (shown: RunBenchView) => scope.run(() => useAttempt(() => shown))!
const after = (seconds: number) => vi.advanceTimersByTime(seconds * 1000)

beforeEach(() => {
  vi.useFakeTimers({ now: NOON })
  screen()
  setActivePinia(createPinia())
})
afterEach(() => vi.useRealTimers())

describe('the clock of a running engine', () => {
  it('goes by the server, however far this screen is ahead of it', () => {
    useBook().ahead = 2000
    const { clock, left } = watched(bench({ running: attempt() }))
    expect(clock.value).toBe(0) // never below nothing
    after(5)
    expect(clock.value).toBeCloseTo(3, 1)
    expect(left.value).toBeCloseTo(12, 1)
    after(60)
    expect(left.value).toBe(0)
  })
  it('says STOP as soon as a deadline is past and nothing was entered', () => {
    const pressure = { at_s: 8, asked_from: null, met: false, reason: 'No oil pressure' }
    const { stop, since } = watched(bench({ running: attempt({ deadlines: [pressure] }) }))
    after(7.9)
    expect(stop.value).toBeNull()
    after(0.1)
    expect([stop.value, since.value]).toEqual(['No oil pressure', 8])
  })
  it('never for one that is met, and never later than the core said', () => {
    const met = { at_s: 8, asked_from: null, met: true, reason: 'No oil pressure' }
    const own = attempt({ deadlines: [met], stop: 'Fuel leak', stop_at: 4 })
    const { stop, since } = watched(bench({ running: own }))
    after(20)
    expect([stop.value, since.value]).toEqual(['Fuel leak', 4])
  })
  it('asks for a figure again before it is too old, and no longer when it is', () => {
    const stale = { at_s: 20, asked_from: 15, met: false, reason: 'No reading' }
    const { readAgain } = watched(bench({ running: attempt({ deadlines: [stale] }) }))
    after(14)
    expect(readAgain.value).toBeNull()
    after(1)
    expect(readAgain.value).toMatchObject({ at_s: 20 })
    after(5)
    expect(readAgain.value).toBeNull()
  })
  it('counts down the rest of the starter, and not while it runs', () => {
    const rest = { rest_s: 60, since: NOON.toISOString() }
    const { resting } = watched(bench({ rest }))
    after(20)
    expect(resting.value).toBeCloseTo(40, 1)
    after(60)
    expect(resting.value).toBe(0)
    expect(watched(bench({ rest, running: attempt({ started: at(80) }) })).resting.value).toBe(0)
  })
})

describe('a sample', () => {
  const problem = ref('')
  const clock = ref(3.14)
  const read = (shown = bench({ running: attempt() })) => useSamples(() => shown, clock, problem)
  let written: Entry[]
  let answer: () => Promise<boolean>
  beforeEach(() => {
    written = []
    problem.value = ''
    answer = async () => true
    vi.spyOn(useBook(), 'write').mockImplementation((entry: Entry) => (written.push(entry), answer()))
  })
  it('takes what is typed, and frees the fields at once', async () => {
    const { typed, state, sample } = read()
    Object.assign(typed, { rpm: '250', oil: '1.2' })
    state.vacuum = 'hose off'
    const sent = sample({ seen: 'noise' })
    expect(typed).toEqual({ rpm: '', oil: '', coolant: '', timing: '' })
    await sent
    expect(written).toEqual([
      {
        kind: 'samples',
        step: 'crank',
        attempt: 'a1',
        samples: [
          { t: 3.1, rpm: '250', oil: '1.2', coolant: null, timing: null, timing_state: null, seen: 'noise' },
        ],
      },
    ])
  })
  it('says the state of the advance only with a timing', async () => {
    const { typed, state, sample } = read()
    state.vacuum = 'hose off'
    typed.timing = '12'
    await sample()
    expect(written[0]).toMatchObject({ samples: [{ timing: '12', timing_state: 'hose off' }] })
  })
  it('that was refused stays typed, but never over what was typed since', async () => {
    const { typed, sample } = read()
    Object.assign(typed, { rpm: '250', oil: '1.2' })
    answer = async () => {
      typed.oil = '1.4'
      throw new Refusal({ reason_code: 'x', message: 'no such unit' }, 422)
    }
    await sample()
    expect(typed).toMatchObject({ rpm: '250', oil: '1.4' })
    expect(problem.value).toBe('no such unit')
  })
  it('that could not be kept stays typed; one that waits does not', async () => {
    const { typed, sample } = read()
    typed.oil = '1.2'
    answer = async () => false
    await sample()
    expect(typed.oil).toBe('')
    typed.oil = '1.3'
    answer = () => Promise.reject(new Error('this device is full'))
    await sample()
    expect(typed.oil).toBe('1.3')
  })
  it('is none while nothing runs', async () => {
    await read(bench({})).sample({ lamp_out: true })
    expect(written).toEqual([])
  })
})
