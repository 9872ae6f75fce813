/**
 * Keys and pedals. Presses only, held keys do not repeat, and a control that has the focus takes Space for
 * itself.
 */
import { onMounted, onUnmounted } from 'vue'

const WAKE_AFTER_MS = 30 * 60 * 1000
const TWICE_MS = 600
let lastPress = Date.now()
let lastPrimary = 0

type Action = () => unknown
export type KeyMap = Record<string, Action>

const isChoice = (at: Element | null) => at instanceof HTMLInputElement && at.type === 'radio'

function typing(): boolean {
  const at = document.activeElement
  return (
    (at instanceof HTMLInputElement && !isChoice(at)) ||
    at instanceof HTMLTextAreaElement ||
    at instanceof HTMLSelectElement
  )
}

function focusTakes(key: string): boolean {
  const at = document.activeElement
  const control =
    at instanceof HTMLButtonElement ||
    at instanceof HTMLAnchorElement ||
    isChoice(at) ||
    at?.getAttribute('role') === 'button'
  return (
    control && [' ', 'Enter', 'Backspace', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'].includes(key)
  )
}

function dialogOpen(): boolean {
  return [...document.querySelectorAll<HTMLElement>('.el-overlay')].some((o) => o.style.display !== 'none')
}

/** Whether a press of the primary key is a second one within 0.6 s. */
export function pressedTwice(): boolean {
  const now = Date.now()
  const twice = now - lastPrimary < TWICE_MS
  if (!twice) lastPrimary = now
  return twice
}

const STRIKE_MS = 4000 // left, left, then right within this strikes the last line
let lefts: number[] = []

const maps: (() => KeyMap)[] = []

function pressed(event: KeyboardEvent) {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || dialogOpen()) return
  const pedal = key === 'PageDown' || key === 'PageUp'
  if (!pedal && (typing() || focusTakes(key))) return
  if (key === 'PageUp') lefts = [...lefts, Date.now()].slice(-2)
  const strikes = key === 'PageDown' && lefts.length === 2 && Date.now() - lefts[0] < STRIKE_MS
  if (key === 'PageDown') lefts = []
  if (strikes) {
    event.preventDefault()
    lastPress = Date.now()
    maps.map((map) => map().Backspace).find((found) => found !== undefined)?.()
    return
  }
  const action = maps.map((map) => map()[key]).find((found) => found !== undefined)
  if (!action) return
  event.preventDefault()
  const away = Date.now() - lastPress > WAKE_AFTER_MS
  lastPress = Date.now()
  if (away && (key === ' ' || pedal)) return
  if ((key === ' ' || key === 'PageDown') && pressedTwice()) return
  action()
}

/**
 * `keys` maps a key (lower case letters, " ", "PageDown" ...) to what it does; read anew at each press.
 * One press does one thing: what was mounted last (a bench, after the frame inside it) goes first.
 */
export function useKeys(keys: () => KeyMap): void {
  onMounted(() => {
    if (!maps.length) window.addEventListener('keydown', pressed)
    maps.unshift(keys)
  })
  onUnmounted(() => {
    maps.splice(maps.indexOf(keys), 1)
    if (!maps.length) window.removeEventListener('keydown', pressed)
  })
}
