/** Where each reading of a family stands on its drawing. Numbers in, numbers out: a field of 640 wide. */

export interface Place {
  x: number
  y: number
  w?: number
}
interface Word {
  x: number
  y: number
  text: string
  anchor?: 'start' | 'middle' | 'end'
  bold?: boolean
}
export interface Drawn {
  height: number
  metal: string[]
  lines: string[]
  centre: string[]
  words: Word[]
  places: Place[]
  says?: string
}
type At = readonly string[]

const unique = (all: (string | undefined)[]) => [...new Set(all.filter((t): t is string => t !== undefined))]
const box = (x: number, y: number, w: number, h: number) => `M${x} ${y}h${w}v${h}h${-w}z`
const blank = (height: number): Drawn => ({ height, metal: [], lines: [], centre: [], words: [], places: [] })

/**
 * Cylinders side by side, cut open: depths downward; along the crank at the upper left of each ellipse,
 * across at the lower right.
 */
function bores(all: readonly At[]): Drawn {
  const cylinders = unique(all.map((a) => a[0]))
  const depths = unique(all.map((a) => a[1]))
  const axes = unique(all.map((a) => a[2]))
  const left = 60
  const pitch = (640 - left) / cylinders.length
  const row = 66
  const out = {
    ...blank(30 + depths.length * row + 14),
    says: axes.length > 1 ? `Upper: ${axes[0]}, lower: ${axes[1]}` : undefined,
  }
  cylinders.forEach((name, k) => {
    const x = left + k * pitch + pitch / 2
    const wide = pitch - 34
    out.metal.push(
      box(x - wide / 2 - 12, 26, 12, depths.length * row),
      box(x + wide / 2, 26, 12, depths.length * row),
    )
    out.centre.push(`M${x} 22V${32 + depths.length * row}`)
    out.words.push({ x, y: 18, text: name, bold: true })
    depths.forEach((_, d) =>
      out.lines.push(`M${x - wide / 2} ${26 + d * row + row / 2}a${wide / 2} 9 0 0 0 ${wide} 0`),
    )
  })
  depths.forEach((name, d) =>
    out.words.push({ x: 4, y: 32 + d * row + row / 2, text: name, anchor: 'start' }),
  )
  out.places = all.map((a) => {
    const x = left + cylinders.indexOf(a[0]) * pitch + pitch / 2
    const y = 26 + depths.indexOf(a[1]) * row + row / 2
    const across = axes.indexOf(a[2]) === 1
    return { x: x + (across ? 16 : -16), y: y + (across ? 15 : -15), w: 62 }
  })
  return out
}

/** A shaft along its bearings: two ends of each journal, one row an axis. */
function journals(all: readonly At[]): Drawn {
  const names = unique(all.map((a) => a[0]))
  const ends = unique(all.map((a) => a[1]))
  const axes = unique(all.map((a) => a[2]))
  const left = 62
  const pitch = (640 - left) / names.length
  const rows = Math.max(1, axes.length)
  const high = rows * 44 + 12
  const out = blank(44 + high + 34)
  names.forEach((name, k) => {
    const x = left + k * pitch
    out.lines.push(
      box(x + 4, 36, pitch - 18, high),
      `M${x + pitch - 14} ${50}h18 M${x + pitch - 14} ${22 + high}h18`,
    )
    out.words.push({ x: x + (pitch - 10) / 2, y: 26, text: name, bold: true })
    ends.forEach((end, e) =>
      out.words.push({ x: x + 4 + ((pitch - 18) / ends.length) * (e + 0.5), y: 54 + high, text: end }),
    )
  })
  out.centre.push(`M${left - 6} ${36 + high / 2}H640`)
  axes.forEach((axis, r) => out.words.push({ x: 0, y: 68 + r * 44, text: axis, anchor: 'start' }))
  out.places = all.map((a) => ({
    x: left + names.indexOf(a[0]) * pitch + 4 + ((pitch - 18) / ends.length) * (ends.indexOf(a[1]) + 0.5),
    y: 62 + Math.max(0, axes.indexOf(a[2])) * 44,
    w: Math.min(78, (pitch - 22) / ends.length),
  }))
  return out
}

