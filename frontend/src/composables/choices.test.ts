// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { effectScope, nextTick, ref } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { MeasureBenchView } from '@/api/client'
import { screen } from '@/testing'
import { useBook } from '@/stores/book'
import { useChoices } from './choices'

type Bench = Partial<Record<keyof MeasureBenchView, unknown>>
const base = { step: 'gap', settled: false }
const row = (total: number, pieces: string[], best = false) => ({ total, pieces, best })
const rows = [row(1, ['1.00']), row(1.25, ['1.00', '0.25'], true)]
const pack = { id: 'p', title: 'Put in 1.25', chooses: true, bare: { value: 3.27 }, rows, best: rows[1] }
const option = (inner: string, best: boolean, lies_in = false) => ({ inner, name: inner, best, lies_in })
const match = {
  title: '2 of 2 change places',
  ready: true,
  chooses: true,
  lanes: [
    { outer_text: 'bore 1', options: [option('p1', false, true), option('p2', true)] },
    { outer_text: 'bore 2', options: [option('p1', true), option('p2', false, true)] },
  ],
}
const table = { title: '2 valves to change about', moves: ['lift out 1'], changed: false }

beforeEach(() => {
  setActivePinia(createPinia())
  screen()
})

function choosing(own: Bench, reading = false) {
  const bench = ref({
    base,
    packs: [],
    match: null,
    valve_shims: null,
    ...own,
  } as unknown as MeasureBenchView)
  const book = useBook()
  const act = vi.spyOn(book, 'act').mockResolvedValue(true)
  const scope = effectScope()
  const choices = scope.run(() =>
    useChoices(
      () => bench.value,
      () => reading,
    ),
  )!
  return { bench, act, choices, scope }
}

describe('shims of a gap', () => {
  it('are shown once the gap is read, proposed, and put in by one press', async () => {
    const { choices, act } = choosing({ packs: [pack] })
    expect(choices.open).toBe(true)
    expect(choices.title).toBe('Put in 1.25')
    expect(choices.press).toMatchObject({ name: 'They are in', ready: true })
    await choices.press?.act()
    expect(act).toHaveBeenCalledWith({ kind: 'pack put', step: 'gap', pack: 'p', shims: ['1.00', '0.25'] })
  })
  it('another sum by hand is what goes in', async () => {
    const { choices, act } = choosing({ packs: [pack] })
    choices.total = 1
    await choices.press?.act()
    expect(act.mock.calls[0][0]).toMatchObject({ shims: ['1.00'] })
  })
  it('nothing is pressed where nothing is proposed', async () => {
    const { choices, act } = choosing({ packs: [{ ...pack, rows: [], best: null }] })
    expect(choices.press).toMatchObject({ ready: false })
    await choices.press?.act()
    expect(act).not.toHaveBeenCalled()
  })
  it('wait while a figure is still to be typed, and come by a key all the same', () => {
    const { choices } = choosing({ packs: [pack] }, true)
    expect(choices.open).toBe(false)
    choices.turn()
    expect(choices.open).toBe(true)
    choices.turn()
    expect(choices.open).toBe(false)
  })
  it('a refused line leaves the choice as it stands', async () => {
    const { choices, act } = choosing({ packs: [pack] })
    act.mockResolvedValue(false)
    choices.total = 1
    await choices.press?.act()
    expect(choices.total).toBe(1)
  })
  it('another step begins anew', async () => {
    const { choices, bench } = choosing({ packs: [pack] })
    choices.total = 1
    choices.form = true
    choices.turn()
    bench.value = { ...bench.value, base: { ...bench.value.base, step: 'other' } }
    await nextTick()
    expect([choices.total, choices.form, choices.open]).toEqual([null, false, true])
  })
})

describe('pistons and bores', () => {
  it('are proposed by the exact choice while they are to be paired', async () => {
    const { choices, act } = choosing({ match })
    expect(choices.inners).toEqual(['p2', 'p1'])
    await choices.press?.act()
    expect(act).toHaveBeenCalledWith({ kind: 'pairs taken', step: 'gap', inners: ['p2', 'p1'] })
  })
  it('two are swapped, and none is in two bores', () => {
    const { choices } = choosing({ match })
    choices.swapTo(0, 'p1')
    expect(choices.inners).toEqual(['p1', 'p2'])
    expect(choices.given.map((g) => g.option?.inner)).toEqual(['p1', 'p2'])
  })
  it('taken once, they are shown by a key as they were taken', () => {
    const { choices } = choosing({ match: { ...match, chooses: false } })
    expect(choices.open).toBe(false)
    choices.turn()
    expect(choices.inners).toEqual(['p1', 'p2'])
    expect(choices.keys).toEqual({ form: null, other: 'The readings' })
  })
  it('are not there before everything is read', () => {
    const { choices } = choosing({ match: { ...match, ready: false } })
    expect(choices.match).toBeNull()
    expect(choices.keys).toBeNull()
  })
})

describe('shims of valves', () => {
  it('are changed by one press, once', async () => {
    const { choices, act, bench } = choosing({ valve_shims: table })
    expect(choices.press).toMatchObject({ name: 'They are changed' })
    expect(choices.keys).toEqual({ form: 'Their shims', other: 'The readings' })
    await choices.press?.act()
    expect(act).toHaveBeenCalledWith({ kind: 'shims changed', step: 'gap' })
    bench.value = { ...bench.value, valve_shims: { ...table, changed: true } } as unknown as MeasureBenchView
    expect(choices.press).toBeNull()
  })
  it('a table without a move has nothing to press', () => {
    const { choices } = choosing({ valve_shims: { ...table, moves: [] } })
    expect(choices.press).toBeNull()
  })
  it('a step that is done shows them by a key, and takes nothing more', () => {
    const { choices } = choosing({ valve_shims: table, base: { ...base, settled: true } })
    expect(choices.open).toBe(false)
    choices.turn()
    expect(choices.table?.title).toBe('2 valves to change about')
    expect(choices.press).toBeNull()
    expect(choices.keys).toEqual({ form: null, other: 'The readings' })
  })
})
