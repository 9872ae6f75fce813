// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { useMoving } from '@/composables/moving'
import { stage } from '@/testing'
import MovingBlock from './MovingBlock.vue'
import MovingPad from './MovingPad.vue'
import WatchForm from './WatchForm.vue'

const { page, settled, set, written } = stage()

beforeEach(set)

const voice = (who: string, missing: boolean) => ({
  who,
  point: `${who} watches`,
  said: missing ? 'not yet said' : 'clear',
  verdict: missing ? 'not_read' : 'inside',
  missing,
  at: '',
})
const MOVING = {
  title: 'Last: down 20. Stopped, looking',
  last: 'down',
  last_by: '20',
  back: 'up',
  voices: [voice('MK', false), voice('RT', true)],
  next_voice: 'RT',
  to_go: [{ way: 'down', left: 98, unit: 'mm', there: false, known: true }],
  gap: { who: 'MK', between: 'sump', mm: 6, U: 2, least: 5, verdict: 'too_close', words: 'too close' },
  more_gaps: 1,
  open: ['up'],
  shut: 'shut till RT has spoken',
  at_once: false,
}
const hand = (moving: object) =>
  useMoving(
    () => 'engine_in',
    () => moving as Schemas['MovingFacts'],
  )
const pad = (own: object = {}) => {
  const moving = { ...MOVING, ...own }
  return page(MovingPad, { moving, hand: hand(moving) })
}

describe('the pad of moves', () => {
  it('draws shut keys as metal, and says what opens them', () => {
    const shown = pad()
    const metal = shown.all('.pad button.metal').map((b) => b.textContent.replace(/\W+.*$/s, ''))
    expect(metal).toHaveLength(5)
    expect(shown.text()).toContain('Moves: shut till RT has spoken')
    expect(shown.text()).toContain('too close, at least 5, and 1 more')
    shown.leave()
  })
  it('a shut key can still be pressed: the core says why', async () => {
    const shown = pad()
    shown.all('.pad button')[4]?.click()
    await settled()
    expect(written).toEqual([{ kind: 'unit moved', step: 'engine_in', way: 'down', by: '' }])
    shown.leave()
  })
  it('its large button is the next voice, then the same again', async () => {
    const shown = pad()
    shown.button('RT says clear').click()
    await settled()
    shown.leave()
    const again = pad({ next_voice: null, at_once: true })
    again.button('Again: down 20, all clear').click()
    await settled()
    expect(written).toEqual([
      { kind: 'clear said', step: 'engine_in', watcher: 'RT' },
      { kind: 'unit moved', step: 'engine_in', way: 'down', by: '20', clear: true },
    ])
    again.leave()
  })
  it('a touch is told by whoever saw it', async () => {
    const shown = pad()
    shown.button('It touches').click()
    await settled()
    shown.type('touch-where', ' sump lip ')
    shown.button('RT says so').click()
    await settled()
    expect(written).toEqual([{ kind: 'touched', step: 'engine_in', watcher: 'RT', where: 'sump lip' }])
    shown.leave()
  })
})

it('half in on purpose is told with what it is for and what holds it', async () => {
  const shown = pad()
  shown.button('Half in, on purpose').click()
  await settled()
  shown.type('half-why', 'starter and earth ')
  shown.type('half-held', 'timber under the bell')
  shown.root.querySelector('form')?.dispatchEvent(new Event('submit'))
  await settled()
  const told = { why: 'starter and earth', held: 'timber under the bell' }
  expect(written).toEqual([{ kind: 'half said', step: 'engine_in', ...told }])
  shown.leave()
  const half = { ...told, who: 'MK', since: '2026-03-01T09:00:00Z' }
  const stood = page(MovingBlock, { moving: { ...MOVING, half }, hand: hand(MOVING), live: true })
  expect(stood.text()).toContain('Held by timber under the bell')
  stood.leave()
})

describe('the voices', () => {
  it('show who is missing, and take a gap with the way that widens it', async () => {
    const shown = page(MovingBlock, { moving: MOVING, hand: hand(MOVING), live: true })
    expect(shown.all('.voices .now').map((li) => li.querySelector('.who')?.textContent)).toEqual(['RT'])
    expect(shown.text()).toContain('98 mm')
    shown.all('.voices button')[3]?.click()
    await settled()
    shown.type('gap', '7')
    shown.type('gap-where', 'sump')
    shown.all('[aria-label="Wider by"] button')[1]?.click()
    shown.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(written).toEqual([
      { kind: 'clear said', step: 'engine_in', watcher: 'RT', gap: '7', between: 'sump', widens: 'up' },
    ])
    shown.leave()
  })
  it('of a unit that is in are words alone', () => {
    const shown = page(MovingBlock, { moving: MOVING, hand: hand(MOVING), live: false })
    expect(shown.all('button')).toHaveLength(0)
    shown.leave()
  })
})

it('watchers are named with one point each before the first move', async () => {
  const people = [
    { role: 'at the hoist', does: 'moves on a word' },
    { role: 'front', does: 'watches the sump' },
  ]
  const form = page(WatchForm, { step: 'engine_in', people })
  form.type('watch-who-0', 'MK')
  form.type('watch-who-1', '')
  form.type('watch-word', 'MK')
  form.type('watch-down', '118')
  form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
  await settled()
  expect(written[0]).toEqual({
    kind: 'watch said',
    step: 'engine_in',
    watchers: [{ who: 'MK', point: 'at the hoist: moves on a word' }],
    word: 'MK',
    down: '118',
    along: '',
    side: '',
    nose: '',
    least: '5',
  })
  form.leave()
})
