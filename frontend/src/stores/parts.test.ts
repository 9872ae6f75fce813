// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { screen, server } from '@/testing'
import { useBook } from './book'
import { useParts } from './parts'

const view = (title: string) => ({ status: 200, body: { title, groups: [], free: [] } })
const refused = { status: 404, body: { refuse: true, reason_code: 'x', message: 'no such build', newer: [] } }
const card = (id: string, head: number) => ({ id, frame: { head, steps: [] } }) as never

beforeEach(() => {
  setActivePinia(createPinia())
  screen()
})

describe('the parts desk', () => {
  it('shows what the server says of the build that was asked for', async () => {
    const { asked } = server(view('6 parts wanted'))
    const parts = useParts()
    await parts.load('b1')
    expect(parts.view?.title).toBe('6 parts wanted')
    expect(asked.map((a) => a.path)).toEqual(['/api/builds/b1/parts'])
  })
  it('never shows the desk of another build while the new one is on its way', async () => {
    server(view('of one'))
    const parts = useParts()
    await parts.load('b1')
    const going = parts.load('b2')
    expect(parts.view).toBeNull()
    await going
    expect(parts.build).toBe('b2')
  })
  it('lets a late answer never win over a newer one', async () => {
    const held: ((body: unknown) => void)[] = []
    vi.stubGlobal(
      'fetch',
      () =>
        new Promise((resolve) =>
          held.push((body) =>
            resolve(
              new Response(JSON.stringify(body), {
                status: 200,
                headers: { 'content-type': 'application/json' },
              }),
            ),
          ),
        ),
    )
    const parts = useParts()
    const first = parts.load('b1')
    const second = parts.load('b1')
    await vi.waitFor(() => expect(held).toHaveLength(2))
    held[1]({ title: 'newer', groups: [], free: [] })
    held[0]({ title: 'older', groups: [], free: [] })
    await Promise.all([first, second])
    expect(parts.view?.title).toBe('newer')
  })
  it('keeps what it showed, and says why, where the next look fails', async () => {
    const net = server(view('as it was'))
    const parts = useParts()
    await parts.load('b1')
    net.then(refused)
    await parts.load('b1')
    expect([parts.problem, parts.view?.title]).toEqual(['no such build', 'as it was'])
    net.then(view('again'))
    await parts.load('b1')
    expect([parts.problem, parts.view?.title]).toEqual(['', 'again'])
  })
  it('is read anew after each line of its own build, and after none of another', async () => {
    const { asked } = server(view('x'))
    const parts = useParts()
    const book = useBook()
    await parts.load('b1')
    book.card = card('b1', 4)
    await vi.waitFor(() => expect(asked).toHaveLength(2))
    book.card = card('b2', 9)
    await Promise.resolve()
    expect(asked).toHaveLength(2)
  })
})
