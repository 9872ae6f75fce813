// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { createMemoryHistory, createRouter } from 'vue-router'
import { type Component } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Entry } from '@/api/client'
import { mounted, screen, server } from '@/testing'
import { useBook } from '@/stores/book'
import FaultsView from './FaultsView.vue'
import LeaksView from './LeaksView.vue'
import RecordView from './RecordView.vue'
import SettleView from './SettleView.vue'

// the frame round a desk is looked at elsewhere
const bare = vi.hoisted(() => ({ default: { template: '<main><slot name="nav" /><slot /></main>' } }))
vi.mock('@/shell/WorkFrame.vue', () => bare)

const nowhere = { template: '<p />' }
const pinia = createPinia()
const settled = () => new Promise((done) => setTimeout(done, 20))
let written: Entry[]

async function desk(view: Component, body: unknown) {
  const served = server({ status: 200, body })
  const names = ['step', 'again', 'record', 'gate', 'settle', 'last']
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      ...names.map((name) => ({ path: `/${name}/:build?/:step?`, name, component: nowhere })),
      { path: '/:rest(.*)*', name: 'any', component: nowhere },
    ],
  })
  await router.push('/')
  const page = mounted(view, { build: 'b' }, [pinia, router])
  await settled()
  return { page, router, served }
}

beforeEach(() => {
  setActivePinia(pinia)
  screen()
  vi.restoreAllMocks()
  written = []
  const keep = async (entry: Entry) => (written.push(entry), true)
  vi.spyOn(useBook(), 'write').mockImplementation(keep)
  vi.spyOn(useBook(), 'act').mockImplementation(keep)
})

const TEST = {
  id: 'by_hand',
  do: 'turn it by hand',
  before: ['plugs out', 'eyes covered'],
  engine: 'still',
  reading: false,
  answers: ['turns easily', 'stiff'],
  held: '',
}
const FAULT = {
  id: 'f1',
  symptom: 'no_crank',
  name: 'The starter does not turn the engine',
  words: 'a click',
  ended: '',
  stopped: [] as object[],
  stops: [{ when: 'a thud', then: 'no starter' }],
  causes: [
    { id: 'battery', what: 'battery flat', proof: 'volts', sort: 'age' },
    { id: 'tight', what: 'tight', proof: 'by hand', sort: 'changed in the rebuild' },
  ],
  tests: [TEST, { ...TEST, id: 'posts', engine: 'crank', held: 'Crank is shut' }],
  tested: [],
  go: null as string | null,
  against: '',
}
const faults = (own: object = {}) => ({
  title: 'The starter does not turn the engine: 2 causes left',
  faults: [{ ...FAULT, ...own }],
  suspects: ['Battery lead off'],
  groups: [{ name: 'Crank', symptoms: [{ id: 'no_crank', name: 'It does not turn' }] }],
})

describe('what is wrong', () => {
  it('answers open once everything is seen, and go with what was seen', async () => {
    const { page } = await desk(FaultsView, faults())
    expect(page.text()).toContain('Battery lead off')
    const stiff = page.button('Stiff') as HTMLButtonElement
    expect(stiff.disabled).toBe(true)
    page.button('Plugs out').click()
    page.button('Eyes covered').click()
    await settled()
    stiff.click()
    await settled()
    expect(written).toEqual([
      { kind: 'fault tested', fault: 'f1', test: 'by_hand', answer: 1, figure: '', seen: TEST.before },
    ])
    page.leave()
  })
  it('what waits is said with its reason', async () => {
    const { page } = await desk(FaultsView, faults())
    expect(page.text()).toContain('1 tests wait')
    expect(page.text()).toContain('Crank is shut')
    page.leave()
  })
  it('is stopped by one press', async () => {
    const { page } = await desk(FaultsView, faults())
    page.button('A thud').click()
    await settled()
    expect(written).toEqual([{ kind: 'fault stop', fault: 'f1', stop: 0 }])
    page.leave()
  })
  it('a cause is found with what was done', async () => {
    const { page } = await desk(FaultsView, faults())
    page.all('.causes button')[0]?.click()
    await settled()
    page.type('fault-done', 'charged, cranks at 10.4 V')
    page.root.querySelector('.found')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(written[0]).toMatchObject({ cause: 'battery', what: '', done: 'charged, cranks at 10.4 V' })
    page.leave()
  })
  it('points to another symptom, and begins with none', async () => {
    const { page } = await desk(FaultsView, faults({ go: 'no_gear' }))
    page.button('Follow it up').click()
    await settled()
    expect(written[0]).toMatchObject({ kind: 'symptom said', symptom: 'no_gear' })
    page.leave()
    const none = await desk(FaultsView, { ...faults(), faults: [] })
    none.page.type('fault-words', 'cold, a click')
    none.page.button('It does not turn').click()
    await settled()
    expect(written[1]).toMatchObject({ symptom: 'no_crank', words: 'cold, a click' })
    none.page.leave()
  })
})

