import { describe, expect, it } from 'vitest'
import { pathOf, scaled, ticks } from './track'

describe('a course on a fixed scale', () => {
  it('lies between its ends, and runs off a little at most', () => {
    expect(scaled(45, 0, 90, 0, 576)).toBe(288)
    expect(scaled(80, 60, 160, 234, 0)).toBeCloseTo(187.2)
    expect(scaled(900, 0, 90, 0, 100)).toBeCloseTo(110)
    expect(scaled(5, 3, 3, 7, 9)).toBe(7)
  })
  it('has round figures at its side', () => {
    expect(ticks(0, 108)).toEqual([0, 30, 60, 90])
    expect(ticks(61, 168)).toEqual([90, 120, 150])
    expect(ticks(0, 1)).toEqual([0, 0.2, 0.4, 0.6, 0.8, 1])
  })
  it('is one path', () => {
    const same = (v: number) => v
    expect(
      pathOf(
        [
          [0, 1],
          [2.25, 3],
        ],
        same,
        same,
      ),
    ).toBe('M0.0 1.0 L2.3 3.0')
    expect(pathOf([], same, same)).toBe('')
  })
})
