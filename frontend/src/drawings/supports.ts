/**
 * Where the supports of a load map are drawn. Every support gets a mark: one that nobody placed stands in
 * the margin.
 */

export interface Support {
  kind: string
  carries: string
  x: number | null
  y: number | null
  stays: boolean
}

/** A mark of the drawing: `numbers` as in the list, from 1. */
export interface Mark {
  x: number
  y: number
  kind: string
  stays: boolean
  numbers: number[]
}

const MARGIN_X = 26
const MARGIN_Y = 38
const SIDE_WIDE = 0.075
const PLAN_WIDE = 36

const placed = (s: Support): s is Support & { x: number; y: number } => s.x !== null && s.y !== null

/**
 * From the side, as shares of the length: those of a kind at one place are one mark, other kinds at that
 * place stand beside it.
 */
export function sideMarks(
  supports: readonly Support[],
  along: (s: Support, x: number) => number = (_s, x) => x,
): Mark[] {
  const marks: (Mark & { at: number })[] = []
  supports.forEach((s, k) => {
    if (!placed(s)) return
    const at = along(s, s.x)
    const same = marks.find((m) => Math.abs(m.at - at) < 0.03 && m.kind === s.kind)
    if (same) {
      same.numbers.push(k + 1)
      same.stays &&= s.stays
      return
    }
    let x = at
    while (marks.some((m) => Math.abs(m.x - x) < SIDE_WIDE - 0.015)) x += SIDE_WIDE
    marks.push({ at, x, y: s.y, kind: s.kind, stays: s.stays, numbers: [k + 1] })
  })
  return marks
}

/** From above, in the drawing's own units: one mark a support, moved along where another stands already. */
export function planMarks(
  supports: readonly Support[],
  X: (x: number) => number,
  Y: (y: number) => number,
): Mark[] {
  const marks: Mark[] = []
  supports.forEach((s, k) => {
    if (!placed(s)) return
    let x = X(s.x)
    const y = Y(s.y)
    while (marks.some((m) => Math.abs(m.x - x) < PLAN_WIDE && Math.abs(m.y - y) < PLAN_WIDE)) x += PLAN_WIDE
    marks.push({ x, y, kind: s.kind, stays: s.stays, numbers: [k + 1] })
  })
  return marks
}

/** Those that nobody placed, one below the other in the margin. */
export function looseMarks(supports: readonly Support[], top: number): Mark[] {
  return supports
    .map((s, k) => ({ s, k }))
    .filter(({ s }) => !placed(s))
    .map(({ s, k }, row) => ({
      x: MARGIN_X,
      y: top + row * MARGIN_Y,
      kind: s.kind,
      stays: s.stays,
      numbers: [k + 1],
    }))
}
