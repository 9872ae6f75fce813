// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createApp, defineComponent, h, nextTick } from 'vue'
import { Refusal } from '@/api/client'
import type { Problem, SentView } from '@/api/client'
import { useFeed } from '@/stores/feed'
import { useInstrument } from './instrument'

const SPOT = { build: 'b', step: 's', about: 'r', tool: 'd2' }
const HERE = 'b/s/r'
let socket: { onmessage: ((event: { data: string }) => void) | null; sent: string[] }

class Socket {
  static readonly OPEN = 1
  readyState = 1
  onmessage = null
  onopen: (() => void) | null = null
  onclose = null
  sent: string[] = []
  constructor() {
    // eslint-disable-next-line @typescript-eslint/no-this-alias
    socket = this
  }
  send(text: string) {
    this.sent.push(text)
  }
  close() {}
}

const sent = (id: string, spots: string[], trouble = ''): SentView => ({
  id,
  tool: 'd2',
  code: 'D2',
  words: '0.04 mm',
  trouble,
  may: !trouble,
  spots,
})
async function hears(...all: SentView[]) {
  socket.onmessage?.({ data: JSON.stringify({ version: 1, instruments: [], sent: all, pull: null }) })
  await nextTick()
  await new Promise((done) => setTimeout(done))
}
function bench(take: (one: SentView) => Promise<unknown>) {
  let found!: ReturnType<typeof useInstrument>
  createApp(
    defineComponent(() => {
      found = useInstrument(() => SPOT, take)
      return () => h('p')
    }),
  ).mount(document.createElement('div'))
  return found
}

describe('what an instrument sends', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.stubGlobal('WebSocket', Socket)
  })
  it('is taken at once where this spot alone waits, and once', async () => {
    const take = vi.fn(() => Promise.resolve())
    bench(take)
    await hears()
    await hears(sent('e1', [HERE]))
    await hears(sent('e1', [HERE]), sent('e2', [HERE]))
    expect(take.mock.calls.flat().map((s) => (s as SentView).id)).toEqual(['e1', 'e2'])
  })
  it('is asked where it was sent before, for nobody, for another spot or for several', async () => {
    const take = vi.fn(() => Promise.resolve())
    const { asked, taken, drop } = bench(take)
    await hears(sent('e0', [HERE]))
    await hears(sent('e0', [HERE]), sent('e1', []), sent('e2', ['b/s/x']), sent('e3', [HERE, 'b/s/x']))
    expect(asked.value.map((s) => s.id)).toEqual(['e0', 'e1', 'e2', 'e3'])
    expect(take).not.toHaveBeenCalled()
    drop(asked.value[0])
    await taken(asked.value[0])
    expect(take).toHaveBeenCalledTimes(1)
    expect(asked.value.map((s) => s.id)).toEqual(['e2', 'e3'])
  })
  it('says why it was refused, and is silent where another screen took it', async () => {
    const refused = (status: number, code = 'not_taken') => {
      const problem = { refuse: true, message: 'two devices', reason_code: code, newer: [] }
      return new Refusal(problem as unknown as Problem, status)
    }
    const take = vi
      .fn()
      .mockRejectedValueOnce(refused(422))
      .mockRejectedValueOnce(refused(409, 'id_used'))
      .mockRejectedValueOnce(refused(409, 'moved_on'))
    const { problem } = bench(take)
    await hears()
    await hears(sent('e1', [HERE]))
    expect(problem.value).toContain('two devices')
    await hears(sent('e1', [HERE]), sent('e2', [HERE]))
    expect(problem.value).toBe('')
    await hears(sent('e3', [HERE]))
    expect(problem.value).toContain('two devices')
  })
  it('is told of where another instrument sent it and nobody waits for that one', async () => {
    const { stray } = bench(() => Promise.resolve())
    const other = (id: string) => ({ ...sent(id, []), tool: 'w7' })
    await hears(other('e0'))
    expect(stray.value).toBeNull()
    await hears(other('e0'), other('e1'))
    expect(stray.value?.id).toBe('e1')
    await hears(other('e0'), other('e1'), sent('e2', [HERE]))
    expect(stray.value).toBeNull()
  })
  it('is told where this screen waits, and nothing once it is gone', () => {
    bench(() => Promise.resolve())
    expect(useFeed().named).toBe(HERE)
    useFeed().at(null)
    expect(socket.sent.at(-1)).toBe('')
  })
})
