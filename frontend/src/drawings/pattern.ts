/** Where the bolts of a joint lie on the drawing, and how each is drawn: numbers in, numbers out. */
import { arc, fit } from './geometry'

export interface DrawnBolt {
  number: number
  x: number
  y: number
  stage: number
  stages: string[]
  tightness: string
  verdict: string
  side: string | null
  gets: string
  marked: boolean
  locked: boolean
  waits: boolean
  recheck: boolean
}
export interface Place {
  x: number
  y: number
}
export const WIDTH = 640
const HEIGHT = 296
const ROUND_HEIGHT = 380
const SIDE = 90
const MANY = 12 // from here on the bolts are drawn smaller
const mean = (of: number[]) => of.reduce((sum, n) => sum + n, 0) / of.length

export const isFlat = (bolts: DrawnBolt[]) => new Set(bolts.map((b) => b.y)).size === 1
export const areMany = (bolts: DrawnBolt[]) => bolts.length > MANY
/** How far from the middle the bolts of a circle lie: nearer in where figures stand round them. */
const ringOf = (bolts: DrawnBolt[]) => (areMany(bolts) ? 150 : 122)
export const heightOf = (round: boolean) => (round ? ROUND_HEIGHT : HEIGHT)

/** How large a bolt is drawn: no two touch. */
export function radius(bolts: DrawnBolt[], round: boolean): number {
  const most = areMany(bolts) ? 20 : 31
  if (!round) return most
  const at = placesOf(bolts, true)
  const apart = at.flatMap((p, k) => at.slice(0, k).map((q) => Math.hypot(p.x - q.x, p.y - q.y)))
  return Math.min(most, Math.min(...apart) / 2 - 5)
}
/** The middle of each bolt; on circles as the joint has them, never squeezed into ovals. */
export function placesOf(bolts: DrawnBolt[], round: boolean): Place[] {
  if (round) {
    const middle = { x: mean(bolts.map((b) => b.x)), y: mean(bolts.map((b) => b.y)) }
    const wide = Math.max(...bolts.map((b) => Math.abs(b.x - middle.x))) || 1
    const high = Math.max(...bolts.map((b) => Math.abs(b.y - middle.y))) || 1
    const scale = Math.min((WIDTH / 2 - SIDE) / wide, ringOf(bolts) / high)
    return bolts.map((b) => ({
      x: WIDTH / 2 + (b.x - middle.x) * scale,
      y: ROUND_HEIGHT / 2 - (b.y - middle.y) * scale,
    }))
  }
  const flat = isFlat(bolts)
  const pad = areMany(bolts) ? 36 : 76
  const moved = { x: 34, y: flat ? 94 : 22 }
  return fit(bolts, WIDTH - 50, flat ? 130 : HEIGHT - 46, pad).map((p) => ({
    x: p.x + moved.x,
    y: p.y + moved.y,
  }))
}
/** The outline of the part that they hold. */
export function outline(places: Place[], round: boolean) {
  const [xs, ys] = [places.map((p) => p.x), places.map((p) => p.y)]
  const pad = round ? 36 : 30
  return {
    x: Math.max(30, Math.min(...xs) - pad - 16),
    y: Math.min(...ys) - pad,
    w: Math.max(...xs) - Math.min(...xs) + 2 * pad + 32,
    h: Math.max(...ys) - Math.min(...ys) + 2 * pad,
  }
}
/** The way from the bolt before to the next one, short of both. */
export function way(from: Place | undefined, to: Place | undefined): string {
  if (!from || !to) return ''
  const length = Math.hypot(to.x - from.x, to.y - from.y)
  if (!length) return ''
  const [ux, uy] = [(to.x - from.x) / length, (to.y - from.y) / length]
  return `M${from.x + ux * 40} ${from.y + uy * 40} L${to.x - ux * 56} ${to.y - uy * 56}`
}
/** The ring round a bolt: a piece for each stage, those it has had dark, one outside its limits red. */
export function ring(bolt: DrawnBolt, at: Place, r: number, stages: number) {
  const gap = stages > 1 ? 0.035 : 0.001
  return Array.from({ length: stages }, (_, k) => ({
    d: arc(at.x, at.y, r, k / stages + gap / 2, (k + 1) / stages - gap / 2),
    colour: k < bolt.stage ? (bolt.stages[k] === 'outside' ? 'var(--out)' : 'var(--ink)') : 'var(--hair)',
  }))
}
/** The fill of a bolt: yellow in hand, dark when it has what this stage asks, else empty. */
export function centre(bolt: DrawnBolt, inHand: boolean, stageNow: number | null): string {
  if (inHand) return 'var(--yel)'
  const done = stageNow === null ? bolt.stage > 0 : bolt.stage >= stageNow
  return done && bolt.verdict !== 'outside' ? 'var(--ink)' : 'var(--now)'
}
/** The colour of what is written in it. */
export function ink(bolt: DrawnBolt, inHand: boolean, stageNow: number | null): string {
  if (inHand) return 'var(--onyel)'
  if (bolt.verdict === 'outside') return 'var(--out)'
  return centre(bolt, inHand, stageNow) === 'var(--ink)' ? 'var(--now)' : 'var(--ink)'
}
/** How far round a bolt is drawn that has no figure: by hand, snug, cinched. */
export const TURN: Record<string, number> = { 'by hand': 0.25, snug: 0.5, cinched: 0.75 }
export const wedge = (at: Place, r: number, turn: number) =>
  `${arc(at.x, at.y, r - 7, 0, turn)} L${at.x} ${at.y} Z`
/** Where its figure stands: away from the middle of the part; round about where that is a circle. */
export function labelAt(at: Place, r: number, above: boolean, round: boolean): Place {
  if (!round) return { x: at.x, y: above ? at.y - r - 26 : at.y + r + 42 }
  const [dx, dy] = [at.x - WIDTH / 2, at.y - ROUND_HEIGHT / 2]
  const far = Math.hypot(dx, dy) || 1
  return { x: at.x + (dx / far) * (r + 50), y: at.y + (dy / far) * (r + 22) + 8 }
}
