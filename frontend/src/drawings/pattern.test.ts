import { describe, expect, it } from 'vitest'
import {
  centre,
  type DrawnBolt,
  heightOf,
  ink,
  labelAt,
  outline,
  placesOf,
  radius,
  ring,
  way,
  wedge,
  WIDTH,
} from './pattern'

const bolt = (number: number, x: number, y: number, own: Partial<DrawnBolt> = {}): DrawnBolt => ({
  number,
  x,
  y,
  stage: 0,
  stages: [],
  tightness: 'as found',
  verdict: '',
  side: null,
  gets: '',
  marked: false,
  locked: false,
  waits: false,
  recheck: false,
  ...own,
})
/** A head of ten: two rows of five, the exhaust side at y = 1. */
const HEAD = Array.from({ length: 10 }, (_, k) => bolt(k + 1, k % 5, k < 5 ? 1 : 0))

const circle = (n: number) =>
  Array.from({ length: n }, (_, k) =>
    bolt(k + 1, Math.sin((2 * Math.PI * k) / n), Math.cos((2 * Math.PI * k) / n)),
  )

describe('places', () => {
  it('keep left left and the far side up: the drawing is never a mirror of the part', () => {
    const at = placesOf(HEAD, false)
    expect(at[0].x).toBeLessThan(at[4].x)
    expect(at[0].y).toBeLessThan(at[5].y)
    expect(at[0].x).toBe(at[5].x)
  })
  it('stay on the drawing with their rings, few and many', () => {
    for (const [bolts, round] of [
      [HEAD, false],
      [circle(16), false],
      [circle(16), true],
      [circle(5), true],
      [[bolt(1, 0, 0), bolt(2, 1, 0)], false],
    ] as [DrawnBolt[], boolean][]) {
      const room = radius(bolts, round)
      for (const { x, y } of placesOf(bolts, round)) {
        expect(x - room).toBeGreaterThanOrEqual(0)
        expect(x + room).toBeLessThanOrEqual(WIDTH)
        expect(y - room).toBeGreaterThanOrEqual(0)
        expect(y + room).toBeLessThanOrEqual(heightOf(round))
      }
    }
    expect(radius(HEAD, false)).toBe(31)
    expect(radius(circle(16), false)).toBe(20)
  })
  it('of a circle lie on a circle, the first at the top, and no two touch', () => {
    for (const n of [3, 4, 5, 6, 8, 10, 12, 16, 24]) {
      const bolts = circle(n)
      const at = placesOf(bolts, true)
      expect(at[0].y).toBe(Math.min(...at.map((p) => p.y)))
      at.forEach((p, k) => {
        const next = at[(k + 1) % n]
        const apart = Math.hypot(p.x - next.x, p.y - next.y)
        expect(apart).toBeCloseTo(Math.hypot(at[0].x - at[1].x, at[0].y - at[1].y), 6)
        expect(apart).toBeGreaterThan(2 * radius(bolts, true))
      })
    }
  })
  it('of two wheels lie on two circles of one size, side by side', () => {
    const two = [...circle(5), ...circle(5).map((b) => ({ ...b, number: b.number + 5, x: b.x + 2.6 }))]
    const at = placesOf(two, true)
    for (const wheel of [at.slice(0, 5), at.slice(5)]) {
      const x = wheel.reduce((sum, p) => sum + p.x, 0) / 5
      const y = wheel.reduce((sum, p) => sum + p.y, 0) / 5
      const far = wheel.map((p) => Math.hypot(p.x - x, p.y - y))
      for (const one of far) expect(one).toBeCloseTo(far[0], 6)
    }
    expect(radius(two, true)).toBeGreaterThan(20)
    for (const p of at) expect(Math.min(p.x, WIDTH - p.x)).toBeGreaterThan(radius(two, true))
  })
  it('lie inside the outline of the part', () => {
    for (const round of [false, true]) {
      const at = placesOf(HEAD, false)
      const body = outline(at, round)
      for (const { x, y } of at) {
        expect(x).toBeGreaterThan(body.x)
        expect(x).toBeLessThan(body.x + body.w)
        expect(y).toBeGreaterThan(body.y)
        expect(y).toBeLessThan(body.y + body.h)
      }
    }
  })
})

describe('the way to the next bolt', () => {
  it('begins and ends short of both, in a straight line', () => {
    expect(way({ x: 0, y: 10 }, { x: 200, y: 10 })).toBe('M40 10 L144 10')
    expect(way({ x: 0, y: 200 }, { x: 0, y: 0 })).toBe('M0 160 L0 56')
  })
  it('is not drawn from nowhere, to nowhere, or on the spot', () => {
    expect(way(undefined, { x: 0, y: 0 })).toBe('')
    expect(way({ x: 0, y: 0 }, undefined)).toBe('')
    expect(way({ x: 5, y: 5 }, { x: 5, y: 5 })).toBe('')
  })
})

describe('a bolt', () => {
  const at = { x: 100, y: 100 }
  it('has a piece of ring for each stage, dark up to the stage it has, red where it was outside', () => {
    const pieces = ring(bolt(1, 0, 0, { stage: 2, stages: ['inside', 'outside'] }), at, 30, 3)
    expect(pieces.map((p) => p.colour)).toEqual(['var(--ink)', 'var(--out)', 'var(--hair)'])
    expect(new Set(pieces.map((p) => p.d)).size).toBe(3)
  })
  it('with one stage has a whole ring', () => {
    expect(ring(bolt(1, 0, 0), at, 30, 1)[0].d).toContain('A30 30 0 1 1')
  })
  it.each([
    [{ stage: 1 }, false, 1, 'var(--ink)', 'var(--now)'],
    [{ stage: 0 }, false, 1, 'var(--now)', 'var(--ink)'],
    [{ stage: 1 }, false, 2, 'var(--now)', 'var(--ink)'],
    [{ stage: 2 }, false, null, 'var(--ink)', 'var(--now)'],
    [{ stage: 0 }, false, null, 'var(--now)', 'var(--ink)'],
    [{ stage: 2, verdict: 'outside' }, false, null, 'var(--now)', 'var(--out)'],
    [{ stage: 2, verdict: 'outside' }, true, 1, 'var(--yel)', 'var(--onyel)'],
  ])('%o, in hand %s, at stage %s is filled %s and written in %s', (own, hand, stage, fill, colour) => {
    expect(centre(bolt(1, 0, 0, own), hand, stage)).toBe(fill)
    expect(ink(bolt(1, 0, 0, own), hand, stage)).toBe(colour)
  })
  it('has its figure away from the middle of the part', () => {
    expect(labelAt(at, 31, true, false).y).toBe(43)
    expect(labelAt(at, 31, false, false).y).toBe(173)
    expect(labelAt({ x: 442, y: 190 }, 31, true, true).x).toBe(523)
  })
  it('by hand is drawn a quarter round, about its own middle', () => {
    expect(wedge(at, 27, 0.25)).toBe('M100.00 80.00 A20 20 0 0 1 120.00 100.00 L100 100 Z')
  })
})
