// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refusal } from '@/api/client'
import { stage } from '@/testing'
import { useBook } from '@/stores/book'
import ComplaintBlock from './ComplaintBlock.vue'
import FluidTable from './FluidTable.vue'
import LookForm from './LookForm.vue'
import MendRow from './MendRow.vue'
import SnagBlock from './SnagBlock.vue'
import WetForm from './WetForm.vue'

const { page, settled, set, written } = stage()
const refusing = (reason_code: string, message: string, asks = false) => {
  const why = { refuse: true, reason_code, message, field: 'how', asks }
  vi.spyOn(useBook(), 'write').mockRejectedValue(new Refusal(why as never, 422))
}

beforeEach(set)

const SYSTEM = {
  kind: 'fuel',
  press: 'pump on',
  off: 'Pump off',
  clean: 'dry twice',
  needs: ['No spark', 'Extinguisher'],
  again: ['at once'],
  before: 'tank clean',
  cycle: 'pump on',
  air: 'loud',
  done: 'held',
  ruins: 'dry pump',
  safe: null,
}
const ROW = {
  fluid: 'fuel',
  name: 'Fuel',
  grade: '',
  filled: 'done',
  primed: 'at',
  bled: 'none',
  level: 'to come',
  empty: null,
  amounts: '20 in',
  words: '',
  shuts: 'fire',
  free: 3,
  dry_at: '',
  bleeding: { cycles: 0, last: [], words: 'not bled yet', bled: false, stop: false },
}
const VIEW = {
  title: '',
  looking: [] as object[],
  places: [],
  unplaced: [],
  rows: [ROW],
  systems: [SYSTEM, { ...SYSTEM, kind: 'oil', needs: ['Hands clear'] }],
  joints: [
    { id: 'flare', name: 'Flare' },
    { id: 'other', name: 'Something else' },
  ],
  rungs: ['power on', 'crank', 'fuel on', 'fire', 'run on', 'gear', 'drive'],
}

describe('a look begins', () => {
  it('only once each thing is pressed, and says which', async () => {
    const form = page(LookForm, { view: VIEW })
    const begin = form.button('It is up: look now') as HTMLButtonElement
    expect(begin.disabled).toBe(true)
    form.button('No spark').click()
    await settled()
    expect(begin.disabled).toBe(true)
    form.button('Extinguisher').click()
    await settled()
    expect(form.text()).toContain('Press first what is so now: under pressure or running; cold or hot.')
    form.button('Under pressure').click()
    form.button('Cold').click()
    await settled()
    form.type('look-pressure', '2.4 bar')
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(written).toEqual([
      {
        kind: 'look begun',
        fluid: 'fuel',
        seen: ['No spark', 'Extinguisher'],
        way: 'pressed',
        heat: 'cold',
        pressure: '2.4 bar',
        temperature: '',
      },
    ])
    form.leave()
  })
  it('anew for another system: what was seen for one says nothing of the other', async () => {
    const form = page(LookForm, { view: VIEW })
    form.button('No spark').click()
    form.button('Extinguisher').click()
    form.button('oil').click()
    await settled()
    expect((form.button('It is up: look now') as HTMLButtonElement).disabled).toBe(true)
    expect(form.text()).toContain('cold or hot; Hands clear')
    form.leave()
  })
  it('hot is read where nothing ran', async () => {
    refusing('not_hot', 'read it there')
    const form = page(LookForm, { view: VIEW })
    expect(form.root.querySelector('[name=look-temperature]')).toBeNull()
    form.button('Under pressure').click()
    form.button('Hot').click()
    await settled()
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(form.text()).toContain('read it there')
    const write = vi.spyOn(useBook(), 'write').mockResolvedValue(true)
    await form.type('look-temperature', '78')
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(write.mock.calls.at(-1)?.[0]).toMatchObject({ heat: 'hot', temperature: '78' })
    form.leave()
  })
})

describe('a wet place', () => {
  it('is named with its joint and how wet it is, in the look of its fluid', async () => {
    const looking = [{ id: 'l1', fluid: 'fuel' }]
    const form = page(WetForm, { view: { ...VIEW, looking }, attempt: null })
    form.type('leak-name', ' Union 2 ')
    form.type('leak-joint', 'flare')
    form.type('leak-sure', 'likely')
    form.button('Drips').click()
    await settled()
    expect(written[0]).toEqual({
      kind: 'leak seen',
      fluid: 'fuel',
      grade: 'drop',
      name: 'Union 2',
      joint: 'flare',
      sure: 'likely',
      look: 'l1',
      attempt: null,
    })
    form.leave()
  })
  it('of another fluid is not in that look', async () => {
    const looking = [{ id: 'l1', fluid: 'fuel' }]
    const form = page(WetForm, { view: { ...VIEW, looking }, attempt: 'a1' })
    form.type('leak-fluid', 'oil')
    form.button('Runs').click()
    await settled()
    expect(written[0]).toMatchObject({ fluid: 'oil', look: null, attempt: 'a1' })
    form.leave()
  })
  it('that is refused keeps its name', async () => {
    refusing('no_words', 'name the place')
    const form = page(WetForm, { view: VIEW, attempt: null })
    form.type('leak-name', 'x')
    form.button('Damp').click()
    await settled()
    expect(form.root.querySelector<HTMLInputElement>('[name="leak-name"]')?.value).toBe('x')
    expect(form.text()).toContain('name the place')
    form.leave()
  })
})

