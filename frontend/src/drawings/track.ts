/** Points on a fixed scale: never rescaled while a course runs, cut off at its ends. */
type Point = [number, number]

/** Where a value lies between two ends that are drawn at `from` and `to`. */
export function scaled(value: number, low: number, high: number, from: number, to: number): number {
  const share = high > low ? (value - low) / (high - low) : 0
  return from + Math.max(-0.1, Math.min(1.1, share)) * (to - from)
}

/** One path through all points. */
export function pathOf(points: Point[], x: (v: number) => number, y: (v: number) => number): string {
  return points.map(([a, b], k) => `${k ? 'L' : 'M'}${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join(' ')
}

/** Round figures between two ends, three to six of them. */
export function ticks(low: number, high: number): number[] {
  const rough = (high - low) / 5
  const power = 10 ** Math.floor(Math.log10(Math.max(rough, 1e-9)))
  const step = [1, 2, 3, 5, 10].map((n) => n * power).find((s) => s >= rough) ?? 10 * power
  const first = Math.ceil(low / step)
  const last = Math.floor(high / step)
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k) =>
    Number(((first + k) * step).toFixed(6)),
  )
}
