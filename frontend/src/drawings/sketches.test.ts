import { describe, expect, it } from 'vitest'
import { DRAWN as FAMILIES } from './families'
import { DRAWN as TERMS } from './terms'

const NEEDS: Record<string, number> = { M: 2, L: 2, H: 1, V: 1, A: 7, Q: 4, T: 2, C: 6, Z: 0 }
const COMMAND = /([A-Za-z])([^A-Za-z]*)/g
const numbers = (text: string) => (text.match(/-?\d*\.?\d+/g) ?? []).map(Number)

/** The points that a path comes to, its curves by their ends; throws where a command lacks a figure. */
function points(d: string): [number, number][] {
  const found: [number, number][] = []
  let [x, y] = [0, 0]
  let start: [number, number] = [0, 0]
  for (const [, letter, rest] of d.matchAll(COMMAND)) {
    const upper = letter.toUpperCase()
    const given = numbers(rest)
    const size = NEEDS[upper]
    if (size === undefined || (size ? given.length === 0 || given.length % size : given.length))
      throw new Error(`${letter}${rest} in ${d}`)
    const relative = letter !== upper
    if (upper === 'Z') [x, y] = start
    for (let at = 0; at < given.length; at += size) {
      const part = given.slice(at, at + size)
      const [dx, dy] = relative ? [x, y] : [0, 0]
      if (upper === 'H') x = dx + part[0]
      else if (upper === 'V') y = dy + part[0]
      else [x, y] = [dx + part[size - 2], dy + part[size - 1]]
      if (upper === 'M' && at === 0) start = [x, y]
      found.push([x, y])
    }
  }
  return found
}

describe.each([
  ['family of sums', FAMILIES, 200, 120],
  ['term of a finding', TERMS, 120, 80],
] as const)('the sketch of each %s', (_, drawn, width, height) => {
  it.each(Object.entries(drawn))('%s can be drawn, and stays in its field', (_name, sketch) => {
    const paths = Object.values(sketch as Record<string, string>)
    expect(paths.length).toBeGreaterThan(0)
    for (const [x, y] of paths.flatMap(points)) {
      expect(x).toBeGreaterThanOrEqual(0)
      expect(x).toBeLessThanOrEqual(width)
      expect(y).toBeGreaterThanOrEqual(0)
      expect(y).toBeLessThanOrEqual(height)
    }
  })
  it('is like no other', () => {
    const all = Object.values(drawn).map((sketch) => JSON.stringify(sketch))
    expect(new Set(all).size).toBe(all.length)
  })
})

describe('a path that cannot be drawn', () => {
  it.each(['M10', 'L1 2 3', 'M1 2 H', 'X1 2'])('%s is seen', (d) => {
    expect(() => points(d)).toThrow()
  })
})
