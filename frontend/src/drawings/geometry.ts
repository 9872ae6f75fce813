/** Pure geometry for the drawings: scales, arcs, the domain of a limit bar. No rule of the job lives here. */

export interface Bar {
  lo: number | null
  hi: number | null
  target: number | null
  value: number | null
  U: number | null
}

/** The stretch of the scale that a limit bar shows. */
export function domainOf(bar: Bar, step = 0.001): [number, number] {
  const { lo, hi, value } = bar
  const U = bar.U ?? 0
  if (lo !== null && hi !== null) {
    const band = hi - lo || Math.abs(hi) || 1
    return [lo - 0.55 * band, hi + 0.55 * band]
  }
  if (hi !== null && (value === null || (value >= -U && value < 4 * hi))) return [-0.08 * hi, 1.8 * hi]
  const limit = (lo ?? hi) as number
  const wide = Math.max(6 * U, 1.6 * Math.abs((value ?? limit) - limit), 10 * step, Math.abs(limit) * 0.3)
  return [limit - 0.8 * wide, limit + 0.8 * wide]
}

export function scale(domain: [number, number], width: number): (value: number) => number {
  const span = domain[1] - domain[0] || 1
  return (value) => ((value - domain[0]) / span) * width
}

/** An arc of a ring, clockwise from the top; angles in turns. */
export function arc(cx: number, cy: number, r: number, from: number, to: number): string {
  const at = (turn: number) =>
    [cx + r * Math.sin(2 * Math.PI * turn), cy - r * Math.cos(2 * Math.PI * turn)]
      .map((n) => n.toFixed(2))
      .join(' ')
  return `M${at(from)} A${r} ${r} 0 ${to - from > 0.5 ? 1 : 0} 1 ${at(to)}`
}

/** Path of the verdict mark with half-size s, about its centre. */
export function markPath(verdict: string, s: number): string {
  if (verdict === 'too_close') return `M0 ${-1.05 * s} L${1.05 * s} 0 L0 ${1.05 * s} L${-1.05 * s} 0 Z`
  return `M${-s} ${-s} L${1.1 * s} 0 L${-s} ${s} L${-0.45 * s} 0 Z`
}

/** Places of bolts fitted into a box, keeping their proportions where there is room. */
export function fit(
  points: { x: number; y: number }[],
  width: number,
  height: number,
  pad: number,
): { x: number; y: number }[] {
  const xs = points.map((p) => p.x)
  const ys = points.map((p) => p.y)
  const spanX = Math.max(...xs) - Math.min(...xs)
  const spanY = Math.max(...ys) - Math.min(...ys)
  const place = (value: number, least: number, span: number, size: number) =>
    span ? pad + ((value - least) / span) * (size - 2 * pad) : size / 2
  return points.map((p) => ({
    x: place(p.x, Math.min(...xs), spanX, width),
    y: height - place(p.y, Math.min(...ys), spanY, height),
  }))
}

/** A level line with an upright at each end, `half` high on either side: the reach of an uncertainty. */
export function whiskers(from: number, to: number, y: number, half: number): string {
  const line = `M${from} ${y} H${to}`
  return half ? `${line} M${from} ${y - half} v${2 * half} M${to} ${y - half} v${2 * half}` : line
}

/** An arrow between two round stations, bowed a little so that the ways there and back lie apart. */
export interface Arrow {
  d: string
  tip: { x: number; y: number }
  turn: number
}

/** The way from station `a` to station `b`, each of radius `r`; `turn` in degrees at its tip. */
export function arrow(a: { x: number; y: number }, b: { x: number; y: number }, r: number): Arrow {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const long = Math.hypot(dx, dy) || 1
  const bend = long > 60 ? 12 : 0
  const mid = { x: (a.x + b.x) / 2 - (dy / long) * bend, y: (a.y + b.y) / 2 + (dx / long) * bend }
  const toward = (end: { x: number; y: number }, gap: number) => {
    const far = Math.hypot(end.x - mid.x, end.y - mid.y) || 1
    return { x: end.x - ((end.x - mid.x) / far) * gap, y: end.y - ((end.y - mid.y) / far) * gap }
  }
  const from = toward(a, r + 1)
  const tip = toward(b, r + 3)
  const turn = (Math.atan2(b.y - mid.y, b.x - mid.x) * 180) / Math.PI
  return { d: `M${from.x} ${from.y} Q${mid.x} ${mid.y} ${tip.x} ${tip.y}`, tip, turn }
}
