import { describe, expect, it } from 'vitest'
import type { BookFrame } from '@/api/client'
import { gateOf, rowsOf, strandsOf, tallOf } from './rows'

const step = (k: number, stage: string) => ({
  id: `s${k}`,
  number: `2.0${k}`,
  short: `Step ${k}`,
  stage,
  look: 'open',
})
const open = (id: string, own: object = {}) => ({
  id,
  stage: 'take_down',
  step: null,
  since: '2030-05-01',
  blocks: 'fire',
  shuts: true,
  ...own,
})
const FRAME = {
  current: 's5',
  stages: [
    { id: 'plan', name: 'Plan', done: 1, total: 1 },
    { id: 'take_down', name: 'Take down', done: 4, total: 9 },
    { id: 'inspect', name: 'Inspect', done: 0, total: 0 },
    { id: 'wake', name: 'Wake', done: 0, total: 3 },
  ],
  steps: [...Array(9).keys()].map((k) => step(k + 1, 'take_down')),
  left_open: [] as object[],
  rungs: { crank: 'crank', fire: 'fire', nothing: 'nothing' },
}
const frame = (own: object = {}) => ({ ...FRAME, ...own }) as unknown as BookFrame
const ids = (rows: { id: string }[]) => rows.map((row) => row.id)

describe('the rows of the strip', () => {
  it('fold every stage but the one that is open, and show five of its steps round the one in hand', () => {
    const rows = rowsOf(frame(), 'take_down', 's5', false)
    expect(ids(rows)).toEqual(['plan', 'take_down', 's3', 's4', 's5', 's6', 's7', 'inspect', 'wake'])
    expect(rows.filter((row) => row.now).map((row) => row.id)).toEqual(['s5'])
  })
  it.each([
    ['s1', ['s1', 's2', 's3', 's4', 's5']],
    ['s9', ['s5', 's6', 's7', 's8', 's9']],
    ['elsewhere', ['s1', 's2', 's3', 's4', 's5']],
  ])('with %s in hand show a whole five', (here, shown) => {
    expect(ids(rowsOf(frame(), 'take_down', here, false).filter((r) => r.type === 'step'))).toEqual(shown)
  })
  it('show all when asked to, and the current step while none is on the screen', () => {
    expect(rowsOf(frame(), 'take_down', 's5', true)).toHaveLength(13)
    const rows = rowsOf(frame(), 'take_down', null, false)
    expect(ids(rows)).toContain('s7')
    expect(rows.some((row) => row.now)).toBe(false)
  })
  it('say how far each stage is: a stage without steps is never done', () => {
    const state = Object.fromEntries(
      rowsOf(frame(), 'wake', null, false).map((row) => [row.id, [row.state, row.count]]),
    )
    expect(state.plan).toEqual(['done', undefined])
    expect(state.take_down).toEqual(['begun', '4/9'])
    expect(state.inspect).toEqual(['todo', undefined])
    expect(state.wake).toEqual(['open', '0/3'])
  })
  it('lie one below the other, none upon another', () => {
    const rows = rowsOf(frame(), 'take_down', 's5', true)
    rows.slice(1).forEach((row, k) => expect(row.y).toBe(rows[k].y + rows[k].h))
    expect(tallOf(rows)).toBe(rows.at(-1)!.y + rows.at(-1)!.h)
  })
})

describe('the strands', () => {
  const rows = rowsOf(frame(), 'take_down', 's5', false)
  const strands = (...items: object[]) => strandsOf(frame({ left_open: items }), rows)
  const middle = (id: string) => {
    const row = rows.find((r) => r.id === id)!
    return row.y + row.h / 2
  }
  it('begin at the step, or at its stage when the step is folded away, and end at the gate', () => {
    const [at, folded] = strands(open('a', { step: 's4' }), open('b', { step: 's1', blocks: 'crank' }))
    expect(at.y).toBe(middle('s4') - 9)
    expect(folded.y).toBe(middle('take_down'))
    expect(folded.end).toBe(gateOf(rows))
    expect(at.end).toBe(gateOf(rows) + 5)
    expect(gateOf(rows)).toBe(middle('wake'))
  })
  it('are the six oldest of those that shut a rung, side by side, every other one dashed', () => {
    const items = [...Array(8).keys()].map((k) => open(`i${k}`, { since: `2030-05-0${9 - k}` }))
    const drawn = strands(...items, open('note', { shuts: false, since: '2030-01-01' }))
    expect(ids(drawn)).toEqual(['i7', 'i6', 'i5', 'i4', 'i3', 'i2'])
    expect(drawn.map((s) => s.dashed)).toEqual([false, true, false, true, false, true])
    expect(new Set(drawn.map((s) => s.x)).size).toBe(6)
  })
  it('of a build without that stage end at the foot', () => {
    expect(gateOf(rows.slice(0, 3))).toBe(tallOf(rows.slice(0, 3)))
  })
})