const CREEP = {
  reading: 'a',
  name: 'Rear left',
  step: 'again_h',
  unit: 'mm',
  points: [
    { entry: 'e1', km: 0, days: 0, value: 412, when: '' },
    { entry: 'e2', km: 60, days: 1, value: 407, when: '' },
  ],
  word: 'creeps',
  verdict: 'too_close',
  detail: '−5 in 60 km, rests within 1',
  lo: 380,
  hi: 420,
  aim: null,
  within: 1,
}
const SETTLE = {
  title: 'Rear left creeps',
  creeps: [CREEP],
  figures: [
    { id: 'a', name: 'Rear left, again', about: 'standing', step: 'again_h', first: '412', now: '407' },
  ].map((row) => ({ ...row, first_value: 412, bar: null, word: 'other state', detail: '', repeated: true })),
  fit: [
    { id: 'roll', name: 'Roll', fit: true, why: '' },
    { id: 'tow', name: 'Tow', fit: false, why: 'U-bolts' },
  ],
  due: [{ id: 'j', what: 'U-bolts', how: '', step: 's9', when: 'at 80 km', due: true, left: '', share: 1.1 }],
  next: { id: 'j', what: 'U-bolts', step: 's9' },
  complaints: [],
  snags: [],
}

describe('settling', () => {
  it('draws the step between two readings, and says what opens the next place', async () => {
    const { page } = await desk(SettleView, SETTLE)
    expect(page.text()).toContain('−5 in 60 km, rests within 1')
    expect(page.all('svg text').map((t) => t.textContent.trim())).toContain('−5')
    expect(page.text()).toContain('Tow: U-bolts')
    expect(page.text()).toContain('other state')
    page.leave()
  })
  it('goes to what is due first', async () => {
    const { page, router } = await desk(SettleView, SETTLE)
    page.button('U-bolts').click()
    await settled()
    expect(router.currentRoute.value.params).toMatchObject({ step: 's9' })
    page.leave()
  })
  it('with nothing due says so', async () => {
    const { page } = await desk(SettleView, { ...SETTLE, due: [], next: null })
    expect(page.text()).toContain('Nothing is due on this build')
    page.leave()
  })
})

describe('the record', () => {
  const view = (title: string) => ({
    title,
    settled: false,
    about: 'MK',
    sections: [
      { title: 'Open', rows: [{ what: 'U-bolts', small: '', right: 'shuts drive' }], none: '' },
      { title: 'Accepted in writing', rows: [], none: 'nothing' },
    ],
  })
  it('says what there is none of, and is asked anew for the owner', async () => {
    const { page, served } = await desk(RecordView, view('Not settled: 1 open'))
    expect(page.text()).toContain('nothing')
    served.then({ status: 200, body: view('For the owner') })
    page.button('For the owner').click()
    await settled()
    expect(page.text()).toContain('For the owner')
    expect(page.root.querySelector('a[target]')?.getAttribute('href')).toContain('owner=true')
    page.leave()
  })
})

describe('fluids and leaks', () => {
  const LEAKS = {
    title: 'Fuel: what do you see?',
    looking: [
      {
        id: 'l1',
        fluid: 'fuel',
        name: 'Fuel',
        began: new Date().toISOString(),
        hold_s: 120,
        way: 'pressed',
        heat: 'cold',
        pressure: '2.4 bar',
        caution: 'No spark',
        off: 'Pump off',
        clean: '',
      },
    ],
    places: [],
    unplaced: [],
    rows: [],
    systems: [],
    joints: [],
    rungs: [],
  }
  it('under pressure the act that ends it is there, and dry all over is not yet', async () => {
    const { page } = await desk(LeaksView, LEAKS)
    expect(page.text()).toContain('No spark')
    expect(page.all('button').some((b) => b.textContent.includes('Nothing else wet'))).toBe(false)
    page.button('Pump off').click()
    await settled()
    expect(written).toEqual([{ kind: 'look ended', look: 'l1', clean: false }])
    page.leave()
  })
  it('it burns: the pump is off, and three lines say what now', async () => {
    const { page } = await desk(LeaksView, LEAKS)
    page.button('It burns').click()
    await settled()
    expect(written.map((entry) => entry.kind)).toEqual(['look ended', 'stopped'])
    expect(page.root.querySelector('.burns')?.textContent).toContain('Everybody out')
    page.leave()
  })
})
