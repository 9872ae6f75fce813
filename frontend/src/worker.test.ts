import { readFileSync } from 'node:fs'
import { beforeEach, describe, expect, it, vi } from 'vitest'

const CODE = readFileSync('public/sw.js', 'utf8')
const HERE = 'http://127.0.0.1:8765'
type Listener = (event: object) => void

/** The worker with a disk that keeps, or does not, and a server that answers, or does not. */
function worker(fetched: () => Promise<Response>, full = false) {
  const listeners: Record<string, Listener> = {}
  const kept = new Map<string, Response>()
  const cache = {
    put: vi.fn(async (request: { url: string }, response: Response) => {
      if (full) throw new Error('QuotaExceededError')
      kept.set(request.url, response)
    }),
  }
  const caches = {
    open: async () => cache,
    match: async (request: { url: string }) => kept.get(request.url)?.clone(),
  }
  const self = {
    location: { origin: HERE },
    skipWaiting: () => undefined,
    addEventListener: (name: string, listener: Listener) => (listeners[name] = listener),
  }
  new Function('self', 'caches', 'fetch', CODE)(self, caches, fetched)
  return async (method = 'GET', path = '/api/builds/b') => {
    let answer: Promise<Response> | null = null
    const later: Promise<unknown>[] = []
    listeners.fetch({
      request: { url: HERE + path, method, mode: 'cors' },
      respondWith: (given: Promise<Response>) => (answer = given),
      waitUntil: (work: Promise<unknown>) => later.push(work),
    })
    const found = await (answer as Promise<Response> | null)
    await Promise.all(later)
    return found
  }
}

const json = (head: number) =>
  new Response(JSON.stringify({ head }), { headers: { 'content-type': 'application/json' } })
let head = 0
let gone = false
const served = async () => {
  if (gone) throw new TypeError('nobody there')
  return json(++head)
}
beforeEach(() => {
  head = 0
  gone = false
})

describe('the worker that keeps the page', () => {
  it('gives what is fresh, unmarked, and the last one with its time once nobody answers', async () => {
    const ask = worker(served)
    expect((await ask())?.headers.get('x-hollet-kept')).toBeNull()
    await ask()
    gone = true
    const kept = await ask()
    expect(await kept?.json()).toEqual({ head: 2 })
    expect(Date.parse(kept?.headers.get('x-hollet-kept') ?? '')).toBeGreaterThan(0)
  })
  it('never gives an old answer while Hollet answers, also where the device is full', async () => {
    const ask = worker(served, true)
    for (const wanted of [1, 2, 3]) {
      const answer = await ask()
      expect(await answer?.json()).toEqual({ head: wanted })
      expect(answer?.headers.get('x-hollet-kept')).toBeNull()
    }
  })
  it('lets an error through where nothing is kept', async () => {
    gone = true
    await expect(worker(served)()).rejects.toThrow('nobody there')
  })
  it('keeps no refusal, and never stands between a page and what it writes', async () => {
    let refused = true
    const ask = worker(async () => (refused ? new Response('{}', { status: 409 }) : served()))
    expect((await ask())?.status).toBe(409)
    refused = false
    gone = true
    await expect(ask()).rejects.toThrow()
    expect(await ask('POST', '/api/builds/b/entries')).toBeNull()
  })
})
