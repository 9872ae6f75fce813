// @vitest-environment jsdom
import { createApp, defineComponent, h } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { type KeyMap, useKeys } from './keys'

let done: string[] = []
let clock = Date.now() // goes on from test to test, as it does for the keys
let end: () => void = () => undefined

function mounted(...maps: KeyMap[]) {
  const parts = maps.map((keys) =>
    defineComponent({
      setup: () => (useKeys(() => keys), () => h('div')),
    }),
  )
  const app = createApp({ render: () => parts.map((part) => h(part)) })
  app.mount(document.body.appendChild(document.createElement('div')))
  return () => app.unmount()
}
const says = (word: string) => () => done.push(word)
function press(key: string, own: KeyboardEventInit = {}) {
  const event = new KeyboardEvent('keydown', { key, cancelable: true, ...own })
  window.dispatchEvent(event)
  return event.defaultPrevented
}

beforeEach(() => {
  vi.useFakeTimers({ now: (clock += 20_000) })
  done = []
  end = mounted(
    { ' ': says('frame'), o: says('leave open'), Backspace: says('strike') },
    { ' ': says('bench'), PageDown: says('pedal'), PageUp: says('read out'), 5: says('five') },
  )
})
afterEach(() => {
  end()
  document.body.innerHTML = ''
  clock = Date.now()
  vi.useRealTimers()
})

describe('a press', () => {
  it('does one thing: what was mounted last goes first', () => {
    expect(press(' ')).toBe(true)
    expect(press('o')).toBe(true)
    expect(done).toEqual(['bench', 'leave open'])
  })
  it('of a key that nobody has is left to the browser', () => {
    expect(press('x')).toBe(false)
    expect(done).toEqual([])
  })
  it('held down, or with Ctrl, Alt or Meta, is none', () => {
    press('o', { repeat: true })
    press('o', { ctrlKey: true })
    press('o', { altKey: true })
    press('o', { metaKey: true })
    expect(done).toEqual([])
  })
  it('of a capital letter is that letter', () => {
    press('O')
    expect(done).toEqual(['leave open'])
  })
})

describe('the primary key', () => {
  it('twice within 0.6 s is once, pedal and Space alike', () => {
    press(' ')
    vi.advanceTimersByTime(590)
    press(' ')
    press('PageDown')
    expect(done).toEqual(['bench'])
    vi.advanceTimersByTime(20)
    press('PageDown')
    expect(done).toEqual(['bench', 'pedal'])
  })
  it('after half an hour away wakes only', () => {
    press('o')
    vi.advanceTimersByTime(30 * 60 * 1000 + 1)
    press(' ')
    expect(done).toEqual(['leave open'])
    vi.advanceTimersByTime(700)
    press(' ')
    expect(done).toEqual(['leave open', 'bench'])
  })
})

describe('while something is typed', () => {
  beforeEach(() => {
    document.body.insertAdjacentHTML('beforeend', '<input id="f" /><button id="b">x</button>')
  })
  it('letters and digits are the field, pedals still work', () => {
    document.getElementById('f')?.focus()
    press('o')
    press('5')
    press('PageDown')
    expect(done).toEqual(['pedal'])
  })
  it('Space and Backspace are the button that has the focus, other keys are not', () => {
    document.getElementById('b')?.focus()
    press(' ')
    press('Backspace')
    press('5')
    expect(done).toEqual(['five'])
  })
  it('arrows are the choice that has the focus, digits and letters are not', () => {
    document.body.insertAdjacentHTML('beforeend', '<input id="r" type="radio" />')
    document.getElementById('r')?.focus()
    expect(press('ArrowRight')).toBe(false)
    press(' ')
    expect(done).toEqual([])
    press('5')
    press('o')
    expect(done).toEqual(['five', 'leave open'])
  })
  it('an open dialog has all keys', () => {
    document.body.insertAdjacentHTML('beforeend', '<div class="el-overlay"></div>')
    press('o')
    press('PageDown')
    expect(done).toEqual([])
  })
})

describe('left, left, right', () => {
  it('within four seconds strikes, and presses nothing else', () => {
    press('PageUp')
    press('PageUp')
    press('PageDown')
    expect(done).toEqual(['read out', 'read out', 'strike'])
  })
  it('later is a press of the right pedal', () => {
    press('PageUp')
    vi.advanceTimersByTime(4001)
    press('PageUp')
    press('PageDown')
    expect(done.at(-1)).toBe('pedal')
  })
})

describe('while a danger is on', () => {
  let on = true
  let over: () => void = () => undefined
  beforeEach(() => {
    on = true
    const part = defineComponent({
      setup: () => (
        useKeys(
          () => ({ ' ': says('stop'), Enter: says('stop'), PageUp: says('stop'), o: says('lamp') }),
          () => on,
        ),
        () => h('div')
      ),
    })
    const app = createApp(part)
    app.mount(document.body.appendChild(document.createElement('div')))
    over = () => app.unmount()
    document.body.insertAdjacentHTML('beforeend', '<input id="f" /><button id="b">x</button>')
  })
  afterEach(() => over())
  it('Space, Enter and pedals end it, whatever button was pressed last', () => {
    document.getElementById('b')?.focus()
    expect(press(' ')).toBe(true)
    expect(press('Enter')).toBe(true)
    expect(press('PageUp')).toBe(true)
    expect(done).toEqual(['stop', 'stop', 'stop'])
  })
  it('neither half an hour without a press nor a quick second one holds it up', () => {
    press('o')
    vi.advanceTimersByTime(30 * 60 * 1000 + 1)
    press(' ')
    press(' ')
    expect(done).toEqual(['lamp', 'stop', 'stop'])
  })
  it('a figure that is being typed keeps its keys, the pedals do not', () => {
    document.getElementById('f')?.focus()
    expect(press(' ')).toBe(false)
    press('PageUp')
    expect(done).toEqual(['stop'])
  })
  it('over, it is a key like any other', () => {
    on = false
    document.getElementById('b')?.focus()
    press(' ')
    expect(done).toEqual([])
  })
})
