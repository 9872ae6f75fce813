// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { createMemoryHistory, createRouter } from 'vue-router'
import { type Component } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { mounted, screen, server } from '@/testing'
import { useBook } from '@/stores/book'
import { useCalendar } from '@/stores/calendar'
import AskView from './AskView.vue'
import BoxView from './BoxView.vue'
import MoneyView from './MoneyView.vue'

// the frames round a desk are looked at elsewhere
const bare = vi.hoisted(() => ({ default: { template: '<main><slot name="nav" /><slot /></main>' } }))
vi.mock('@/shell/WorkFrame.vue', () => bare)
vi.mock('@/shell/ShopFrame.vue', () => bare)

const nowhere = { template: '<p />' }
const pinia = createPinia()
const settled = () => new Promise((done) => setTimeout(done, 20))

async function desk(view: Component, body: unknown, props = {}, at = '/') {
  server({ status: 200, body })
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/builds/:build/parts', name: 'parts', component: nowhere },
      { path: '/:rest(.*)*', name: 'any', component: nowhere },
    ],
  })
  await router.push(at)
  const page = mounted(view, props, [pinia, router])
  await settled()
  return { page, router }
}
function submit(page: ReturnType<typeof mounted>, form: string) {
  const forms = [...page.root.querySelectorAll('form')]
  const found = forms.find((one) => one.getAttribute('aria-label') === form || one.className === form)
  found?.dispatchEvent(new Event('submit'))
  return settled()
}
const handed = (taken: boolean) => vi.spyOn(useBook(), 'handed').mockResolvedValue(taken)

beforeEach(() => {
  setActivePinia(pinia)
  screen()
  vi.restoreAllMocks()
})

const MONEY = {
  money: {
    sure: 412,
    worst: 655.5,
    left: -12,
    budget_words: '12.00 over the budget',
    ordered: 300,
    decided: 0,
    to_order: 112,
    sold: 40,
    paid: 120,
    owed_back: 0,
    reserve: 0,
    worst_open: 243.5,
    bare: ['bolt', 'seal', 'clip', 'pin', 'ring', 'hose', 'nut'],
    working: ['300 + 112 = 412'],
  },
  owner: 'the post',
  concessions: [
    { entry: 'c1', what: 'backlash 0.31', by: 'TR', word: null },
    { entry: 'c2', what: 'lash 0.32', by: 'TR', word: 'agreed' },
  ],
  ways: [
    {
      way: 'w1',
      what: 'bell face',
      words: ['at home, 4 h', 'sent out, 60'],
      chosen: 1,
      because: 'no mill here',
      options: [],
      questions: ['when?'],
      to_order: true,
    },
  ],
  reserves: [
    { need: 'n', count: 1, name: 'tensioner', now: 30, later: 52, buy: true, moved: null, working: [] },
  ],
  words: [
    { entry: 'e', sort: 'standard', what: 'as it was', price: null, name: 'JB', how: 'by phone', day: '' },
  ],
  sorts: ['standard', 'concession'],
  orders: [{ id: 'o1', supplier: 'Marl Gear Works', paid: 0, total: 180 }],
  hows: [],
  questions: [],
  limits: [],
  steps: [],
  chances: [],
}

describe('the money of a build', () => {
  it('says what is sure and what is worst, and leaves out what is nothing', async () => {
    const { page } = await desk(MoneyView, MONEY, { build: 'b' })
    expect(page.root.querySelector('h1')?.textContent).toContain('412.00')
    expect(page.root.querySelector('h1')?.textContent).toContain('at worst')
    expect(page.all('dt').map((dt) => dt.textContent)).toEqual([
      'ordered',
      'to order, as far as known',
      'sold',
      'paid so far',
      'not decided yet, at worst',
    ])
    expect(page.text()).toContain('No price yet: bolt, seal, clip, pin, ring and 2 more.')
    expect(page.root.querySelector('.outside')?.textContent).toBe('12.00 over the budget')
    page.leave()
  })
  it('names what waits for the owner, and begins his word by a press', async () => {
    const act = handed(true)
    const { page } = await desk(MoneyView, MONEY, { build: 'b' })
    const waiting = page.root.querySelector('[aria-label="Waits for the owner"]')
    expect(waiting?.textContent).toContain('backlash 0.31')
    expect(waiting?.textContent).not.toContain('lash 0.32')
    page.button('The word is there').click()
    await settled()
    page.type('how', 'in the yard')
    await settled()
    await submit(page, "The owner's word")
    expect(act).toHaveBeenCalledWith(
      expect.objectContaining({
        kind: 'owner said',
        sort: 'concession',
        about: 'c1',
        what: 'agreed',
        name: 'the post',
        how: 'in the yard',
        price: null,
      }),
    )
    page.leave()
  })
  it('a budget that was refused stays typed', async () => {
    const act = handed(false)
    const { page } = await desk(MoneyView, MONEY, { build: 'b' })
    page.type('budget', '1.200,50')
    page.type('budgetby', 'JB')
    await settled()
    await submit(page, 'Budget')
    expect(act).toHaveBeenCalledWith({ kind: 'budget set', money: NaN, name: 'JB' })
    expect(page.root.querySelector<HTMLInputElement>('[name=budget]')?.value).toBe('1.200,50')
    page.leave()
  })
  it('a budget that was taken is gone from the field', async () => {
    handed(true)
    const { page } = await desk(MoneyView, MONEY, { build: 'b' })
    page.type('budget', '900')
    page.type('budgetby', 'JB')
    await settled()
    await submit(page, 'Budget')
    expect(page.root.querySelector<HTMLInputElement>('[name=budget]')?.value).toBe('')
    page.leave()
  })
  it('money goes to an order, with a comma or a point', async () => {
    const act = handed(true)
    const { page } = await desk(MoneyView, MONEY, { build: 'b' })
    page.type('paid-o1', '60,50')
    await settled()
    await submit(page, 'pay')
    expect(act).toHaveBeenCalledWith({ kind: 'paid', order: 'o1', money: 60.5 })
    page.leave()
  })
  it('a way that was taken is counted at the order once it is ordered', async () => {
    const act = handed(true)
    const { page } = await desk(MoneyView, MONEY, { build: 'b' })
    expect(page.text()).toContain('sent out, 60. Taken: no mill here')
    page.button('It is ordered now').click()
    await settled()
    expect(act).toHaveBeenCalledWith(
      expect.objectContaining({ kind: 'way weighed', way: 'w1', ordered: true }),
    )
    page.leave()
  })
  it('Esc leads back to the parts', async () => {
    const { page, router } = await desk(MoneyView, MONEY, { build: 'b' })
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }))
    await settled()
    expect(router.currentRoute.value.fullPath).toBe('/builds/b/parts')
    page.leave()
  })
})

