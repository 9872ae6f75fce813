import { describe, expect, it } from 'vitest'
import { about, MOST_TRIES, next, sendable } from './stepper'

describe('next', () => {
  it('is sent only by a good status and a body that is an answer', () => {
    expect(next({ tries: 0 }, { status: 200, readable: true })).toEqual({ do: 'sent' })
    expect(next({ tries: 0 }, { status: 200, readable: false }).do).toBe('again')
  })
  it('tries for ever while nothing answers, with growing pauses up to half a minute', () => {
    const pauses = [0, 1, 4, 9].map((tries) => next({ tries }, { status: null, readable: false }))
    expect(pauses.every((p) => p.do === 'again')).toBe(true)
    expect(pauses.map((p) => (p.do === 'again' ? p.pause : 0))).toEqual([1000, 2000, 16000, 30000])
  })
  it.each([408, 429, 500, 503])('tries %i five times, then needs a person', (status) => {
    let tries = 0
    for (let k = 1; k < MOST_TRIES; k++) {
      const step = next({ tries }, { status, readable: true })
      expect(step.do).toBe('again')
      if (step.do === 'again') tries = step.tries
    }
    expect(next({ tries }, { status, readable: true })).toEqual({ do: 'person' })
  })
  it.each([400, 401, 403, 404, 409, 413, 422, 501])('gives %i to a person at once', (status) => {
    expect(next({ tries: 0 }, { status, readable: true })).toEqual({ do: 'person' })
  })
})

describe('sendable', () => {
  const item = (id: string, on: string, refused: string | null = null) => ({ id, about: on, refused })
  it('holds only what is about the same as a refused one, and keeps the order', () => {
    const items = [item('1', 'a'), item('2', 'b', 'moved on'), item('3', 'b'), item('4', 'c')]
    expect(sendable(items).map((x) => x.id)).toEqual(['1', '4'])
  })
  it('tells readings and faces of one step apart, bolts of one joint not', () => {
    expect(about('x', { kind: 'reading', step: 's', reading: 'a' })).not.toBe(
      about('x', { kind: 'reading', step: 's', reading: 'b' }),
    )
    expect(about('x', { kind: 'finding', step: 's', part: 'p', face: 'a' })).not.toBe(
      about('x', { kind: 'finding', step: 's', part: 'p', face: 'b' }),
    )
    expect(about('x', { kind: 'fastener', step: 's', bolt: 5 })).toBe(
      about('x', { kind: 'fastener', step: 's', bolt: 6 }),
    )
  })
})
