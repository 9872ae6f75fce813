// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import type { Plugin } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { Refusal } from '@/api/client'
import { stage } from '@/testing'
import { useBook } from '@/stores/book'
import LiftBlock from './LiftBlock.vue'
import LooksBlock from './LooksBlock.vue'
import ReadyBlock from './ReadyBlock.vue'
import TypeIn from './TypeIn.vue'

const frame: Plugin = {
  install(app) {
    app.component('RouterLink', { template: '<a><slot /></a>' })
  },
}
const { page, settled, set, written } = stage(frame)

beforeEach(set)
const asking = (message: string) =>
  vi
    .spyOn(useBook(), 'write')
    .mockRejectedValueOnce(
      new Refusal(
        { refuse: true, reason_code: 'odd_figure', message, field: 'mass', asks: true } as never,
        422,
      ),
    )

describe('a lift', () => {
  it('that nobody said holds everything; a doubtful mass is asked, and said all the same', async () => {
    const form = page(LiftBlock, { lift: null, step: 'engine_up' })
    expect(form.text()).toContain('nothing is lifted before')
    form.button('Say how it hangs').click()
    await settled()
    form.type('lift-what', 'engine')
    form.type('lift-mass', '14.2')
    form.type('el-name-0', 'sling')
    form.type('el-limit-0', '500 kg')
    const write = asking('14.2 kg hangs here: is it so?')
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    await settled()
    expect(form.text()).toContain('is it so?')
    form.button('It is so').click()
    await settled()
    expect(write.mock.calls.map((call) => (call[0] as { sure?: boolean }).sure)).toEqual([false, true])
    expect(form.root.querySelector('form')).toBeNull()
    form.leave()
  })
})

describe('ready to lift', () => {
  const rows = [
    { group: 'parted', what: 'earth straps', state: 'not yet', why: '2.21 Earths off', step: 'earths_off' },
    { group: 'how it hangs', what: 'nobody has said it', state: 'not known', why: '', step: null },
    { group: 'parted', what: 'exhaust', state: 'so', why: '', step: 'exhaust_off' },
    { group: 'parted', what: 'cruise rod', state: 'not there', why: '', step: 'cruise_off' },
  ]
  it('shows what is not so, with the way to it, and folds what is', () => {
    const list = page(ReadyBlock, { ready: { title: 'Ready to lift: 2 of 4 not so', open: 2, rows } })
    const open = [...list.root.querySelectorAll('section > ul > li')].map((li) => li.textContent)
    expect(open).toHaveLength(2)
    expect(open[0]).toContain('earth straps')
    expect(list.root.querySelector('section > ul a')?.textContent).toContain('earth straps')
    expect(list.root.querySelector('summary')?.textContent).toBe('2 are so')
    expect(list.root.querySelector('details')?.textContent).toContain('not there')
    list.leave()
  })
  it('has nothing to fold where nothing is so', () => {
    const list = page(ReadyBlock, { ready: { title: 'x', open: 2, rows: rows.slice(0, 2) } })
    expect(list.root.querySelector('details')).toBeNull()
    list.leave()
  })
})

describe('a sheet typed in', () => {
  const reading = (id: string, state: string | null) => ({
    id,
    name: id,
    tool_kind: 'feeler',
    tools: ['f2'],
    state,
    value_text: '',
    unit: '',
    entry: null,
  })
  const bench = (states: (string | null)[]) => ({
    base: { step: 'lash_again' },
    readings: states.map((state, k) => reading(`v${k}`, state)),
    tools: [{ id: 'f2', code: 'F2', name: 'leaves', kind: 'feeler', unit: 'mm', can: true }],
  })
  async function enter(form: ReturnType<typeof page>, name: string, typed: string) {
    form.type(`in-${name}`, typed)
    const press = new KeyboardEvent('keydown', { key: 'Enter' })
    form.root.querySelector(`[name=in-${name}]`)?.dispatchEvent(press)
    await settled()
  }
  it('says the state that each line asks for, once it is pressed', async () => {
    const form = page(TypeIn, { bench: bench(['cold', 'cold, on its back']) })
    await enter(form, 'v0', '0.20')
    form.button('all read cold; cold, on its back').click()
    await settled()
    await enter(form, 'v0', '0.20')
    await enter(form, 'v1', '0.25')
    expect(written.map((entry) => ('state' in entry ? entry.state : undefined))).toEqual([
      null,
      'cold',
      'cold, on its back',
    ])
    form.leave()
  })
  it('asks nothing where no line has a state', () => {
    const form = page(TypeIn, { bench: bench([null]) })
    expect(form.text()).not.toContain('all read')
    form.leave()
  })
})

describe('looked at after a drive', () => {
  it('takes the odometer, and keeps what is typed while it is on its way', async () => {
    const form = page(LooksBlock, { looks: { odometer: 'not read yet', joints: [] }, step: 'check_500' })
    let over: (kept: boolean) => void = () => {}
    const write = vi.spyOn(useBook(), 'write').mockImplementation(() => new Promise((done) => (over = done)))
    form.type('odometer', '81200')
    form.button('It reads this').click()
    form.root.querySelector('form')?.dispatchEvent(new Event('submit'))
    form.type('odometer', '81263')
    over(true)
    await settled()
    expect((form.root.querySelector('[name=odometer]') as HTMLInputElement).value).toBe('81263')
    expect(write.mock.calls[0]?.[0]).toMatchObject({ kind: 'odometer said', typed: '81200' })
    form.leave()
  })
})
