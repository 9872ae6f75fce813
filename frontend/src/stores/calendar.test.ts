// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type Asked, screen, server } from '@/testing'
import { type ShopAct, useCalendar } from './calendar'

const CLOSED: ShopAct = { kind: 'evening changed', day: 'Fri', start: null, end: null, because: 'away' }
const OK = { status: 200, body: { id: 'x', builds: [], tools: [], title: 't' } }
const NO = {
  status: 422,
  body: { refuse: true, reason_code: 'bad_day', message: "'Fry' is no day", field: 'day', newer: [] },
}
const said = (asked: Asked[]) =>
  asked.filter((a) => a.path === '/api/shop/entries').map((a) => a.body as { id: string; who: string })

beforeEach(() => {
  setActivePinia(createPinia())
  screen()
})
afterEach(() => vi.useRealTimers())

describe('what is said to the shop', () => {
  it('goes with who says it, and the page is read anew', async () => {
    const { asked } = server(OK)
    const calendar = useCalendar()
    expect(await calendar.say(CLOSED)).toBe(true)
    expect(said(asked)[0]).toMatchObject({ who: 'MK', entry: CLOSED })
    expect(asked.map((a) => a.path)).toContain('/api/tonight')
  })
  it('keeps its id when the same is said once more after nobody answered: no line twice', async () => {
    const net = server('gone')
    const calendar = useCalendar()
    expect(await calendar.say(CLOSED)).toBe(false)
    expect(calendar.problem).not.toBe('')
    net.then(OK)
    expect(await calendar.say(CLOSED)).toBe(true)
    expect(await calendar.say(CLOSED)).toBe(true)
    const ids = said(net.asked).map((a) => a.id)
    expect(ids[0]).toBe(ids[1])
    expect(ids[2]).not.toBe(ids[1])
    expect(calendar.problem).toBe('')
  })
  it('says why it was refused, and reads nothing anew', async () => {
    const { asked } = server(NO)
    const calendar = useCalendar()
    expect(await calendar.say(CLOSED)).toBe(false)
    expect(calendar.problem).toBe("'Fry' is no day")
    expect(asked).toHaveLength(1)
  })
})

describe('the plan of evenings', () => {
  it('is asked for again while a newer one is laid, and no longer once the page is left', async () => {
    vi.useFakeTimers()
    const laying = { status: 200, body: { plan: null, laying: true, old: false, seconds: 0, steps: 3 } }
    const { asked } = server(laying)
    const calendar = useCalendar()
    await calendar.loadEvenings()
    await vi.advanceTimersByTimeAsync(800)
    expect(asked).toHaveLength(2)
    calendar.leave()
    await vi.advanceTimersByTimeAsync(5000)
    expect(asked).toHaveLength(2)
  })
  it('is not asked for again once it stands', async () => {
    vi.useFakeTimers()
    const { asked } = server({ status: 200, body: { plan: null, laying: false, old: false } })
    const calendar = useCalendar()
    await calendar.loadEvenings()
    await vi.advanceTimersByTimeAsync(5000)
    expect(asked).toHaveLength(1)
  })
  it('is kept when it is stopped, as the server says', async () => {
    const { asked } = server({ status: 200, body: { plan: null, laying: false, old: true } })
    const calendar = useCalendar()
    await calendar.stop()
    expect(calendar.evenings?.old).toBe(true)
    expect(asked[0]).toMatchObject({ method: 'POST', path: '/api/evenings/stop' })
  })
})
