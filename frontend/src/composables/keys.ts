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

interface Keys {
  map: () => KeyMap
  urgent: () => boolean
}
const kept: Keys[] = []
const ENDS = [' ', 'Enter', 'PageDown', 'PageUp']

/** What ends a danger: no button that has the focus, no long pause and no quick second press holds it up. */
function urgent(key: string): Action | undefined {
  if (!ENDS.includes(key)) return undefined
  return kept.find((keys) => keys.urgent())?.map()[key]
}

function pressed(event: KeyboardEvent) {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key
  if (event.repeat || event.ctrlKey || event.metaKey || event.altKey || dialogOpen()) return
  const pedal = key === 'PageDown' || key === 'PageUp'
  if (!pedal && typing()) return
  const ends = urgent(key)
  if (ends) {
    event.preventDefault()
    lastPress = Date.now()
    ends()
    return
  }
  if (!pedal && focusTakes(key)) return
  if (key === 'PageUp') lefts = [...lefts, Date.now()].slice(-2)
  const strikes = key === 'PageDown' && lefts.length === 2 && Date.now() - lefts[0] < STRIKE_MS
  if (key === 'PageDown') lefts = []
  if (strikes) {
    event.preventDefault()
    lastPress = Date.now()
    kept.map(({ map }) => map().Backspace).find((found) => found !== undefined)?.()
    return
  }
  const action = kept.map(({ map }) => map()[key]).find((found) => found !== undefined)
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
 * One press does one thing: what was mounted last (a bench, after the frame inside it) goes first. While
 * `danger` holds, its Space, Enter and pedals end it and go before everything.
 */
export function useKeys(map: () => KeyMap, danger = () => false): void {
  const keys = { map, urgent: danger }
  onMounted(() => {
    if (!kept.length) window.addEventListener('keydown', pressed)
    kept.unshift(keys)
  })
  onUnmounted(() => {
    kept.splice(kept.indexOf(keys), 1)
    if (!kept.length) window.removeEventListener('keydown', pressed)
  })
}
