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