const BOX = {
  spares: [
    {
      spare: 's1',
      name: 'starter',
      words: '1 left, turns',
      left: 1,
      uses: [{ count: 1, now: 'sold', build_name: null, money: 25 }],
    },
    { spare: 's2', name: 'hose', words: 'all used', left: 0, uses: [] },
  ],
  left_over: [{ build: 'b1', build_name: 'Two', name: 'shim 0.5', count: 2, why: 'not needed' }],
  origins: ['spare', 'donor', 'left over'],
  builds: { b1: 'Two' },
}

describe('the box', () => {
  it('counts what is left, and tells where the rest went', async () => {
    const { page } = await desk(BoxView, BOX)
    expect(page.root.querySelector('h1')?.textContent).toContain('In the box: 1')
    expect(page.text()).toContain('1 sold')
    expect(page.text()).toContain('25.00')
    page.leave()
  })
  it('is empty when nothing is left', async () => {
    const { page } = await desk(BoxView, { ...BOX, spares: [BOX.spares[1]] })
    expect(page.root.querySelector('h1')?.textContent).toContain('Nothing is in the box')
    page.leave()
  })
  it('takes in what was left over, with where it came from', async () => {
    const say = vi.spyOn(useCalendar(), 'say').mockResolvedValue(true as never)
    const { page } = await desk(BoxView, BOX)
    page.button('2 × shim 0.5').click()
    await settled()
    await submit(page, 'Put something in')
    expect(say).toHaveBeenCalledWith(
      expect.objectContaining({
        kind: 'spare kept',
        name: 'shim 0.5',
        count: 2,
        condition: 'new, not used',
        origin: 'left over',
        build: 'b1',
      }),
    )
    page.leave()
  })
  it('what was refused stays typed', async () => {
    vi.spyOn(useCalendar(), 'say').mockResolvedValue(false as never)
    const { page } = await desk(BoxView, BOX)
    page.type('name', 'pump')
    page.type('condition', 'seal wet')
    await settled()
    await submit(page, 'Put something in')
    expect(page.root.querySelector<HTMLInputElement>('[name=name]')?.value).toBe('pump')
    page.leave()
  })
  it('a part goes out for money, or without', async () => {
    const say = vi.spyOn(useCalendar(), 'say').mockResolvedValue(true as never)
    const { page } = await desk(BoxView, BOX)
    page.button('starter').click()
    await settled()
    page.type('movemoney', '40')
    page.button('given away').click()
    await settled()
    expect(say).toHaveBeenCalledWith({
      kind: 'spare moved',
      spare: 's1',
      count: 1,
      now: 'given away',
      money: null,
    })
    page.leave()
  })
})

const ASK = {
  title: 'Backlash',
  facts: ['0.31 mm, limit 0.10 to 0.20'],
  photos: [{ photo: 'p'.repeat(64), what: 'teeth' }],
  questions: [],
  trusts: ['knows the work'],
}

describe('a question to somebody', () => {
  const at = '/builds/b/ask?sort=result&about=x%2Fy'
  it('goes with its facts and the photos that were chosen', async () => {
    const act = handed(true)
    const { page } = await desk(AskView, ASK, { build: 'b' }, at)
    expect(page.text()).toContain('Ask about: Backlash')
    expect(page.text()).toContain('0.31 mm, limit 0.10 to 0.20')
    page.type('ask', 'Is it worn?')
    page.root.querySelector<HTMLInputElement>('[name=photos]')?.click()
    await settled()
    await submit(page, 'put')
    expect(act).toHaveBeenCalledWith(
      expect.objectContaining({
        kind: 'question asked',
        sort: 'result',
        about: 'x/y',
        ask: 'Is it worn?',
        photos: ['p'.repeat(64)],
      }),
    )
    expect(page.root.querySelector<HTMLTextAreaElement>('[name=ask]')?.value).toBe('')
    page.leave()
  })
  it('keeps its id while it is refused, so that it is never two', async () => {
    const act = handed(false)
    const { page } = await desk(AskView, ASK, { build: 'b' }, at)
    page.type('ask', 'Is it worn?')
    await settled()
    await submit(page, 'put')
    await submit(page, 'put')
    const [first, second] = act.mock.calls.map(([entry]) => (entry as { question: string }).question)
    expect(first).toBe(second)
    page.leave()
  })
  it('without a subject says where one is asked from', async () => {
    const { page } = await desk(AskView, ASK, { build: 'b' })
    expect(page.text()).toContain('A question is asked from a step, a figure')
    expect(page.all('form')).toHaveLength(0)
    page.leave()
  })
})
