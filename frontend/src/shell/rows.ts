/** The strip: its rows one below the other, and the strands of what is left open down to the gate. */
import type { BookFrame } from '@/api/client'

export interface Row {
  type: 'stage' | 'step'
  id: string
  y: number
  h: number
  text: string
  count?: string
  state: string
  now: boolean
}
const [STAGE_H, STEP_H, NOW_H] = [44, 38, 48]
const SHOWN = 5 // steps of the stage that is open, unless all are asked for
const STRANDS = 6

/** `open` is the stage that shows its steps, all of them when `whole`; `step` the one on the screen. */
export function rowsOf(frame: BookFrame, open: string, step: string | null, whole: boolean): Row[] {
  const found: Row[] = []
  let y = 0
  const add = (row: Omit<Row, 'y'>) => {
    found.push({ ...row, y })
    y += row.h
  }
  for (const stage of frame.stages) {
    const isOpen = stage.id === open
    const all = stage.total > 0 && stage.done === stage.total
    const begun = !all && stage.done > 0
    add({
      type: 'stage',
      id: stage.id,
      h: STAGE_H,
      text: stage.name,
      count: isOpen || begun ? `${stage.done}/${stage.total}` : undefined,
      state: all ? 'done' : isOpen ? 'open' : begun ? 'begun' : 'todo',
      now: false,
    })
    if (!isOpen) continue
    for (const s of shownSteps(frame, stage.id, step ?? frame.current, whole)) {
      const now = s.id === step
      const text = `${s.number} ${s.short}`
      add({ type: 'step', id: s.id, h: now ? NOW_H : STEP_H, text, state: s.look, now })
    }
  }
  return found
}
/** The steps of a stage round the one in hand. */
function shownSteps(frame: BookFrame, stage: string, here: string, whole: boolean) {
  const steps = frame.steps.filter((s) => s.stage === stage)
  if (whole) return steps
  const at = steps.findIndex((s) => s.id === here)
  const from = Math.max(0, Math.min(at - 2, steps.length - SHOWN))
  return steps.slice(from, from + SHOWN)
}
export const tallOf = (rows: readonly Row[]) => rows.reduce((sum, row) => sum + row.h, 0)

/** Where the strands end: the middle of the stage that wakes it. */
export function gateOf(rows: readonly Row[]): number {
  const row = rows.find((r) => r.type === 'stage' && r.id === 'wake')
  return row ? row.y + row.h / 2 : tallOf(rows)
}
/** What shuts a rung, the oldest first: from its step, or its stage when that is folded, down to the gate. */
export function strandsOf(frame: BookFrame, rows: readonly Row[]) {
  const rungs = Object.keys(frame.rungs)
  const rowOf = (stage: string, step: string | null) =>
    rows.find((r) => r.type === 'step' && r.id === step) ??
    rows.find((r) => r.type === 'stage' && r.id === stage)
  const items = frame.left_open.filter((item) => item.shuts)
  return [...items]
    .sort((a, b) => a.since.localeCompare(b.since))
    .slice(0, STRANDS)
    .map((item, k) => {
      const row = rowOf(item.stage, item.step)
      return {
        id: item.id,
        x: 12 + 9 * k,
        y: (row ? row.y + row.h / 2 : 20) + (k % 3) * 9 - 9,
        end: gateOf(rows) + rungs.indexOf(item.blocks) * 5,
        dashed: k % 2 === 1,
      }
    })
}
