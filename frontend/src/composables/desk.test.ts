// @vitest-environment jsdom
import 'fake-indexeddb/auto'
import { createPinia, setActivePinia } from 'pinia'
import { effectScope, nextTick, ref } from 'vue'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { screen } from '@/testing'
import { useBook } from '@/stores/book'
import { priceOf, useDesk, useOwnId } from './desk'

beforeEach(() => {
  setActivePinia(createPinia())
  screen()
})

describe('a price as it was typed', () => {
  it.each([
    ['', null],
    ['  ', null],
    ['24.50', 24.5],
    ['24,50', 24.5],
    [' 0 ', 0],
    ['-3', -3],
  ])('%j is %j', (typed, price) => expect(priceOf(typed)).toBe(price))
  it('stays no number where it is none, so that the server says so', () => {
    expect(priceOf('a lot')).toBeNaN()
    expect(priceOf('1.200,50')).toBeNaN()
  })
})

describe('an own id', () => {
  it('is the same however often a button is pressed, and another after it was written', () => {
    const { id, renew } = useOwnId('w')
    const first = id.value
    expect(first).toMatch(/^w[0-9a-f]{12}$/)
    expect(id.value).toBe(first)
    renew()
    expect(id.value).not.toBe(first)
  })
})

describe('a desk', () => {
  it('is read anew for another build and after each line, and a late answer never wins', async () => {
    const build = ref('one')
    const answers: ((found: string) => void)[] = []
    const ask = vi.fn<(build: string) => Promise<string>>(
      () => new Promise((resolve) => answers.push(resolve)),
    )
    const scope = effectScope()
    const desk = scope.run(() => useDesk(() => build.value, ask))!
    expect(ask).toHaveBeenLastCalledWith('one')
    build.value = 'two'
    await nextTick()
    expect(ask).toHaveBeenLastCalledWith('two')
    answers[1]('of two')
    await vi.waitFor(() => expect(desk.view.value).toBe('of two'))
    answers[0]('of one, late')
    await nextTick()
    expect(desk.view.value).toBe('of two')
    useBook().card = { id: 'two', frame: { head: 5, steps: [] } } as never
    await nextTick()
    expect(ask).toHaveBeenCalledTimes(3)
    scope.stop()
  })
  it('keeps what it shows where the next look fails, and says why', async () => {
    const scope = effectScope()
    let fails = false
    const desk = scope.run(() =>
      useDesk(
        () => 'one',
        async () => {
          if (fails) throw new Error('nobody answers')
          return 'as it was'
        },
      ),
    )!
    await vi.waitFor(() => expect(desk.view.value).toBe('as it was'))
    fails = true
    await desk.load()
    expect([desk.view.value, desk.problem.value]).toEqual(['as it was', 'nobody answers'])
    scope.stop()
  })
})
