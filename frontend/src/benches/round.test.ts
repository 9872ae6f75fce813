// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import type { Plugin } from 'vue'
import { beforeEach, describe, expect, it } from 'vitest'
import { stage } from '@/testing'
import TieLine from '@/shell/TieLine.vue'
import RunSheet from './RunSheet.vue'
import SweepBlock from './SweepBlock.vue'

const frame: Plugin = {
  install(app) {
    app.component('RouterLink', { template: '<a><slot /></a>' })
  },
}
const { page, settled, set, written } = stage(frame)
beforeEach(set)

const row = (about: string, choices: string[], own: object = {}) => ({
  about,
  name: about,
  word: '',
  t: null,
  stops: false,
  leads: [],
  choices,
  ...own,
})
const ATTEMPT = {
  id: 'a1',
  told: [
    row('idle', ['steady', 'hunts'], { word: 'hunts', t: 5 }),
    row('response', ['at once', 'spits back', 'pings']),
    row('noise', ['none', 'heard'], { word: 'heard: once', leads: ['clonk: mount'] }),
  ],
}
const NOISES = [
  { rhythm: 'each turn', places: ['low', 'mid'] },
  { rhythm: 'once', places: ['under the floor'] },
]
const sheet = (clock: number | null) =>
  page(RunSheet, { attempt: ATTEMPT, step: 's', clock, noises: NOISES, clips: [] })

describe('the run sheet', () => {
  it('tells by one press while it runs, with its second, and shows what was told', async () => {
    const form = sheet(7.26)
    expect(form.button('Idle hunts').getAttribute('aria-pressed')).toBe('true')
    form.button('Spits').click()
    await settled()
    expect(written).toMatchObject([{ kind: 'run told', about: 'response', word: 'spits back', t: 7.3 }])
    expect(form.text()).toContain('clonk: mount')
    form.leave()
  })
  it('asks a noise for its rhythm, then for a place of that rhythm', async () => {
    const form = sheet(null)
    form.button('heard').click()
    await settled()
    expect(written).toEqual([])
    form.button('each turn').click()
    await settled()
    expect(form.text()).not.toContain('under the floor')
    form.button('mid').click()
    await settled()
    expect(written).toMatchObject([{ word: 'heard', rhythm: 'each turn', place: 'mid', t: null }])
    form.leave()
  })
})

const thing = (id: string, found = '') => ({ id, what: id, good: 'free', bad: 'trapped', found })
const TIE = {
  item: 'plug',
  what: 'Upper plug',
  number: '2.16',
  state: 'back',
  tucked: 'behind the pump',
  label: '7',
  alike: 'the lower plug',
  kept: ['Plugs: brown'],
  words: 'back, not proven',
  unproven: true,
}
const SWEEP = {
  title: '2 things to look at',
  places: [
    { name: 'Front', left: 0, wrong: 0, things: [thing('a', 'right')] },
    { name: 'Below', left: 2, wrong: 0, things: [thing('b'), thing('c')] },
  ],
  ties: [TIE],
}

describe('the walk round', () => {
  it('stands at the first place that is left, and takes a thing or the whole place', async () => {
    const walk = page(SweepBlock, { sweep: SWEEP, step: 'walk', settled: false })
    walk.button('trapped').click()
    await settled()
    walk.button('all 2 seen here now').click()
    await settled()
    expect(written).toMatchObject([
      { kind: 'swept', things: ['b'], found: 'wrong' },
      { kind: 'swept', things: ['b', 'c'], found: 'right' },
    ])
    walk.leave()
  })
  it('is only read once its step is settled', () => {
    const walk = page(SweepBlock, { sweep: SWEEP, step: 'walk', settled: true })
    expect(walk.all('li')).toHaveLength(0)
    walk.leave()
  })
})

describe('a line of the register', () => {
  it('shows what tells it apart, and is proven with words where it is wrong', async () => {
    const line = page(TieLine, { row: TIE, build: 'b' })
    expect(line.text()).toContain('Looks like the lower plug')
    expect(line.text()).toContain('Kept: Plugs: brown')
    line.type('tie-words', 'brown and white')
    line.button('Not right').click()
    await settled()
    const wrong = { kind: 'tie proven', item: 'plug', how: 'seen', right: false, words: 'brown and white' }
    expect(written).toEqual([wrong])
    line.leave()
  })
  it('that is off offers no proof', () => {
    const line = page(TieLine, { row: { ...TIE, state: 'off', unproven: false }, build: 'b' })
    expect(line.all('button')).toHaveLength(1)
    line.leave()
  })
})
