// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { nextTick, type Plugin } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refusal } from '@/api/client'
import { mounted, screen } from '@/testing'
import { useBook } from '@/stores/book'
import FastenerCard from './FastenerCard.vue'
import GroupBlock from './GroupBlock.vue'
import KitForm from './KitForm.vue'
import PackFigure from './PackFigure.vue'
import ProvisionalBlock from './ProvisionalBlock.vue'
import ShimsForm from './ShimsForm.vue'
import SwapTable from './SwapTable.vue'

const pinia = createPinia()
/** Links and desks of the frame are not what is looked at here. */
const frame: Plugin = {
  install(app) {
    app.component('RouterLink', { template: '<a><slot /></a>' })
  },
}
const page = (component: Parameters<typeof mounted>[0], props: Record<string, unknown>) =>
  mounted(component, props, [pinia, frame])
const settled = () => new Promise((done) => setTimeout(done))

beforeEach(() => {
  setActivePinia(pinia)
  screen()
  vi.restoreAllMocks()
})
const taken = () => vi.spyOn(useBook(), 'write').mockResolvedValue(true)
const refusing = (message: string) =>
  vi
    .spyOn(useBook(), 'write')
    .mockRejectedValue(new Refusal({ refuse: true, reason_code: 'x', message, field: 'typed' } as never, 422))

describe('the drawer of a pack', () => {
  const pack = {
    id: 'p',
    kit: [
      { typed: '0.25', count: 2 },
      { typed: '1.00', count: 1 },
    ],
    measured_with: 'M1',
    limit: { unit: 'mm' },
  }
  const tools = [{ id: 'm1', code: 'M1' }]

  it('shows what lies in it as it was written, and the tool', () => {
    const form = page(KitForm, { step: 'gap', pack, tools })
    expect(form.root.querySelector('input')?.value).toBe('0.25 x 2, 1.00')
    expect(form.root.querySelector('select')?.value).toBe('m1')
    form.leave()
  })
  it('is written by one press, as printed where no tool is named', async () => {
    const write = taken()
    const onDone = vi.fn()
    const form = page(KitForm, {
      step: 'gap',
      pack: { ...pack, kit: [], measured_with: null },
      tools,
      onDone,
    })
    form.type('kit', '0.50 x 3')
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(write).toHaveBeenCalledWith({
      kind: 'kit said',
      step: 'gap',
      pack: 'p',
      typed: '0.50 x 3',
      instrument: null,
    })
    expect(onDone).toHaveBeenCalledOnce()
    form.leave()
  })
  it('refused, it says why and keeps what was typed', async () => {
    refusing('the kit is empty')
    const onDone = vi.fn()
    const form = page(KitForm, { step: 'gap', pack, tools, onDone })
    form.type('kit', '  ')
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(form.root.querySelector('[role=alert]')?.textContent).toBe('the kit is empty')
    expect(onDone).not.toHaveBeenCalled()
    form.leave()
  })
})

