/** Help for the tests of what runs in a browser: a server that answers as told, and a screen's defaults. */
import { createPinia, setActivePinia } from 'pinia'
import { vi } from 'vitest'
import { type Component, createApp, type Plugin } from 'vue'
import type { Entry } from '@/api/client'
import { useBook } from '@/stores/book'

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

/** A component on a page of its own: its element, and what it emitted. */
export function mounted(component: Component, props: Record<string, unknown> = {}, plugins: Plugin[] = []) {
  const root = document.createElement('div')
  document.body.append(root)
  const app = createApp(component, props)
  for (const plugin of plugins) app.use(plugin)
  app.mount(root)
  const all = (selector: string) => [...root.querySelectorAll<HTMLElement>(selector)]
  return {
    root,
    all,
    text: () => root.textContent.replace(/\s+/g, ' ').trim(),
    button: (name: string) => {
      const found = all('button').find((b) => b.textContent.includes(name))
      if (!found) throw new Error(`no button ${name}`)
      return found
    },
    type: (name: string, value: string) => {
      const field = root.querySelector<HTMLInputElement>(`[name="${name}"]`)
      if (!field) throw new Error(`no field ${name}`)
      field.value = value
      field.dispatchEvent(new Event(field.tagName === 'SELECT' ? 'change' : 'input', { bubbles: true }))
    },
    leave: () => {
      app.unmount()
      root.remove()
    },
  }
}

/** A stage for the parts of a bench: `set` before each test; what they write is kept and not sent. */
export function stage(...plugins: Plugin[]) {
  const pinia = createPinia()
  const written: Entry[] = []
  return {
    written,
    set() {
      setActivePinia(pinia)
      screen()
      vi.restoreAllMocks()
      written.length = 0
      vi.spyOn(useBook(), 'write').mockImplementation(async (entry: Entry) => (written.push(entry), true))
    },
    page: (component: Component, props: Record<string, unknown> = {}) =>
      mounted(component, props, [pinia, ...plugins]),
    settled: () => new Promise((done) => setTimeout(done, 5)),
  }
}
