import { describe, expect, it } from 'vitest'
import { PLACES } from './places'

const CASES: Record<string, string[][]> = {
  bores: ['1', '2', '3', '4'].flatMap((c) =>
    ['top', 'mid', 'low'].flatMap((d) => ['along', 'across'].map((a) => [c, d, a])),
  ),
  journals: ['1', '2', '3', '4', '5'].flatMap((c) =>
    ['front', 'rear'].flatMap((d) => ['upright', 'across'].map((a) => [c, d, a])),
  ),
  shells: ['1', '2', '3', '4'].flatMap((c) => ['upper', 'lower'].map((h) => [c, h])),
  cylinders: ['1', '2', '3', '4'].flatMap((c) => ['inlet', 'exhaust'].map((h) => [c, h])),
  round: ['1', '9', '17', '25', '33'].map((t) => [t]),
  corners: [['front left'], ['front right'], ['rear left'], ['rear right']],
  shafts: [['gearbox'], ['shaft'], ['axle']],
  links: [
    ['engine', 'minus'],
    ['body', 'minus'],
    ['dash', 'minus'],
  ],
  stack: [['A'], ['B'], ['piston crown']],
  flange: ['1', '2', '3', '4', '5', '6'].map((t) => [t]),
  belt: [['fan belt'], ['pump belt']],
  turning: [['pinion'], ['carrier']],
  curve: ['1000', '1500', '2000', '2500', '3000'].map((t) => [t]),
}

describe.each(Object.entries(CASES))('the drawing of %s', (name, all) => {
  const drawn = PLACES[name](all)
  it('gives every reading its own place inside the field', () => {
    expect(drawn.places).toHaveLength(all.length)
    for (const p of drawn.places) {
      expect(p.x - (p.w ?? 78) / 2).toBeGreaterThanOrEqual(-2)
      expect(p.x + (p.w ?? 78) / 2).toBeLessThanOrEqual(642)
      expect(p.y).toBeLessThan(drawn.height)
    }
  })
  it('lets no two boxes lie on each other', () => {
    for (const [i, a] of drawn.places.entries())
      for (const b of drawn.places.slice(i + 1))
        expect(Math.abs(a.x - b.x) >= Math.min(a.w ?? 78, b.w ?? 78) - 1 || Math.abs(a.y - b.y) >= 29).toBe(
          true,
        )
  })
})

describe('a curve', () => {
  const at = CASES.curve
  it('draws what was read, and only that', () => {
    const [first, second, third] = PLACES.curve(at, [10, null, 30, null, null]).places
    expect(first.y).toBeGreaterThan(third.y)
    expect(second.y).toBeGreaterThan(first.y)
    const [line] = PLACES.curve(at, [10, null, 30, null, null]).lines
    expect(line.match(/L/g)).toHaveLength(1)
    expect(PLACES.curve(at).lines).toEqual([])
  })
  it('holds more than forty degrees, and less than none', () => {
    for (const p of PLACES.curve(at, [-8, 12, 34, 52, 48]).places) {
      expect(p.y).toBeGreaterThan(0)
      expect(p.y).toBeLessThan(262)
    }
  })
})

describe('places by word', () => {
  it('puts left on the left, rear at the bottom', () => {
    const [fl, fr, rl] = PLACES.corners(CASES.corners).places
    expect(fl.x).toBeLessThan(fr.x)
    expect(rl.y).toBeGreaterThan(fl.y)
  })
  it('goes round clockwise from the top', () => {
    const [top, second] = PLACES.round([['a'], ['b'], ['c'], ['d']]).places
    expect(second.x).toBeGreaterThan(top.x)
    expect(second.y).toBeGreaterThan(top.y)
  })
})
