/** Where everything of the block of evenings stands: slots, slugs, galleries, drillings. Pure, in px. */

export interface SlugIn {
  id: string
  name: string
  words: string
  number: string
  start: number
  end: number
  people: number
  chain: boolean
  now: boolean
}
export interface EveningIn {
  key: string
  minutes: number
  gap: string
  slugs: readonly SlugIn[]
  people: readonly { words: string; start: number; end: number; perhaps: boolean }[]
  comes: readonly { words: string; open_end: boolean }[]
}
export interface RunIn {
  from_slug: string
  to_slug: string
  words: string
  chain: boolean
}
export interface Box {
  x: number
  y: number
  w: number
  h: number
}
export interface SlugBox extends Box {
  slug: SlugIn
  name: string
  words: string
}
export interface Slot extends Box {
  key: string
  slugs: SlugBox[]
  recess: (Box & { words: string; perhaps: boolean })[]
  drillings: (Box & { words: string; open: boolean })[]
  gap: string
}
export interface Gallery {
  path: string
  words: string
  chain: boolean
  x: number
  y: number
}
export interface BlockPlan {
  slots: Slot[]
  galleries: Gallery[]
  width: number
  height: number
  perHour: number
}

const HIGH = 54
const GAP = 13
const EXTRA = 22
const RECESS = 22
const LEFT = 20
const PITCH = 18
export const LETTER = 9.6 // px of a letter of 20 px, wide enough that no name leaves its slug

/** A name that fits into so many px: whole, then shorter, then its number, then nothing. */
export function fitted(name: string, number: string, wide: number): string {
  const room = Math.floor((wide - 18) / LETTER)
  if (name.length <= room) return name
  if (room >= 6) return `${name.slice(0, room - 1).trimEnd()}…`
  return number.length <= room ? number : ''
}

function slotOf(evening: EveningIn, y: number, perHour: number): Slot {
  const px = (minutes: number) => (minutes / 60) * perHour
  const people = evening.slugs.some((s) => s.people > 1)
  const w = px(evening.minutes)
  return {
    key: evening.key,
    x: LEFT,
    y,
    w,
    h: HIGH,
    gap: evening.gap,
    slugs: evening.slugs.map((slug) => {
      const tall = slug.people > 1 ? 16 : 0
      const wide = Math.max(3, px(slug.end - slug.start) - 3)
      return {
        slug,
        x: LEFT + px(slug.start) + 1.5,
        y: y + 5 - tall,
        w: wide,
        h: HIGH - 10 + tall,
        name: fitted(slug.name, slug.number, wide),
        words: fitted(slug.words, '', wide * 1.2),
      }
    }),
    recess: evening.people.map((p) => ({
      x: LEFT + px(p.start),
      y: y - (people ? RECESS : RECESS - 2),
      w: px(p.end - p.start),
      h: RECESS,
      words: p.words,
      perhaps: p.perhaps,
    })),
    drillings: evening.comes.map((c, k) => ({
      x: LEFT + w,
      y: y + 4 + k * 26,
      w: 0,
      h: 24,
      words: c.words,
      open: c.open_end,
    })),
  }
}

/**
 * The block for these evenings, so wide that the longest fits. Galleries run down right of the longest slot
 * between their ends, each in a lane of its own, so that no two overlap and none crosses a slot.
 */
export function blockOf(
  evenings: readonly EveningIn[],
  runs: readonly RunIn[],
  width: number,
  most = 150,
): BlockPlan {
  const longest = Math.max(60, ...evenings.map((e) => e.minutes))
  const perHour = Math.min(most, (width - LEFT - 60) / (longest / 60))
  let y = 14
  const slots = evenings.map((evening) => {
    if (evening.gap) y += EXTRA
    if (evening.people.length) y += RECESS
    const drilled = Math.max(0, evening.comes.length - 2) * 26
    const slot = slotOf(evening, y, perHour)
    y += HIGH + GAP + drilled
    return slot
  })
  return { slots, galleries: galleriesOf(slots, runs), width, height: y + 6, perHour }
}

function galleriesOf(slots: readonly Slot[], runs: readonly RunIn[]): Gallery[] {
  const at = new Map<string, { slot: number; box: SlugBox }>()
  slots.forEach((slot, k) => slot.slugs.forEach((box) => at.set(box.slug.id, { slot: k, box })))
  const lanes: { from: number; to: number }[][] = []
  return runs.flatMap((run) => {
    const a = at.get(run.from_slug)
    const b = at.get(run.to_slug)
    if (!a || !b || a.slot >= b.slot) return []
    const between = slots.slice(a.slot, b.slot + 1)
    const right = Math.max(...between.map((s) => s.x + s.w)) + 14
    const from = a.box.y + a.box.h
    const to = b.box.y
    let lane = lanes.findIndex((taken) => taken.every((t) => to < t.from || from > t.to))
    if (lane < 0) lane = lanes.push([]) - 1
    lanes[lane].push({ from, to })
    const x = right + lane * PITCH
    const begin = a.box.x + Math.min(a.box.w / 2, 30)
    const end = b.box.x + Math.min(b.box.w / 2, 30)
    const under = slots[a.slot].y + HIGH + GAP / 2
    const over = slots[b.slot].y - GAP / 2
    return [
      {
        path: `M${begin} ${from} V${under} H${x} V${over} H${end} V${to}`,
        words: run.words,
        chain: run.chain,
        x: x + 10,
        y: (under + over) / 2,
      },
    ]
  })
}

/** Where a slug stood in another plan: its evening by key, minutes from its start. */
export interface GhostIn {
  evening: string
  start: number
  end: number
}

/** The places of ghosts in the slots that are drawn; those of other evenings are left out. */
export function ghostsOf(block: BlockPlan, ghosts: readonly GhostIn[]): Box[] {
  const px = (minutes: number) => (minutes / 60) * block.perHour
  return ghosts.flatMap((ghost) => {
    const slot = block.slots.find((s) => s.key === ghost.evening)
    if (!slot) return []
    return [{ x: slot.x + px(ghost.start), y: slot.y + 3, w: px(ghost.end - ghost.start), h: slot.h - 6 }]
  })
}