/** Shells in their order: the upper half above, the lower below; a strip alone lies in the middle. */
function shells(all: readonly At[]): Drawn {
  const names = unique(all.map((a) => a[0]))
  const halves = unique(all.map((a) => a[1]))
  const pitch = 640 / names.length
  const r = Math.min(52, pitch / 2 - 8)
  const out = blank(104 + r)
  names.forEach((name, k) => {
    const x = pitch * (k + 0.5)
    out.metal.push(
      `M${x - r} 92a${r} ${r} 0 0 1 ${2 * r} 0h-9a${r - 9} ${r - 9} 0 0 0 ${-2 * (r - 9)} 0z`,
      `M${x - r} 98a${r} ${r} 0 0 0 ${2 * r} 0h-9a${r - 9} ${r - 9} 0 0 1 ${-2 * (r - 9)} 0z`,
    )
    out.words.push({ x, y: 24, text: name, bold: true })
  })
  out.centre.push('M0 95H640')
  out.places = all.map((a) => ({
    x: pitch * (names.indexOf(a[0]) + 0.5),
    y: halves.length === 1 ? 95 : halves.indexOf(a[1]) === 0 ? 72 : 120,
    w: Math.min(78, pitch - 14),
  }))
  return out
}

/** The cylinders in a row, one line a kind of reading. */
function cylinders(all: readonly At[]): Drawn {
  const names = unique(all.map((a) => a[0]))
  const rows = unique(all.map((a) => a[1]))
  const lines = Math.max(1, rows.length)
  const left = rows.length > 1 ? 76 : 10
  const pitch = (640 - left) / names.length
  const out = blank(60 + lines * 50)
  names.forEach((name, k) => {
    const x = left + pitch * (k + 0.5)
    out.lines.push(
      `M${x - 48} 34V${50 + lines * 50} M${x + 48} 34V${50 + lines * 50} M${x - 48} 40H${x + 48}`,
    )
    out.words.push({ x, y: 24, text: name, bold: true })
  })
  if (rows.length > 1)
    rows.forEach((row, k) => out.words.push({ x: 0, y: 76 + k * 50, text: row, anchor: 'start' }))
  out.places = all.map((a) => ({
    x: left + pitch * (names.indexOf(a[0]) + 0.5),
    y: 70 + Math.max(0, rows.indexOf(a[1])) * 50,
    w: 84,
  }))
  return out
}

/** Round a gear, a flange or a face: the first place at the top, the others clockwise. */
function round(all: readonly At[]): Drawn {
  const out = blank(300)
  const n = all.length
  out.lines.push('M320 18a132 132 0 1 0 .1 0z', 'M320 110a40 40 0 1 0 .1 0z')
  out.centre.push('M170 150H470', 'M320 4V296')
  out.places = all.map((_, k) => ({
    x: 320 + 132 * Math.sin((2 * Math.PI * k) / n),
    y: 150 - 132 * Math.cos((2 * Math.PI * k) / n) + (k === 0 ? 12 : 0),
  }))
  all.forEach((a, k) =>
    out.words.push({
      x: 320 + 76 * Math.sin((2 * Math.PI * k) / n),
      y: 156 - 76 * Math.cos((2 * Math.PI * k) / n),
      text: a[0] ?? String(k + 1),
      bold: true,
    }),
  )
  return out
}

/** The vehicle from above, front at the top: left and right, front and rear, by their words. */
function corners(all: readonly At[]): Drawn {
  const out = blank(300)
  out.lines.push(
    'M240 26Q320 4 400 26L410 120V250Q320 286 230 250V120Z',
    box(206, 44, 24, 62),
    box(410, 44, 24, 62),
    box(206, 188, 24, 62),
    box(410, 188, 24, 62),
  )
  out.centre.push('M320 8V292', 'M200 75H440', 'M200 219H440')
  if (!all.some(([name]) => name === 'front')) out.words.push({ x: 320, y: 46, text: 'front' })
  out.places = all.map(([name = '']) => ({
    x: name.includes('left') ? 120 : name.includes('right') ? 520 : 320,
    y: name.includes('rear') ? 219 : 75,
    w: 110,
  }))
  all.forEach(([name = ''], k) => out.words.push({ x: out.places[k].x, y: out.places[k].y - 26, text: name }))
  return out
}

