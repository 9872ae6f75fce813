// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { ref } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Entry, TightenBenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { useJournal } from '@/stores/journal'
import type { Waiting } from '@/stores/queue'
import { screen } from '@/testing'
import type { Question } from './asking'
import { useBoltActs, useBolts } from './bolts'

const JOINT = {
  name: 'Head',
  final: false,
  to_mark: false,
  to_lock: null,
  waits: null as string | null,
  next_bolt: 3 as number | null,
  next_stage: 2 as number | null,
  ahead: [3, 4, 5],
  last_bolt: 2 as number | null,
  bolts: [2, 2, 1, 1, 1].map((stage, k) => ({ number: k + 1, stage })),
}
const SETTING = { turns: false, set_to: 60, figure: '60' }
type Own = {
  joint?: Partial<typeof JOINT>
  setting?: Partial<typeof SETTING> | null
  wide?: string
  reads?: boolean
}
const bench = ({ joint, setting, ...own }: Own = {}) =>
  ({
    base: { step: 'head_bolts' },
    joint: { ...JOINT, ...joint },
    setting: setting === null ? null : { ...SETTING, ...setting },
    wide: null,
    reads: false,
    bolt_keys: ['the maker says so'],
    ...own,
  }) as unknown as TightenBenchView
const hand = (own: Own = {}) => useBolts(() => bench(own))
const waiting = (bolt: number, refused: string | null = null) =>
  ({
    id: `w${bolt}`,
    build: 'b',
    refused,
    entry: { kind: 'fastener', step: 'head_bolts', bolt },
  }) as unknown as Waiting
let written: Entry[]

beforeEach(() => {
  screen()
  setActivePinia(createPinia())
  written = []
  vi.spyOn(useBook(), 'act').mockImplementation(async (entry: Entry) => (written.push(entry), true))
  useBook().card = { id: 'b' } as never
})

describe('the bolt in hand', () => {
  it('is the one that the core names', () => {
    const { next, title, say, ready, blocked } = hand()
    expect([next.value, title.value, ready.value, blocked.value]).toEqual([3, 'Bolt 3, stage 2', true, false])
    expect(say.value).toBe('Bolt 3, stage 2, 60 newton metres')
    expect(hand({ setting: { turns: true, figure: '90' } }).say.value).toContain('90 degrees')
  })
  it('is the next of its list when one waits to be saved, also when that was refused', () => {
    useJournal().waiting = [waiting(3)]
    expect(hand().next.value).toBe(4)
    useJournal().waiting = [waiting(3, 'somebody was before'), waiting(4)]
    expect(hand().next.value).toBe(5)
  })
  it('is none when all that follow wait: nothing more until they are saved', () => {
    useJournal().waiting = [3, 4, 5].map((bolt) => waiting(bolt))
    const { next, title, ready, blocked } = hand()
    expect([next.value, ready.value, blocked.value]).toEqual([null, false, true])
    expect(title.value).toBe('3 bolts wait to be saved: nothing more until they are')
  })
  it('of another step or build is no business of this one', () => {
    useJournal().waiting = [{ ...waiting(3), build: 'other' }]
    expect(hand().next.value).toBe(3)
  })
  it.each([
    ['no wrench is chosen', { setting: { set_to: null as never } }],
    ['the wrench is too wide', { wide: 'W3 holds ±6 %' }],
    ['the wrench shows what it reads', { reads: true }],
  ])('waits for the hand where %s', (_, own) => {
    expect(hand(own).ready.value).toBe(false)
  })
  it('is ready for its angle with any wrench, for its mark, and when all is final', () => {
    expect(hand({ setting: { turns: true, set_to: null as never } }).ready.value).toBe(true)
    const mark = hand({ joint: { to_mark: true }, wide: 'W3 holds ±6 %' })
    expect([mark.ready.value, mark.title.value]).toEqual([true, 'Bolt 3: mark it'])
    const final = hand({ joint: { final: true, next_bolt: null, next_stage: null } })
    expect([final.ready.value, final.blocked.value, final.title.value]).toEqual([true, false, 'Head: final'])
  })
  it('says what the joint waits for', () => {
    const own = { next_bolt: null, next_stage: null, waits: 'ride height' }
    expect(hand({ joint: own }).title.value).toBe('ride height')
    expect(hand({ joint: { ...own, waits: null } }).title.value).toBe('Head')
  })
})

describe('a press on a bolt', () => {
  let asked: Question[]
  const acts = (own: Own = {}, reason = '') => {
    asked = []
    const shown = bench(own)
    const inHand = { next: ref(shown.joint.next_bolt), stage: ref(shown.joint.next_stage) }
    const ask = async (question: Question) => (asked.push(question), reason)
    return useBoltActs(
      () => shown,
      inHand as never,
      () => ({ ask }),
    )
  }
  const of = (bolt: number, own: object) => ({ kind: 'fastener', step: 'head_bolts', bolt, ...own })

  it('clicks the bolt in hand at its stage, or marks it; none when none is', async () => {
    await acts().confirm()
    await acts({ joint: { to_mark: true } }).confirm()
    await acts({ joint: { next_bolt: null } }).confirm()
    expect(written).toEqual([of(3, { act: 'clicked', stage: 2 }), of(3, { act: 'marked' })])
  })
  it('puts one right at its own stage, not at that of the bolt in hand', async () => {
    await acts().again(5)
    expect(written).toEqual([of(5, { act: 'clicked', stage: 1, note: 'put right' })])
  })
  it('checks the one pulled last, and says whether it moved', async () => {
    await acts().checkAgain(true)
    await acts().checkAgain(false)
    await acts({ joint: { last_bolt: null } }).checkAgain(true)
    expect(written.map((entry) => 'note' in entry && [entry.note])).toEqual([
      ['checked again, it moved before the click'],
      ['checked again, it clicked without moving'],
    ])
    expect(written[0]).toMatchObject({ bolt: 2, stage: 2 })
  })
  it('takes one out of order at the stage in hand, said on purpose', async () => {
    await acts().outOfOrder(5)
    expect(written).toEqual([of(5, { act: 'clicked', stage: 2, note: 'out of order', sure: true })])
  })
  it('says in which state it is', async () => {
    await acts().state(4, 'loosened again')
    expect(written).toEqual([of(4, { act: 'state', tightness: 'loosened again' })])
  })
  it('leaves one as it is only with a reason', async () => {
    await acts({}, '').passOver(4)
    expect(written).toEqual([])
    await acts({}, 'the maker says so').passOver(4)
    expect(asked[0]).toMatchObject({ title: 'Leave bolt 4 as it is', keys: ['the maker says so'], least: 10 })
    expect(written).toEqual([
      {
        kind: 'decision',
        step: 'head_bolts',
        about: 'pass_over',
        bolt: 4,
        stage: 1,
        reason: 'the maker says so',
      },
    ])
  })
})
