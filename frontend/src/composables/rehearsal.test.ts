// @vitest-environment jsdom
import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { screen, server } from '@/testing'
import { GAUGES, useRehearsal } from './rehearsal'

const DEAL = {
  seed: 7,
  chosen: false,
  intro: 'Cold',
  limit: '1.0 bar by 5 s',
  ends_s: 3,
  beat_s: 0.1,
  rpm: Array.from({ length: 31 }, (_, k) => 1000 + k),
  oil: Array.from({ length: 31 }, (_, k) => (k < 20 ? 0.3 : null)),
  coolant: Array.from({ length: 31 }, () => 18),
  lamp: Array.from({ length: 31 }, (_, k) => k < 10),
  wet_s: 1.5,
  tells: [{ at_s: 2, sense: 'ear', words: 'a knock' }],
}
const PLAYED = { fault: 'no_pressure', late_s: 0.5, in_time: true }
let scope: EffectScope
const hand = () => scope.run(() => useRehearsal())!
const at = async (seconds: number) => {
  await vi.advanceTimersByTimeAsync(seconds * 1000)
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['performance', 'requestAnimationFrame', 'cancelAnimationFrame', 'setTimeout'] })
  screen()
  localStorage.clear()
  scope = effectScope()
})
afterEach(() => {
  scope.stop()
  vi.useRealTimers()
})

async function begun() {
  server({ status: 200, body: DEAL })
  const own = hand()
  await own.start(null, null)
  return own
}

describe('a start that is rehearsed', () => {
  it('shows a gauge only while it is looked at', async () => {
    const own = await begun()
    expect(own.inSight('oil')).toBe(false)
    await at(0.5)
    own.look('oil')
    await at(0.1)
    expect([own.inSight('oil'), own.reads('oil'), own.inSight('rpm')]).toEqual([true, '0.3', false])
    await at(1.6)
    expect(own.inSight('oil')).toBe(false)
  })
  it('reads nothing where the gauge is silent, and wet where it is', async () => {
    const own = await begun()
    await at(1)
    expect([own.reads('leak'), own.reads('lamp')]).toEqual(['dry', 'out'])
    await at(1.2)
    expect([own.reads('oil'), own.reads('leak')]).toEqual(['nothing', 'wet'])
    expect(own.heard.value.map((tell) => tell.words)).toEqual(['a knock'])
  })
  it('is judged by the server from what the hand did, and kept as a try', async () => {
    const own = await begun()
    await at(1)
    own.look('lamp')
    const { asked } = server({ status: 200, body: PLAYED })
    own.key()
    await at(0.1)
    expect(own.playing.value).toBe(false)
    expect(own.acts.value.map((act) => act.what)).toEqual(['lamp', 'key'])
    expect(asked.at(-1)?.body).toMatchObject({ seed: 7, fault: null, acts: own.acts.value })
    expect(own.tries.value.no_pressure).toEqual([{ late: 0.5, ok: true }])
    expect(JSON.parse(localStorage.getItem('hollet.rehearsal') ?? '{}')).toEqual(own.tries.value)
  })
  it('waits on the device while Hollet is gone, and is judged when it is back', async () => {
    const own = await begun()
    server('gone')
    own.look('oil')
    own.key()
    await at(0.1)
    expect(own.problem.value).toContain('cannot be reached')
    expect(own.played.value).toBeNull()
    const later = hand() // as after a reload
    expect(later.unjudged.value).toMatchObject({ seed: 7, acts: own.acts.value })
    const { asked } = server({ status: 200, body: PLAYED })
    await later.judged()
    expect(asked.at(-1)?.body).toMatchObject({ seed: 7, acts: own.acts.value })
    expect(later.unjudged.value).toBeNull()
    expect(hand().unjudged.value).toBeNull()
  })
  it('ends by itself where nobody turns the key', async () => {
    const own = await begun()
    server({ status: 200, body: PLAYED })
    await at(3.2)
    expect(own.playing.value).toBe(false)
    expect(own.acts.value).toEqual([])
  })
  it('counts no look after the key, and no second key', async () => {
    const own = await begun()
    server({ status: 200, body: PLAYED })
    own.key()
    own.key()
    own.look('oil')
    expect(own.acts.value.map((act) => act.what)).toEqual(['key'])
  })
  it('that is only watched is not judged', async () => {
    server({ status: 200, body: DEAL })
    const own = hand()
    await own.start(7, 'heat', true)
    expect(own.inSight('coolant')).toBe(true)
    await at(3.2)
    expect(own.played.value).toBeNull()
    expect(localStorage.getItem('hollet.rehearsal')).toBeNull()
  })
})

it('tries that another version kept are none', () => {
  localStorage.setItem('hollet.rehearsal', '{"no')
  expect(hand().tries.value).toEqual({})
})

it('every gauge has a letter of its own, none of them the key', () => {
  const letters = GAUGES.map(([, , , letter]) => letter)
  expect(new Set(letters).size).toBe(letters.length)
  expect(letters).not.toContain(' ')
})
