// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import type { BagLine } from '@/api/client'
import { server } from '@/testing'
import { useFasteners } from './fasteners'

const line = (count: number, size: string, own: Partial<BagLine> = {}): BagLine => ({
  count,
  size,
  length: null,
  odd: null,
  holes: null,
  ...own,
})

describe('the hand at the bag', () => {
  it('begins with what is proposed, and never changes the proposal', () => {
    const proposed = [line(4, 'M8')]
    const hand = useFasteners()
    hand.start(proposed)
    hand.count(2)
    expect([hand.pieces.value, proposed[0].count]).toEqual([2, 4])
  })
  it('takes like fasteners together, with all their holes, and unlike ones apart', () => {
    const hand = useFasteners()
    hand.start([line(2, 'M8', { holes: 'p1 p2' })])
    hand.add(line(1, 'M8', { holes: 'p3' }))
    hand.add(line(1, 'M8', { length: '35' }))
    hand.add(line(1, 'M8', { odd: 'shoulder' }))
    expect(hand.lines.value.map((l) => [l.count, l.holes])).toEqual([
      [3, 'p1 p2 p3'],
      [1, null],
      [1, null],
    ])
    expect(hand.at.value).toBe(2)
  })
  it('counts between none and five hundred, and keeps no line of none', () => {
    const hand = useFasteners()
    hand.start([line(1, 'M6'), line(1, 'M8')])
    hand.more(-5)
    expect(hand.kept.value.map((l) => l.size)).toEqual(['M8'])
    hand.count(9999)
    expect(hand.lines.value[0].count).toBe(500)
  })
  it('goes round with the arrows, and digits count the line in hand', () => {
    const hand = useFasteners()
    hand.start([line(1, 'M6'), line(1, 'M8')])
    const keys: Record<string, () => void> = hand.keys()
    keys.ArrowUp()
    keys['7']()
    keys.ArrowDown()
    keys['0']()
    keys['-']()
    expect(hand.lines.value.map((l) => l.count)).toEqual([9, 7])
  })
  it('with nothing in hand does nothing', () => {
    const hand = useFasteners()
    hand.start([])
    hand.more(1)
    hand.move(1)
    expect([hand.at.value, hand.pieces.value]).toEqual([0, 0])
  })
})

describe('a typed line', () => {
  it('goes in as the server read it, and the field is free', async () => {
    server({ status: 200, body: { ok: true, line: line(4, 'M8', { length: '25' }), words: '4 × M8×25' } })
    const hand = useFasteners()
    hand.start([])
    hand.type('4 m8x25')
    expect(await hand.take()).toBe(true)
    expect(hand.lines.value).toEqual([line(4, 'M8', { length: '25' })])
    expect(hand.text.value).toBe('')
  })
  it('that cannot be read stays in the field with the sentence', async () => {
    server({ status: 200, body: { ok: false, line: null, message: 'a count and a size, such as 4 m8x25' } })
    const hand = useFasteners()
    hand.start([])
    hand.type('rubbish')
    expect(await hand.take()).toBe(false)
    expect([hand.text.value, hand.reads.value?.ok]).toEqual(['rubbish', false])
  })
  it('stays where nobody answers', async () => {
    server('gone')
    const hand = useFasteners()
    hand.start([])
    hand.type('4 m8')
    expect(await hand.take()).toBe(false)
    expect(hand.text.value).toBe('4 m8')
  })
  it('of nothing is nothing to take', async () => {
    const { asked } = server('gone')
    expect(await useFasteners().take()).toBe(true)
    expect(asked).toEqual([])
  })
})
