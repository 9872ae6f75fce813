/** Help for the tests of what runs in a browser: a server that answers as told, and a screen's defaults. */
import { vi } from 'vitest'

export interface Asked {
  method: string
  path: string
  body: unknown
}
type Answer = { status: number; body?: unknown } | 'gone'

/** Every call of the page goes here; the answers are given in their order, the last one again and again. */
export function server(...answers: Answer[]) {
  const asked: Asked[] = []
  const next = [...answers]
  const answer = async (input: Request | string, init?: RequestInit): Promise<Response> => {
    const request =
      input instanceof Request ? input : new Request(new URL(input, window.location.origin), init)
    const text = await request.clone().text()
    const path = new URL(request.url).pathname
    asked.push({ method: request.method, path, body: text ? (JSON.parse(text) as unknown) : null })
    const given = next.length > 1 ? next.shift() : next[0]
    if (given === undefined || given === 'gone') throw new TypeError('nobody there')
    return new Response(given.body === undefined ? 'no answer at all' : JSON.stringify(given.body), {
      status: given.status,
      headers: { 'content-type': 'application/json' },
    })
  }
  vi.stubGlobal('fetch', answer)
  return { asked, then: (...more: Answer[]) => next.splice(0, next.length, ...more) }
}

/** What a browser has and the test's document has not. */
export function screen(): void {
  vi.stubGlobal('matchMedia', () => ({ matches: false, addEventListener: () => undefined }))
  localStorage.setItem('hollet.who', 'MK')
}