describe('shims of valves', () => {
  const row = (number: number, moves: boolean, own = {}) => ({
    number,
    name: `valve ${number}`,
    reading: `v${number}`,
    lash: '0.11',
    verdict: 'outside',
    side: 'low',
    shim: '2.65',
    source: moves ? 'from valve 2' : 'its own',
    new: '2.55',
    promised: '0.20',
    became: null,
    kept: null,
    moves,
    ...own,
  })
  const table = {
    name: 'Shims',
    rows: [row(1, true), row(2, false)],
    moves: ['lift out valve 1'],
    buy: ['2.60 mm'],
    outside: 1,
    refusal: null,
    read: true,
    shims: ['2.65', '2.60'],
    spares: ['2.55'],
    sizes: ['2.00', '3.20', '0.05'],
    measured_with: null,
    changed: false,
    title: '1 valve to change about',
  }
  const props = { table, step: 'lash', tools: [], form: false }

  it('stand in a table: what goes where, what is bought', () => {
    const found = page(SwapTable, props)
    expect(found.all('tr.moved')).toHaveLength(1)
    expect(found.text()).toContain('To buy: 2.60 mm')
    expect(found.all('form')).toHaveLength(0)
    found.leave()
  })
  it('afterwards say what each became, and what is read again', () => {
    const rows = [
      row(1, true, { became: '0.27', kept: false }),
      row(2, true),
      row(3, true, { became: '0.20', kept: true }),
    ]
    const found = page(SwapTable, { ...props, table: { ...table, rows, changed: true } })
    const last = found.all('tbody tr').map((tr) => tr.querySelector('td:last-child'))
    expect(last.map((td) => td?.textContent.trim())).toEqual(['0.27', 'read again', '0.20'])
    expect(last.map((td) => td?.classList.contains('outside'))).toEqual([true, false, false])
    found.leave()
  })
  it('ask how thick they are before anything else, and say why there is no table', () => {
    const found = page(SwapTable, {
      ...props,
      table: { ...table, read: false, refusal: 'valve 1: no size' },
    })
    expect(found.all('form')).toHaveLength(1)
    expect(found.text()).toContain('valve 1: no size.')
    found.leave()
  })
  it('are typed in one line, spares and sizes beside them', async () => {
    const write = taken()
    const form = page(ShimsForm, { step: 'lash', table, tools: [{ id: 'm1', code: 'M1' }] })
    form.type('shims', '2.70 2.55')
    form.type('spares', '')
    form.type('shims_tool', 'm1')
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(write).toHaveBeenCalledWith({
      kind: 'shims read',
      step: 'lash',
      typed: '2.70 2.55',
      spares: '',
      sizes: ['2.00', '3.20', '0.05'],
      instrument: 'm1',
    })
    form.leave()
  })
})

describe('what a stack leaves', () => {
  const judgement = {
    value: 2.02,
    U: 0.05,
    lo: 1.5,
    hi: 2.5,
    target: 2,
    verdict: 'inside',
    side: null,
    assumed: true,
    value_text: '2.02',
    words: 'inside, 0.43 to spare',
    lo_text: '1.5',
    hi_text: '2.5',
    working: ['gap 3.27 − 1.25 = 2.02 mm'],
  }
  const pack = { limit: { name: 'Gap' }, check: 'Depth once more' }
  it('is said in words, with the reading that comes after it', () => {
    const found = page(PackFigure, { pack, row: { pieces: ['1.00', '0.25'], total_text: '1.25', judgement } })
    expect(found.text()).toContain('Put in, thick one first1.25mm1.00 + 0.25')
    expect(found.text()).toContain('Gap 2.02, inside, 0.43 to spare')
    expect(found.text()).toContain('Then: Depth once more.')
    found.leave()
  })
  it('none is an answer', () => {
    const found = page(PackFigure, {
      pack: { ...pack, check: null },
      row: { pieces: [], total_text: '0.00', judgement },
    })
    expect(found.root.querySelector('.huge')?.textContent.trim()).toBe('none')
    found.leave()
  })
})

