import { describe, expect, it } from 'vitest'
import { arc, arrow, domainOf, fit, markPath, scale, whiskers } from './geometry'

const bar = (own: object) => ({ lo: null, hi: null, target: null, value: null, U: null, ...own })

describe('domainOf', () => {
  it('shows a little over half a band on each side of two limits', () => {
    const [low, high] = domainOf(bar({ lo: 10, hi: 20, value: 15 }))
    expect([low, high]).toEqual([4.5, 25.5])
  })
  it('starts at zero for one upper limit of something that starts there', () => {
    const [low, high] = domainOf(bar({ hi: 5, value: 2 }))
    expect(low).toBeLessThan(0)
    expect(high).toBe(9)
  })
  it('keeps a far value of one lower limit in sight', () => {
    const [low, high] = domainOf(bar({ lo: 50, value: 49, U: 0.1 }))
    expect(low).toBeLessThan(49)
    expect(high).toBeGreaterThan(50)
  })
  it('never collapses, not even for equal limits', () => {
    const [low, high] = domainOf(bar({ lo: 3, hi: 3, value: 3 }))
    expect(high).toBeGreaterThan(low)
  })
})

describe('scale', () => {
  it('puts the ends of the domain at the ends of the drawing', () => {
    const x = scale([2, 4], 100)
    expect([x(2), x(3), x(4)]).toEqual([0, 50, 100])
  })
})

describe('arc', () => {
  it('begins at the top and goes clockwise', () => {
    expect(arc(0, 0, 10, 0, 0.25)).toMatch(/^M0.00 -10.00 A10 10 0 0 1 10.00 -?0.00$/)
  })
  it('takes the long way round for more than half a turn', () => {
    expect(arc(0, 0, 10, 0, 0.75)).toContain(' 0 1 1 ')
  })
})

describe('fit', () => {
  it('keeps every bolt inside the box, the upper row above', () => {
    const places = fit(
      [
        { x: -1, y: 1 },
        { x: 1, y: 1 },
        { x: 0, y: -1 },
      ],
      200,
      100,
      10,
    )
    for (const p of places) {
      expect(p.x).toBeGreaterThanOrEqual(10)
      expect(p.x).toBeLessThanOrEqual(190)
    }
    expect(places[0].y).toBeLessThan(places[2].y)
  })
  it('puts a single row in the middle', () => {
    expect(
      fit(
        [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
        ],
        200,
        100,
        10,
      ).map((p) => p.y),
    ).toEqual([50, 50])
  })
})

describe('markPath', () => {
  it('draws a diamond for too close and an arrowhead for outside', () => {
    expect(markPath('too_close', 10)).toMatch(/^M0 -10.5/)
    expect(markPath('outside', 10)).toMatch(/^M-10 -10 L11 0/)
  })
})

describe('whiskers', () => {
  it('reach from end to end, with an upright at each', () => {
    expect(whiskers(10, 30, 50, 6)).toBe('M10 50 H30 M10 44 v12 M30 44 v12')
  })
  it('are a bare line where there is no room for uprights', () => {
    expect(whiskers(10, 30, 50, 0)).toBe('M10 50 H30')
  })
})

describe('arrow', () => {
  const a = { x: 0, y: 0 }
  const b = { x: 100, y: 0 }
  it('begins and ends outside its stations', () => {
    const { tip, d } = arrow(a, b, 14)
    expect(Math.hypot(tip.x - b.x, tip.y - b.y)).toBeCloseTo(17, 6)
    const [x, y] = d.slice(1).split(' Q')[0].split(' ').map(Number)
    expect(Math.hypot(x - a.x, y - a.y)).toBeCloseTo(15, 6)
  })
  it('there and back bow to different sides', () => {
    const bow = (way: string) => Number(way.split('Q')[1].split(' ')[1])
    expect(bow(arrow(a, b, 14).d)).toBe(12)
    expect(bow(arrow(b, a, 14).d)).toBe(-12)
  })
  it('is straight between neighbours, and points at its end', () => {
    const near = arrow(a, { x: 0, y: 40 }, 14)
    expect(near.tip.x).toBeCloseTo(0, 9)
    expect(near.turn).toBeCloseTo(90, 9)
  })
})
