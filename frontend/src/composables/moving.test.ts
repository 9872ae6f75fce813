// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { type Entry, Refusal, type Schemas } from '@/api/client'
import { useBook } from '@/stores/book'
import { screen } from '@/testing'
import { PAD, useMoving } from './moving'

type Moving = Schemas['MovingFacts']
const now = (own: Partial<Moving> = {}) =>
  ({ next_voice: null, at_once: false, last: 'down', last_by: '20', ...own }) as Moving
let written: Entry[]
const hand = (moving: Moving | null = now()) =>
  useMoving(
    () => 'engine_in',
    () => moving,
  )

beforeEach(() => {
  screen()
  setActivePinia(createPinia())
  written = []
  vi.spyOn(useBook(), 'write').mockImplementation(async (entry: Entry) => (written.push(entry), true))
})

describe('a move', () => {
  it('takes the digits before its arrow, and the amount holds', async () => {
    const own = hand()
    own.digit('2')
    own.digit('0')
    expect(own.typed.value).toBe('20')
    await own.moved('down')
    expect(own.typed.value).toBe('')
    await own.moved('in')
    expect(written).toEqual([
      { kind: 'unit moved', step: 'engine_in', way: 'down', by: '20' },
      { kind: 'unit moved', step: 'engine_in', way: 'in', by: '20' },
    ])
  })
  it('needs no amount, and the nose goes by one degree', async () => {
    const own = hand()
    await own.moved('down')
    await own.moved('nose up')
    expect(written.map((entry) => ('by' in entry ? entry.by : null))).toEqual(['', '1'])
  })
  it('that is refused keeps its digits, says why, and may be told all the same', async () => {
    const why = { refuse: true, reason_code: 'moves_shut', message: 'down: shut', field: 'way', asks: true }
    vi.spyOn(useBook(), 'write').mockRejectedValue(new Refusal(why as never, 422))
    const own = hand()
    own.digit('5')
    await own.moved('down')
    expect([own.typed.value, own.problem.value, own.asks.value]).toEqual(['5', 'down: shut', true])
    expect(own.held.value).toBe('down')
  })
  it('never takes more digits than a move has', () => {
    const own = hand()
    for (const digit of '12345678') own.digit(digit)
    expect(own.typed.value).toBe('12345')
  })
})

describe('the primary key', () => {
  it('is the next missing voice', async () => {
    await hand(now({ next_voice: 'RT', at_once: true })).next()
    expect(written).toEqual([{ kind: 'clear said', step: 'engine_in', watcher: 'RT' }])
  })
  it('is the same move once more and all clear, where one word is enough', async () => {
    const own = hand(now({ at_once: true }))
    await own.next()
    expect(written).toEqual([{ kind: 'unit moved', step: 'engine_in', way: 'down', by: '20', clear: true }])
  })
  it('is nothing where neither holds', async () => {
    await hand().next()
    await hand(null).next()
    expect(written).toEqual([])
  })
})

it('a gap and a touch are told with their place', async () => {
  const own = hand()
  await own.clear('JB', { gap: '6', between: 'sump', widens: 'up' })
  await own.touched('RT', 'column')
  expect(written).toEqual([
    { kind: 'clear said', step: 'engine_in', watcher: 'JB', gap: '6', between: 'sump', widens: 'up' },
    { kind: 'touched', step: 'engine_in', watcher: 'RT', where: 'column' },
  ])
})

it('every way has one key, up above down', () => {
  const ways = PAD.map(([way]) => way)
  expect(new Set(ways).size).toBe(6)
  expect(ways.indexOf('down') - ways.indexOf('up')).toBe(3)
})