describe('what points one way, and what is on trial', () => {
  const orient = (id: string, own = {}) => ({
    id,
    kind: 'arrow',
    name: 'arrow',
    how: `${id} to the front`,
    misleads: null,
    second: false,
    seen: false,
    by: [],
    ...own,
  })
  const bench = (own = {}) => ({
    bench: {
      base: { step: 's', settled: false, trial: null, on_trial: [], orients: [], ...own },
    },
  })
  const acted = () => vi.spyOn(useBook(), 'act').mockResolvedValue(true)

  it('is not there where nothing is', () => {
    const found = page(ProvisionalBlock, bench())
    expect(found.root.innerHTML).not.toContain('section')
    found.leave()
  })
  it('is seen by a press, the first unseen one by its key', async () => {
    const act = acted()
    const orients = [orient('piston', { seen: true, by: ['MK'] }), orient('rod')]
    const found = page(ProvisionalBlock, bench({ orients }))
    expect(found.text()).toContain('✓ MK')
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'v' }))
    await nextTick()
    expect(act).toHaveBeenCalledWith({ kind: 'confirmed', step: 's', what: 'rod to the front' })
    found.leave()
  })
  it('of two people the first is named, and what misleads is said', () => {
    const orients = [orient('groove', { second: true, by: ['MK'], misleads: 'a mark that was painted' })]
    const found = page(ProvisionalBlock, bench({ orients }))
    expect(found.button('second').textContent).toContain('MK saw it: second')
    expect(found.text()).toContain('What misleads: a mark that was painted')
    found.leave()
  })
  it('what ends a trial is pressed in its own words', () => {
    const act = acted()
    const found = page(ProvisionalBlock, bench({ on_trial: ['new bolts in'] }))
    found.button('New bolts in').click()
    expect(act).toHaveBeenCalledWith({ kind: 'confirmed', step: 's', what: 'new bolts in' })
    found.leave()
  })
  it('a trial says what it proved, and keeps the words where they are refused', async () => {
    const trial = {
      proves: 'it slides',
      apart: 'off again',
      kept_back: ['washers'],
      fits: null,
      words: '',
      who: '',
    }
    const write = refusing('say what does not fit')
    const found = page(ProvisionalBlock, bench({ trial }))
    expect(found.text()).toContain('Kept back till the last time: washers.')
    found.type('trial_words', 'it binds')
    found.button('It does not fit').click()
    await settled()
    expect(write).toHaveBeenCalledWith({ kind: 'trial said', step: 's', fits: 'no', words: 'it binds' })
    expect(found.text()).toContain('say what does not fit')
    expect(found.root.querySelector<HTMLInputElement>('[name=trial_words]')?.value).toBe('it binds')
    found.leave()
  })
  it('done, it shows what was found and takes nothing more', () => {
    const trial = { proves: 'it slides', apart: null, kept_back: [], fits: 'yes', words: 'free', who: 'RT' }
    const found = page(ProvisionalBlock, bench({ trial, settled: true, orients: [orient('rod')] }))
    expect(found.text()).toContain('It fits: free RT')
    expect(found.all('button')).toHaveLength(0)
    found.leave()
  })
})

describe('the card of a fastener', () => {
  it('has a line for what is known, and the lengths to scale', () => {
    const found = page(FastenerCard, {
      bench: {
        card: [{ about: 'washer', words: 'dish up' }],
        lengths: [{ count: 2, size: 'M10', length: '60', holes: '1 2', odd: null }],
      },
    })
    expect(found.all('dt').map((dt) => dt.textContent)).toEqual(['washer'])
    expect(found.all('svg')).toHaveLength(1)
    found.leave()
  })
  it('is not there where nothing is known', () => {
    const found = page(FastenerCard, { bench: { card: [], lengths: [] } })
    expect(found.all('dl')).toHaveLength(0)
    found.leave()
  })
})

describe('a group at its bench', () => {
  const group = {
    title: 'All locked',
    members: [{ letter: 'A', joint: 'a', bolt: 1, name: 'Joint', state: 'locked', words: 'torqued' }],
    cells: [
      { name: 'Loose', words: '6.01', step: 'loose', state: 'done' },
      { name: 'tabs up', words: 'last', step: null, state: 'now' },
    ],
    adjust: [],
    lanes: [],
    least: null,
    most: null,
    go: 'it stands clear',
    towards: null,
    shut: 'after A the slide is shut',
    along: ['a'],
    ends: null,
    last: 'tabs up',
    early: false,
    place: ['place'],
  }
  it('leads back to the steps of its place, and asks for what comes last', () => {
    const act = vi.spyOn(useBook(), 'act').mockResolvedValue(true)
    const found = page(GroupBlock, { group, step: 'lock' })
    expect(found.all('.cells a')).toHaveLength(1)
    expect(found.text()).toContain('It stands clear.')
    found.button('It is so').click()
    expect(act).toHaveBeenCalledWith({ kind: 'confirmed', step: 'lock', what: 'tabs up' })
    found.leave()
  })
})
