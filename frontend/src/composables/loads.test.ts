// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import type { SupportDesk } from '@/api/client'
import { putIn, saidAgain, stands } from './loads'

const KNOWN = {
  id: 'box_out-gearbox-jack-1',
  kind: 'jack',
  carries: 'gearbox',
  point: 'gearbox tail',
  padding: 'timber',
  ground: 'hard',
  rated: { value: '500', unit: 'kg', typed: '500 kg' },
} as unknown as SupportDesk['map']['supports'][number]

describe('what carries it', () => {
  it('is taken away as that very support, with all that was known of it', () => {
    expect(saidAgain(KNOWN, true)).toEqual({
      kind: 'supported',
      support: 'box_out-gearbox-jack-1',
      support_kind: 'jack',
      carries: 'gearbox',
      point: 'gearbox tail',
      padding: 'timber',
      ground: 'hard',
      rated: '500 kg',
      step: null,
      gone: true,
    })
    expect(saidAgain({ ...KNOWN, rated: null }, false)).toMatchObject({ rated: null, gone: false })
  })
  it('put in is a new one each time, and blanks are no padding', () => {
    const said = {
      support_kind: 'stand',
      carries: 'vehicle',
      point: 'frame, front left',
      ground: 'hard',
    } as const
    const [one, two] = [putIn({ ...said, padding: '  ' }), putIn(said)]
    expect(one.support).not.toBe(two.support)
    expect([one.padding, two.padding, one.gone, one.rated]).toEqual([null, null, false, null])
  })
})

describe('the vehicle', () => {
  it('has one thing said of it, and nothing of the others', () => {
    expect(stands({ rolls: false })).toEqual({
      kind: 'vehicle stands',
      rolls: false,
      steers: null,
      brakes: null,
      starts: null,
      bay: null,
    })
    expect(stands({ ground: 'hard' }).ground).toBe('hard')
  })
})