const PLACE = { id: 'fuel:u', name: 'U', sort: 'Flare', most: 60, used: 30, may_nip: true, then: 'apart' }

describe('a leak is mended', () => {
  it('by a turn that is said, or apart', async () => {
    const row = page(MendRow, { place: PLACE })
    expect(row.text()).toContain('30° of 60°, then apart')
    row.type('mend-turn', '20')
    row.button('Nipped up').click()
    await settled()
    row.button('Apart and made anew').click()
    await settled()
    expect(written).toEqual([
      { kind: 'leak mended', place: 'fuel:u', how: 'nipped', turn: '20', words: '', sure: false },
      { kind: 'leak mended', place: 'fuel:u', how: 'apart', turn: '', words: '', sure: false },
    ])
    row.leave()
  })
  it('not by a turn where none is left, and what happened can be told', async () => {
    const shut = page(MendRow, { place: { ...PLACE, may_nip: false } })
    expect(shut.all('button').some((b) => b.textContent.includes('Nipped up'))).toBe(false)
    shut.leave()
    refusing('force_limit', 'may be drawn 60° in all', true)
    const row = page(MendRow, { place: PLACE })
    row.type('mend-turn', '70')
    row.button('Nipped up').click()
    await settled()
    const write = vi.spyOn(useBook(), 'write').mockResolvedValue(true)
    row.button('It was nipped up all the same').click()
    await settled()
    expect(write.mock.calls.at(-1)?.[0]).toMatchObject({ turn: '70', sure: true })
    row.leave()
  })
})

describe('the table of fluids', () => {
  it('opens its acts at a press: level, cycle, litres', async () => {
    const table = page(FluidTable, { view: VIEW })
    expect(table.text()).toContain('Fuel')
    table.all('button.row')[0]?.click()
    await settled()
    expect(table.text()).toContain('Ruins it: dry pump')
    expect((table.button('At its mark') as HTMLButtonElement).disabled).toBe(true)
    const stands = table.root.querySelector<HTMLSelectElement>('[name=stands-fuel]')!
    stands.value = 'level'
    stands.dispatchEvent(new Event('change'))
    table.button('cold').click()
    await settled()
    table.button('At its mark').click()
    table.button('foam').click()
    table.type('amount-fuel', '4.2 L')
    table.button('In').click()
    await settled()
    expect(written.map((entry) => entry.kind)).toEqual(['level said', 'bleed cycle', 'fluid moved'])
    expect(written[0]).toMatchObject({ level: 'at', attitude: 'level', heat: 'cold' })
    expect(written[2]).toMatchObject({ way: 'in', amount: '4.2 L' })
    table.leave()
  })
})

describe('a complaint', () => {
  const open = { id: 'c1', words: 'pulls', conditions: ['at 80', 'towing'], trials: [], answered: false }
  it('is written with its conditions', async () => {
    const block = page(ComplaintBlock, { complaints: [] })
    block.button('Write the complaint').click()
    await settled()
    block.type('complaint-words', 'pulls left')
    block.button('towing').click()
    block.button('braking').click()
    await settled()
    block.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(written[0]).toMatchObject({ words: 'pulls left', load: 'towing', doing: ['braking'] })
    block.leave()
  })
  it('is answered under the conditions that were pressed', async () => {
    const block = page(ComplaintBlock, { complaints: [{ ...open, waits: 'the same trial' }] })
    block.button('at 80').click()
    await settled()
    block.button('gone').click()
    await settled()
    expect(written).toEqual([{ kind: 'trial driven', complaint: 'c1', found: 'gone', under: ['at 80'] }])
    block.leave()
  })
})

it('snags are shown for the next place alone, and put right by a press', async () => {
  const snags = [
    { id: 's1', what: 'scratch', matters: ['paint'] },
    { id: 's2', what: 'horn', matters: ['road'] },
  ]
  const block = page(SnagBlock, { snags })
  block.button('road').click()
  await settled()
  expect(block.all('li').map((li) => li.textContent)).toHaveLength(1)
  block.button('Put right').click()
  await settled()
  expect(written).toEqual([{ kind: 'snag cleared', snag: 's2' }])
  block.leave()
})
