// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Entry } from '@/api/client'
import { type Asked, screen, server } from '@/testing'
import * as queue from './queue'
import { useJournal } from './journal'

const note = (text: string, step = 'bores') => ({ kind: 'note', text, step }) as unknown as Entry
const VIEW = { line: { id: 'x' }, build: { id: 'b', frame: { head: 2 } }, bench: null }
const refusal = (message: string) => ({ refuse: true, reason_code: 'x', message, field: null, newer: [] })
const sent = (asked: Asked[]) => asked.map((call) => (call.body as { entry: { text: string } }).entry.text)
const turn = () => Promise.resolve(7)

beforeEach(async () => {
  setActivePinia(createPinia())
  screen()
  for (const item of await queue.all()) await queue.drop(item.id)
})

describe('an entry', () => {
  it('is kept on the device before it is sent, and goes from there when the server has it', async () => {
    const { asked } = server({ status: 200, body: VIEW })
    const journal = useJournal()
    let keptThen: string[] = []
    const view = await journal.write('b', note('one'), 3, async () => {
      keptThen = (await queue.all()).map((item) => (item.entry as { text: string }).text)
      return 7
    })
    expect(view).toEqual(VIEW)
    expect(keptThen).toEqual(['one'])
    expect(asked[0]).toMatchObject({
      method: 'POST',
      path: '/api/builds/b/entries',
      body: { who: 'MK', seen: 7 },
    })
    expect(await queue.all()).toEqual([])
    expect(journal.notSaved).toEqual([])
  })
  it('waits where nobody answers, and is sent once the server is back', async () => {
    const net = server('gone')
    const journal = useJournal()
    expect(await journal.write('b', note('one'), 3, turn)).toBeNull()
    expect(journal.notSaved.map((item) => item.refused)).toEqual([null])
    const seen: unknown[] = []
    journal.whenSent((view) => seen.push(view))
    net.then({ status: 200, body: VIEW })
    await journal.sync()
    expect(seen).toEqual([VIEW])
    expect(await queue.all()).toEqual([])
  })
  it('goes with the form where a field is wrong: nothing waits twice', async () => {
    server({ status: 422, body: refusal("'text' must be given") })
    const journal = useJournal()
    await expect(journal.write('b', note('one'), 3, turn)).rejects.toThrow("'text' must be given")
    expect(await queue.all()).toEqual([])
  })
  it.each([401, 403, 409, 413])(
    'stays with its reason after a %i, over a reload, until a person says',
    async (status) => {
      const net = server({ status, body: refusal('not now') })
      const journal = useJournal()
      await expect(journal.write('b', note('one'), 3, turn)).rejects.toThrow('not now')
      expect(journal.notWritten.map((item) => item.refused)).toEqual(['not now'])
      setActivePinia(createPinia()) // the page is loaded again
      const again = useJournal()
      net.then({ status: 200, body: VIEW })
      await again.sync()
      expect(again.notWritten).toHaveLength(1)
      await again.again(again.notWritten[0], 9)
      expect(await queue.all()).toEqual([])
      expect(net.asked.at(-1)?.body).toMatchObject({ seen: 9 })
    },
  )
  it('is tried again after an answer that is none, and after five it needs a person', async () => {
    const net = server({ status: 503 })
    const journal = useJournal()
    expect(await journal.write('b', note('one'), 3, turn)).toBeNull()
    for (let k = 0; k < 4; k++) await journal.sync()
    expect(net.asked).toHaveLength(5)
    expect(journal.notWritten).toHaveLength(1)
    await journal.sync()
    expect(net.asked).toHaveLength(5)
  })
})

describe('several entries', () => {
  it('about the same go one behind the other, and name the one before', async () => {
    const net = server('gone')
    const journal = useJournal()
    await journal.write('b', note('one'), 3, turn)
    expect(await journal.write('b', note('two'), 3, turn)).toBeNull()
    net.asked.length = 0
    net.then({ status: 200, body: VIEW })
    await vi.waitFor(async () => {
      await journal.sync()
      expect(sent(net.asked)).toEqual(['one', 'two'])
    })
    const [first, second] = net.asked.map((call) => call.body as { id: string; after: string | null })
    expect(first.after).toBeNull()
    expect(second.after).toBe(first.id)
  })
  it('wait only behind what is about the same', async () => {
    const net = server({ status: 409, body: refusal('1 newer line stands there') })
    const journal = useJournal()
    await expect(journal.write('b', note('one'), 3, turn)).rejects.toThrow()
    net.then({ status: 200, body: VIEW })
    expect(await journal.write('b', note('other', 'gaps'), 3, turn)).toEqual(VIEW)
    expect(await journal.write('b', note('behind'), 3, turn)).toBeNull()
    await journal.sync()
    expect(sent(net.asked)).toEqual(['one', 'other'])
    await journal.forget(journal.notWritten[0].id)
    await vi.waitFor(async () => {
      await journal.sync()
      expect(sent(net.asked)).toEqual(['one', 'other', 'behind'])
    })
  })
})