/** Shafts or spans one after the other, from the front at the left. */
function shafts(all: readonly At[]): Drawn {
  const out = blank(170)
  const pitch = 640 / all.length
  all.forEach(([name = ''], k) => {
    const tilt = all.length > 1 ? (k % 2 ? 26 : 0) : 0
    const x = pitch * k
    const from = 70 + (k % 2 ? 0 : k > 0 ? 26 : 0)
    out.lines.push(
      `M${x + 16} ${from - 8}L${x + pitch - 16} ${from + tilt - 8}V${from + tilt + 8}L${x + 16} ${from + 8}Z`,
    )
    if (k > 0) out.lines.push(`M${x} ${from - 9}a9 9 0 1 0 .1 0`)
    out.words.push({ x: x + pitch / 2, y: 36, text: name, bold: true })
  })
  out.centre.push('M0 150H640')
  out.places = all.map((_, k) => ({ x: pitch * (k + 0.5), y: 122, w: 110 }))
  return out
}

/** Pairs: from a point to another, or to what it may touch. */
function links(all: readonly At[]): Drawn {
  const out = blank(20 + all.length * 50)
  all.forEach(([a = '', b], k) => {
    const y = 34 + k * 50
    if (b !== undefined) {
      out.lines.push(box(4, y - 19, 180, 38), box(456, y - 19, 180, 38), `M184 ${y}H265 M375 ${y}H456`)
      out.words.push({ x: 94, y: y + 6, text: a }, { x: 546, y: y + 6, text: b })
    } else {
      out.words.push({ x: 250, y: y + 6, text: a, anchor: 'end' })
      out.lines.push(`M262 ${y - 17}V${y + 17} M378 ${y - 17}V${y + 17}`)
    }
  })
  out.places = all.map((_, k) => ({ x: 320, y: 34 + k * 50, w: 106 }))
  return out
}

/** Depths and lengths as dimensions from one face, one under the other. */
function stack(all: readonly At[]): Drawn {
  const out = blank(26 + all.length * 50)
  // the longest name stands before it
  const face = 16 + 12 * Math.max(3, ...all.map(([name = '']) => name.length))
  out.metal.push(box(face, 6, 34, 14 + all.length * 50))
  all.forEach(([name = ''], k) => {
    const y = 36 + k * 50
    const end = face + 190 + ((k * 97) % 200)
    out.lines.push(
      `M${face + 34} ${y}H${end} M${face + 34} ${y}l9 -4v8z ` +
        `M${end} ${y}l-9 -4v8z M${end} ${y - 18}V${y + 18}`,
    )
    out.words.push({ x: face - 10, y: y + 6, text: name, anchor: 'end', bold: true })
  })
  out.places = all.map((_, k) => ({ x: face + 112, y: 36 + k * 50, w: 100 }))
  return out
}

/**
 * A flange from above with its bolts: the first at the top, the others clockwise, the gap at each outside
 * the rim.
 */
function flange(all: readonly At[]): Drawn {
  const out = blank(330)
  const at = (k: number, r: number) => ({
    x: 320 + r * Math.sin((2 * Math.PI * k) / all.length),
    y: 165 - r * Math.cos((2 * Math.PI * k) / all.length),
  })
  out.metal.push('M320 47a118 118 0 1 0 .1 0zM320 119a46 46 0 1 1 -.1 0z')
  all.forEach((_, k) => {
    const { x, y } = at(k, 82)
    out.lines.push(`M${x} ${y - 17}l15 8.5v17l-15 8.5l-15 -8.5v-17z`)
    out.words.push({ x, y: y + 7, text: String(k + 1), bold: true })
  })
  out.centre.push('M150 165H490', 'M320 30V300')
  out.places = all.map((_, k) => {
    const p = at(k, 142)
    return { x: 320 + (p.x - 320) * 1.22, y: p.y, w: 86 }
  })
  return out
}

