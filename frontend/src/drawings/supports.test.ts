import { describe, expect, it } from 'vitest'
import { looseMarks, planMarks, sideMarks, type Support } from './supports'

const at = (kind: string, x: number | null, y: number | null = 0.5, stays = true): Support => ({
  kind,
  carries: 'engine',
  x,
  y: x === null ? null : y,
  stays,
})
const same = (v: number) => v * 100

describe('what carries a load', () => {
  const supports = [
    at('stand', 0.3, 0.28),
    at('stand', 0.3, 0.72, false),
    at('jack', 0.32),
    at('jack', null),
    at('timber', 0.32),
    at('jack', 0.32),
    at('cradle', null),
  ]

  it('draws every support once, from the side and from above', () => {
    for (const marks of [sideMarks(supports), planMarks(supports, same, same)]) {
      const numbers = [...marks, ...looseMarks(supports, 0)].flatMap((m) => m.numbers)
      expect(numbers.sort()).toEqual([1, 2, 3, 4, 5, 6, 7])
    }
  })
  it('draws two of a kind at one place along the vehicle as one, unfit where one of them is', () => {
    const marks = sideMarks(supports)
    expect(marks[0]).toMatchObject({ numbers: [1, 2], stays: false, x: 0.3 })
    expect(marks.find((m) => m.kind === 'jack')?.numbers).toEqual([3, 6])
  })
  it('never lays one mark over another', () => {
    const gaps = (marks: { x: number; y: number }[], far: number, alone: boolean) =>
      marks.every((m, k) =>
        marks.slice(k + 1).every((n) => Math.abs(m.x - n.x) >= far || (!alone && Math.abs(m.y - n.y) >= far)),
      )
    expect(gaps(sideMarks(supports), 0.06, true)).toBe(true)
    expect(
      gaps(
        planMarks(
          supports,
          (x) => 30 + x * 580,
          (y) => 14 + y * 192,
        ),
        36,
        false,
      ),
    ).toBe(true)
    expect(gaps(looseMarks(supports, 20), 32, false)).toBe(true)
  })
  it('asks for the place along the vehicle where a unit stands apart', () => {
    expect(sideMarks([at('cradle', 0.17)], () => 0.985)[0].x).toBe(0.985)
  })
})
