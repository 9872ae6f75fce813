// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { AppendView, Entry } from '@/api/client'
import { screen } from '@/testing'
import { useBook } from './book'
import { useJournal } from './journal'

const card = (head: number) => ({ id: 'b', now: '2026-03-01T08:00:00Z', frame: { head } })
const bench = (seen: number) => ({ base: { step: 'coolant_in', seen } })
const view = (head: number) =>
  ({ build: card(head), bench: bench(head), line: null }) as unknown as AppendView
const seen = (what: string) => ({ kind: 'confirmed', step: 'coolant_in', what }) as Entry

beforeEach(() => {
  screen()
  setActivePinia(createPinia())
  const book = useBook()
  book.card = card(880) as never
  book.bench = bench(880) as never
})

describe('two presses, the second before the first is written', () => {
  it('the second stands on what the first left, though it is kept only when that is over', async () => {
    const book = useBook()
    let first = () => {}
    const over = new Promise<void>((done) => (first = done))
    const turns: number[] = []
    let count = 880
    vi.spyOn(useJournal(), 'write').mockImplementation(async (_build, entry, _seen, turn) => {
      if ('what' in entry && entry.what === 'level') await over // slow to be kept on the device
      turns.push(await turn())
      book.bench = bench(++count) as never // what the answer brings
      return view(count)
    })
    const one = book.write(seen('amount')).then(first)
    const two = book.write(seen('level'))
    await Promise.all([one, two])
    expect(turns).toEqual([880, 881])
  })
  it('the same press twice is one', async () => {
    const book = useBook()
    const write = vi.spyOn(useJournal(), 'write').mockResolvedValue(view(881))
    expect(await Promise.all([book.write(seen('level')), book.write(seen('level'))])).toEqual([true, false])
    expect(write).toHaveBeenCalledTimes(1)
  })
})

describe('what another screen wrote', () => {
  it('is not stood upon unseen: an act is for what the hand saw', async () => {
    const turns: number[] = []
    vi.spyOn(useJournal(), 'write').mockImplementation(async (_build, _entry, _seen, turn) => {
      useBook().bench = bench(885) as never // comes in between
      turns.push(await turn())
      return view(886)
    })
    await useBook().write(seen('level'))
    expect(turns).toEqual([880])
  })
})

describe('an entry that nobody put a name to', () => {
  it('is thrown back to the form that asked, which keeps what was typed', async () => {
    const book = useBook()
    const closed = new Error('Nobody said who is at the bench: nothing was written')
    vi.spyOn(useJournal(), 'write').mockRejectedValue(closed)
    await expect(book.write(seen('level'))).rejects.toThrow('Nobody said who')
    expect(await book.handed(seen('level'))).toBe(false)
    expect(book.refused).toContain('Nobody said who')
  })
})

describe('a press on a screen that is still being loaded', () => {
  it('is never lost in silence: a form keeps what it has, a button says it', async () => {
    const book = useBook()
    book.card = null
    await expect(book.write(seen('level'))).rejects.toThrow('still being loaded')
    expect(await book.act(seen('level'))).toBe(false)
    expect(book.refused).toContain('press it once more')
  })
})
