/** Entries about what carries the vehicle and what it can do: every field said, none left to chance. */
import { v7 } from 'uuid'
import type { Entry, SupportDesk } from '@/api/client'

type Of<K extends Entry['kind']> = Extract<Entry, { kind: K }>
type Stands = Of<'vehicle stands'>
type Known = SupportDesk['map']['supports'][number]
type Said = Pick<Of<'supported'>, 'support_kind' | 'carries' | 'point' | 'ground'> & {
  padding?: string | null
}

/** A support that is put in. */
export function putIn(said: Said): Of<'supported'> {
  const padding = said.padding?.trim() || null
  return { kind: 'supported', support: v7(), ...said, padding, rated: null, step: null, gone: false }
}

/** One that stands there, said again as it is, or taken away. */
export function saidAgain(s: Known, gone: boolean): Of<'supported'> {
  const { carries, point, padding, ground } = s
  const rated = s.rated ? `${s.rated.value} ${s.rated.unit}` : null
  return {
    kind: 'supported',
    support: s.id,
    support_kind: s.kind,
    carries,
    point,
    padding,
    ground,
    rated,
    step: null,
    gone,
  }
}

/** One thing said of the vehicle; of the others nothing is said. */
export function stands(own: Partial<Omit<Stands, 'kind'>>): Stands {
  return { kind: 'vehicle stands', rolls: null, steers: null, brakes: null, starts: null, bay: null, ...own }
}