/** A belt over two pulleys, pressed in at the middle of its span; one span under the other. */
function belt(all: readonly At[]): Drawn {
  const out = blank(20 + all.length * 120)
  all.forEach(([name = ''], k) => {
    const y = 16 + k * 120
    out.lines.push(
      `M120 ${y + 8}a44 44 0 1 0 .1 0z M520 ${y + 22}a30 30 0 1 0 .1 0z ` +
        `M120 ${y + 8}L320 ${y + 34}L520 ${y + 22} M124 ${y + 96}L516 ${y + 82}`,
    )
    out.centre.push(
      `M120 ${y + 8}L520 ${y + 22}`,
      `M108 ${y + 52}h24M120 ${y + 40}v24M508 ${y + 52}h24M520 ${y + 40}v24`,
    )
    out.metal.push(`M313 ${y - 8}h14v30h8l-15 12l-15 -12h8z`)
    out.words.push({ x: 226, y: y + 66, text: name, bold: true })
  })
  out.places = all.map((_, k) => ({ x: 360, y: 76 + k * 120, w: 110 }))
  return out
}

/** A shaft end turned slowly: the pull round it, one beside the other. */
function turning(all: readonly At[]): Drawn {
  const out = blank(170)
  const pitch = 640 / all.length
  all.forEach(([name = ''], k) => {
    const x = pitch * (k + 0.5) - 90
    out.metal.push(`M${x} 30a56 56 0 1 0 .1 0zM${x} 66a20 20 0 1 1 -.1 0z`)
    out.lines.push(
      `M${x - 52} 28A78 78 0 0 1 ${x + 62} 40 M${x + 62} 40l-15 -3 8 -11z`,
      `M${x - 20} 86h-13M${x + 20} 86h13`,
    )
    out.centre.push(`M${x - 92} 86H${x + 92}`, `M${x} 14V158`)
    out.words.push({ x: x + 152, y: 60, text: name, bold: true })
  })
  out.places = all.map((_, k) => ({ x: pitch * (k + 0.5) + 62, y: 92, w: 110 }))
  return out
}

/** Degrees over revs: a point for each figure that was read, joined as it was read; ten degrees a line. */
function curve(all: readonly At[], values: readonly (number | null)[] = []): Drawn {
  const [left, foot, head] = [64, 210, 30]
  const known = values.filter((v): v is number => v !== null)
  const most = Math.ceil(Math.max(40, ...known) / 10) * 10
  const least = Math.floor(Math.min(0, ...known) / 10) * 10
  const high = (v: number) => foot - ((v - least) / (most - least)) * (foot - head)
  const pitch = (640 - left) / all.length
  const across = (k: number) => left + pitch * (k + 0.5)
  const out = { ...blank(262), says: 'degrees before the top, over r/min' }
  for (let v = least; v <= most; v += 10) {
    out.centre.push(`M${left} ${high(v)}H640`)
    out.words.push({ x: left - 8, y: high(v) + 5, text: `${v}°`, anchor: 'end' })
  }
  const points = all.map((_, k) => ({ x: across(k), v: values[k] ?? null }))
  const read = points.filter((p): p is { x: number; v: number } => p.v !== null)
  if (read.length) out.lines.push('M' + read.map((p) => `${p.x} ${high(p.v)}`).join('L'))
  for (const p of read) out.lines.push(`M${p.x - 4} ${high(p.v)}a4 4 0 1 0 8 0a4 4 0 1 0 -8 0`)
  all.forEach(([name = ''], k) => out.words.push({ x: across(k), y: 254, text: name, bold: true }))
  out.places = points.map((p) => ({ x: p.x, y: p.v === null ? foot - 4 : Math.max(16, high(p.v) - 24) }))
  return out
}

type Draw = (all: readonly At[], values?: readonly (number | null)[]) => Drawn
export const PLACES: Record<string, Draw> = {
  bores,
  journals,
  shells,
  cylinders,
  round,
  corners,
  shafts,
  links,
  stack,
  flange,
  belt,
  turning,
  curve,
}
