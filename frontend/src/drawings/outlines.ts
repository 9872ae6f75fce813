/** Silhouettes of parts between two ends, generated from their kind; `high` is the room there is. */

const box = (a: number, b: number, top: number, bottom: number) => `M${a} ${top} H${b} V${bottom} H${a} Z`

/** A closed path from x `a` to x `b`, never outside them, at most `high` tall. */
export function outline(shape: string, a: number, b: number, high: number): string {
  const wide = b - a
  const mid = high / 2
  const slim = Math.min(7, high / 6)
  if (shape === 'bolt') {
    const head = Math.min(22, wide / 4)
    return `${box(a, a + head, mid - 18, mid + 18)} ${box(a + head, b, mid - 9, mid + 9)}`
  }
  if (shape === 'shaft') {
    const cuts = [0, 0.18, 0.42, 0.7, 1].map((part) => a + wide * part)
    const tall = [10, 20, 15, 9]
    return tall.map((t, k) => box(cuts[k], cuts[k + 1], mid - t, mid + t)).join(' ')
  }
  if (shape === 'pipe' || shape === 'hose') {
    const t = shape === 'hose' ? slim * 1.7 : slim
    const y = [mid - 12, mid + 12]
    const bend = [a + wide * 0.5, a + wide * 0.68]
    const over = (d: number) =>
      `H${bend[0]} C${bend[0] + 12} ${y[0] + d}, ${bend[1] - 12} ${y[1] + d}, ${bend[1]} ${y[1] + d} H${b}`
    const back = (d: number) =>
      `H${bend[1]} C${bend[1] - 12} ${y[1] + d}, ${bend[0] + 12} ${y[0] + d}, ${bend[0]} ${y[0] + d} H${a}`
    return `M${a} ${y[0] - t} ${over(-t)} V${y[1] + t} ${back(t)} Z`
  }
  if (shape === 'disc' || shape === 'seal' || shape === 'gasket') {
    const rim = Math.max(4, wide * (shape === 'gasket' ? 0.08 : 0.16))
    const bore = wide - 2 * rim
    const slimmer = shape === 'gasket' ? 8 : 20
    if (bore <= 6) return box(a, b, mid - slimmer, mid + slimmer)
    const left = box(a, a + rim, mid - slimmer, mid + slimmer)
    const right = box(b - rim, b, mid - slimmer, mid + slimmer)
    return `${left} ${right} ${box(a + rim, b - rim, mid - 3, mid + 3)}`
  }
  return box(a, b, mid - 20, mid + 20)
}
