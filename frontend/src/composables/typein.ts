/** Which tool a figure of a sheet typed in was read with. */
import type { MeasureBenchView } from '@/api/client'

type Reading = MeasureBenchView['readings'][number]
type Tool = MeasureBenchView['tools'][number]
type Bench = Pick<MeasureBenchView, 'readings' | 'tools'>

const known = (bench: Bench, ids: readonly string[]): Tool[] =>
  ids.map((id) => bench.tools.find((t) => t.id === id)).filter((t) => t !== undefined)

/** Every tool that may give a reading of this kind. */
export function offered(bench: Bench, kind: string): Tool[] {
  const asking = bench.readings.filter((r) => r.tool_kind === kind)
  return known(bench, [...new Set(asking.flatMap((r) => r.tools))])
}
/** The tool picked, where it may give this reading; else the best for it: a rod and a bore want two. */
export function toolFor(bench: Bench, reading: Reading, picked?: string): Tool | null {
  const may = known(bench, reading.tools)
  return may.find((t) => t.id === picked) ?? may.at(0) ?? null
}

/** Bolts as they were ticked on a card, such as "1-6 8"; a sentence where that cannot be read. */
export function ticked(text: string, most: number): { bolts: number[]; problem: string } {
  const bolts = new Set<number>()
  for (const part of text.split(/[\s,;]+/).filter(Boolean)) {
    const found = /^(\d+)(?:[-–](\d+))?$/.exec(part)
    const [from, to] = [Number(found?.[1]), Number(found?.[2] ?? found?.[1])]
    if (!found || from < 1 || to > most || from > to)
      return { bolts: [], problem: `“${part}”: bolts are 1 to ${most}, such as 1-6 8.` }
    for (let bolt = from; bolt <= to; bolt++) bolts.add(bolt)
  }
  return { bolts: [...bolts], problem: bolts.size ? '' : 'Type the bolts that are ticked, such as 1-6 8.' }
}
