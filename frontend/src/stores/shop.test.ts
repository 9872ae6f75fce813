// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Entry } from '@/api/client'
import { screen, server } from '@/testing'
import { useShop } from './shop'

const SHOP = {
  currency: 'GBP',
  time_zone: 'Europe/London',
  builds: [{ id: 'b', frame: { head: 12 } }],
  tools: [],
}
const OPENER = { kind: 'opener said', name: 'radio code', answer: 'here', where: '' } as Entry

beforeEach(() => {
  setActivePinia(createPinia())
  screen()
})

describe('the shop', () => {
  it('counts money in its own currency, and bare where it has none', async () => {
    const net = server({ status: 200, body: SHOP })
    const shop = useShop()
    await shop.load()
    expect(shop.money('12.50')).toBe('12.50 GBP')
    expect(shop.zone).toBe('Europe/London')
    net.then({ status: 200, body: { ...SHOP, currency: '' } })
    await shop.load()
    expect(shop.money('12.50')).toBe('12.50')
  })
  it('writes to a build as it was seen, and looks again', async () => {
    const { asked } = server({ status: 200, body: SHOP })
    const shop = useShop()
    await shop.load()
    await shop.write('b', 'MK', OPENER)
    expect(asked[1]).toMatchObject({
      method: 'POST',
      path: '/api/builds/b/entries',
      body: { who: 'MK', seen: 12, entry: OPENER },
    })
    expect(asked[2].path).toBe('/api/shop')
  })
  it('throws what was refused, and then looks at nothing', async () => {
    const net = server({ status: 200, body: SHOP })
    const shop = useShop()
    await shop.load()
    net.then({
      status: 409,
      body: { refuse: true, reason_code: 'moved_on', message: 'something newer stands there', newer: [] },
    })
    await expect(shop.write('b', 'MK', OPENER)).rejects.toThrow('something newer stands there')
    expect(net.asked).toHaveLength(2)
  })
  it('says what went wrong and keeps what it knew', async () => {
    const net = server({ status: 200, body: SHOP })
    const shop = useShop()
    await shop.load()
    net.then('gone')
    await shop.load()
    expect(shop.problem).not.toBe('')
    expect(shop.view?.builds).toHaveLength(1)
  })
})
