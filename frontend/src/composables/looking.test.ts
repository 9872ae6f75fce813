// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Entry, Schemas } from '@/api/client'
import { useBook } from '@/stores/book'
import { screen } from '@/testing'
import { GRADES, useLooking } from './looking'

const NOON = new Date('2030-05-01T12:00:00Z')
const LOOK = { id: 'l1', fluid: 'fuel', began: NOON.toISOString(), hold_s: 120 }
const PLACES = [
  { id: 'oil:cover', fluid: 'oil', cleared: false },
  { id: 'fuel:old', fluid: 'fuel', cleared: true },
  { id: 'fuel:union', fluid: 'fuel', cleared: false },
]
const view = (looking: object[] = [LOOK], places: object[] = PLACES) =>
  ({ looking, places }) as unknown as Schemas['LeaksView']
const scope = effectScope()
const hand = (shown: Schemas['LeaksView'] | null = view()) => scope.run(() => useLooking(() => shown))!
let written: Entry[]

beforeEach(() => {
  vi.useFakeTimers({ now: NOON })
  screen()
  setActivePinia(createPinia())
  written = []
  vi.spyOn(useBook(), 'act').mockImplementation(async (entry: Entry) => (written.push(entry), true))
})
afterEach(() => vi.useRealTimers())

describe('a look under pressure', () => {
  it('lasts by the clock of the server', () => {
    useBook().ahead = 3000
    const { seconds, left } = hand()
    vi.advanceTimersByTime(63_000)
    expect(seconds.value).toBeCloseTo(60, 0)
    expect(left.value).toBeCloseTo(60, 0)
    vi.advanceTimersByTime(600_000)
    expect(left.value).toBe(0)
  })
  it('is at the first place of its own system that is not cleared', () => {
    expect(hand().place.value?.id).toBe('fuel:union')
    expect(hand(view([])).place.value?.id).toBe('oil:cover')
    expect(hand(null).place.value).toBeNull()
  })
  it('writes what is seen there, in this look', async () => {
    await hand().seen('run')
    expect(written).toEqual([
      { kind: 'leak seen', fluid: 'fuel', place: 'fuel:union', grade: 'run', sure: 'certain', look: 'l1' },
    ])
    await hand(view([LOOK], [])).seen('run')
    expect(written).toHaveLength(1) // no place is in hand: nothing is guessed
  })
  it('ends by one act, and says nothing of what else was wet', async () => {
    await hand().off()
    await hand().off(true)
    expect(written).toEqual([
      { kind: 'look ended', look: 'l1', clean: false },
      { kind: 'look ended', look: 'l1', clean: true },
    ])
    await hand(view([])).off()
    expect(written).toHaveLength(2)
  })
})

it('no digit says how wet it is, and no letter twice', () => {
  const letters = GRADES.map(([, , letter]) => letter)
  expect(letters.every((letter) => /^[A-Z]$/.test(letter))).toBe(true)
  expect(new Set(letters).size).toBe(letters.length)
  expect(GRADES.map(([grade]) => grade)).toEqual(['dry', 'damp', 'drop', 'run', 'stream'])
})
