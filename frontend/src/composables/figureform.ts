/** A figure of the limit book as a form, and the change of the plan that is made of it. */
import type { FigureRow, PlanAct } from '@/api/client'

export interface FigureForm {
  lo: string
  hi: string
  target: string
  source: string
  page: string
  reason: string
  own: boolean
  tolerance: string
  stages: string[]
}

/** What stands in the book; whoever decided it himself is no source. */
export function filled(row: FigureRow): FigureForm {
  const { limit, joint } = row
  return {
    lo: limit?.lo ?? '',
    hi: limit?.hi ?? '',
    target: limit?.target ?? '',
    source: limit?.own ? '' : (limit?.source ?? joint?.source ?? ''),
    page: limit?.page ?? '',
    reason: '',
    own: row.decided,
    tolerance: joint?.tolerance ?? '',
    stages: (joint?.stage ?? []).map((stage) => stage.torque ?? stage.angle ?? ''),
  }
}

const text = (value: string) => value.trim() || null

/**
 * The change that the form asks for. `second`: what stands is kept, and this is what another source says;
 * `same`: it stands so in the same place of the same source.
 */
export function changeOf(row: FigureRow, form: FigureForm, second: boolean, same: boolean): PlanAct | null {
  const source = form.own ? null : text(form.source)
  if (row.joint)
    return {
      act: 'joint',
      joint: row.id,
      version: row.joint.version,
      stage: form.stages.map((stage) => stage.trim()),
      tolerance: text(form.tolerance),
      source,
      own: form.own,
    }
  if (!row.limit) return null
  const figures = {
    limit: row.id,
    version: row.limit.version,
    lo: text(form.lo),
    hi: text(form.hi),
    target: text(form.target),
    page: text(form.page),
  }
  return second
    ? { act: 'answer', ...figures, source: form.source.trim() }
    : { act: 'limit', ...figures, source, own: form.own, same_source: same }
}

/** One scale for all sources of a figure, so that they can be compared by eye. */
export function domainOf(row: FigureRow): [number, number] | undefined {
  const ends = row.sources
    .flatMap(({ bar }) => [bar.lo, bar.hi, bar.value])
    .filter((end): end is number => end !== null)
  if (ends.length < 2) return undefined
  const [least, most] = [Math.min(...ends), Math.max(...ends)]
  return [least - 0.25 * (most - least), most + 0.25 * (most - least)]
}
