import { describe, expect, it } from 'vitest'
import { blockOf, ghostsOf, type EveningIn, fitted, LETTER, type SlugIn } from './evenings'
import { outline } from './outlines'

const slug = (id: string, start: number, end: number, more: Partial<SlugIn> = {}): SlugIn => ({
  id,
  name: `Work ${id}`,
  words: 'One 1 h',
  number: '6.14',
  start,
  end,
  people: 1,
  chain: false,
  now: false,
  ...more,
})
const evening = (
  key: string,
  minutes: number,
  slugs: SlugIn[],
  more: Partial<EveningIn> = {},
): EveningIn => ({
  key,
  minutes,
  gap: '',
  slugs,
  people: [],
  comes: [],
  ...more,
})
const EIGHT = Array.from({ length: 8 }, (_, k) =>
  evening(`${k}`, k % 3 ? 150 : 360, [slug(`${k}a`, 0, 60), slug(`${k}b`, 60, 130)], {
    gap: k === 4 ? '2 days without work' : '',
    people: k === 3 ? [{ words: 'RT 10 to 13', start: 60, end: 240, perhaps: true }] : [],
    comes: k === 5 ? [{ words: 'shaft', open_end: false }] : [],
  }),
)

describe('the block of evenings', () => {
  it('keeps every slug inside its slot, and slots apart', () => {
    const block = blockOf(EIGHT, [], 784)
    for (const [k, slot] of block.slots.entries()) {
      for (const s of slot.slugs) {
        expect(s.x).toBeGreaterThanOrEqual(slot.x)
        expect(s.x + s.w).toBeLessThanOrEqual(slot.x + slot.w)
        expect(s.y + s.h).toBeLessThanOrEqual(slot.y + slot.h)
      }
      const next = block.slots[k + 1]
      if (next) expect(next.y).toBeGreaterThan(slot.y + slot.h)
    }
    expect(block.height).toBeGreaterThan(block.slots[7].y + block.slots[7].h)
  })
  it('fits the longest evening into its width', () => {
    for (const width of [390, 660, 784]) {
      const block = blockOf(EIGHT, [], width)
      expect(Math.max(...block.slots.map((s) => s.x + s.w))).toBeLessThanOrEqual(width)
      expect(block.perHour).toBeLessThanOrEqual(150)
    }
  })
  it('lets no name leave its slug', () => {
    for (const name of ['Head bolts', 'Oil pressure switch: back on', 'Fan'])
      for (let wide = 4; wide < 300; wide += 7) {
        const words = fitted(name, '6.14', wide)
        expect(words.length * LETTER).toBeLessThanOrEqual(Math.max(0, wide - 18) + LETTER)
      }
    expect(fitted('Head bolts from bolt six', '6.14', 60)).toBe('6.14')
    expect(fitted('Head bolts', '6.14', 20)).toBe('')
  })
  it('gives work for two more height, since it fits nowhere else', () => {
    const block = blockOf([evening('a', 120, [slug('x', 0, 60), slug('y', 60, 120, { people: 2 })])], [], 784)
    const [alone, two] = block.slots[0].slugs
    expect(two.h).toBeGreaterThan(alone.h)
  })
  it('runs galleries down beside the slots, no two in one lane at once', () => {
    const runs = [
      { from_slug: '0a', to_slug: '4a', words: 'sealant', chain: false },
      { from_slug: '1a', to_slug: '3a', words: 'paint', chain: true },
      { from_slug: '5a', to_slug: '7b', words: 'made', chain: false },
    ]
    const { galleries, slots } = blockOf(EIGHT, runs, 784)
    expect(galleries).toHaveLength(3)
    expect(galleries[0].x).not.toBe(galleries[1].x)
    const right = (from: number, to: number) => Math.max(...slots.slice(from, to + 1).map((s) => s.x + s.w))
    expect(galleries[0].x).toBeGreaterThan(right(0, 4))
    expect(galleries[2].x).toBeGreaterThan(right(5, 7))
  })
  it('draws no gallery within one evening, nor to a slug that is not shown', () => {
    const runs = [
      { from_slug: '0a', to_slug: '0b', words: 'an hour', chain: false },
      { from_slug: '0a', to_slug: 'later', words: 'a week', chain: false },
    ]
    expect(blockOf(EIGHT, runs, 784).galleries).toEqual([])
  })
})

describe('where a slug stood', () => {
  const block = blockOf(EIGHT, [], 784)
  it('lies in its own evening, as wide as its time', () => {
    const slot = block.slots[2]
    const [ghost] = ghostsOf(block, [{ evening: slot.key, start: 30, end: 90 }])
    expect(ghost.x).toBeCloseTo(slot.x + block.perHour / 2, 6)
    expect(ghost.w).toBeCloseTo(block.perHour, 6)
    expect(ghost.y).toBeGreaterThanOrEqual(slot.y)
    expect(ghost.y + ghost.h).toBeLessThanOrEqual(slot.y + slot.h)
  })
  it('is left out where its evening is not drawn', () => {
    expect(ghostsOf(block, [{ evening: 'another', start: 0, end: 60 }])).toEqual([])
  })
})

describe('silhouettes of parts', () => {
  const SHAPES = ['pipe', 'bolt', 'shaft', 'disc', 'hose', 'seal', 'gasket', 'box', 'anything']
  const numbers = (path: string) => [...path.matchAll(/-?\d+(?:\.\d+)?/g)].map((m) => Number(m[0]))
  it.each(SHAPES)('%s begins and ends where the part does', (shape) => {
    for (const end of [60, 300, 560]) {
      const path = outline(shape, 20, end, 54)
      expect(path.endsWith('Z')).toBe(true)
      expect(path).not.toContain('NaN')
      const xs = numbers(path)
      expect(Math.max(...xs)).toBeCloseTo(end, 6)
      expect(path).toContain('M20')
    }
  })
})
