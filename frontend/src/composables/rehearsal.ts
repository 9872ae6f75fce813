/** A first start rehearsed: dealt by the server, played here at true speed, judged by the server. */
import { computed, onScopeDispose, ref } from 'vue'
import { client, got, type Schemas } from '@/api/client'
import { useServer } from './server'

type Deal = Schemas['Deal']
type Played = Schemas['Played']
export type Gauge = Exclude<Schemas['HandAct']['what'], 'key'>
interface Try {
  late: number | null
  ok: boolean
}
/** Gauges and where else one looks, each with its letter. */
export const GAUGES: readonly (readonly [Gauge, string, string, string])[] = [
  ['oil', 'Oil', 'bar', 'O'],
  ['coolant', 'Coolant', '°C', 'C'],
  ['rpm', 'Revs', 'r/min', 'R'],
  ['lamp', 'Lamp', '', 'P'],
  ['leak', 'Round it', '', 'L'],
]
const SHOWN_S = 1.5 // how long a gauge stays in sight after it was looked at
const KEPT = 'hollet.rehearsal'
const UNJUDGED = 'hollet.rehearsal.unjudged'
const MOST = 12

/** What this device kept under a name; what another version kept there is nothing. */
function kept<T>(name: string, none: T): T {
  try {
    return (JSON.parse(localStorage.getItem(name) ?? 'null') as T | null) ?? none
  } catch {
    return none
  }
}

export function useRehearsal() {
  const { problem, served } = useServer()
  const deal = ref<Deal | null>(null)
  const played = ref<Played | null>(null)
  const playing = ref(false)
  const watched = ref(false) // run to be seen: every gauge open, nothing judged
  const clock = ref(0)
  const acts = ref<Schemas['HandAct'][]>([])
  const tries = ref(kept<Record<string, Try[]>>(KEPT, {}))
  /** A start that was played while Hollet could not be reached: it waits to be judged. */
  const unjudged = ref(kept<Schemas['RehearsalPlayed'] | null>(UNJUDGED, null))
  const chosen = ref<string | null>(null)
  let began = 0
  let frame = 0

  const beat = computed(() => Math.round(clock.value / (deal.value?.beat_s ?? 0.1)))
  const heard = computed(() => deal.value?.tells.filter((t) => t.at_s <= clock.value) ?? [])

  function tick() {
    if (!playing.value || !deal.value) return
    clock.value = (performance.now() - began) / 1000
    if (clock.value >= deal.value.ends_s) return void judge()
    frame = requestAnimationFrame(tick)
  }
  async function start(seed: number | null, fault: string | null, seen = false) {
    const found = await served(() => got(client.POST('/api/rehearsal/deal', { body: { seed, fault } })))
    if (!found) return
    deal.value = found as Deal
    played.value = null
    chosen.value = fault
    watched.value = seen
    acts.value = []
    clock.value = 0
    playing.value = true
    began = performance.now()
    frame = requestAnimationFrame(tick)
  }
  function look(what: Gauge) {
    if (playing.value) acts.value.push({ at_s: Number(clock.value.toFixed(2)), what })
  }
  const inSight = (what: Gauge) =>
    watched.value || acts.value.some((a) => a.what === what && clock.value - a.at_s < SHOWN_S)
  /** What a gauge shows now. */
  function reads(what: Gauge): string {
    const now = deal.value
    if (!now) return ''
    const k = Math.min(beat.value, now.rpm.length - 1)
    const oil = now.oil[k]
    return {
      oil: oil === null ? 'nothing' : oil.toFixed(1),
      coolant: now.coolant[k].toFixed(0),
      rpm: now.rpm[k].toFixed(0),
      lamp: now.lamp[k] ? 'on' : 'out',
      leak: now.wet_s !== null && clock.value >= now.wet_s ? 'wet' : 'dry',
    }[what]
  }
  function key() {
    if (!playing.value) return
    acts.value.push({ at_s: Number(clock.value.toFixed(2)), what: 'key' })
    void judge()
  }
  async function judge() {
    playing.value = false
    cancelAnimationFrame(frame)
    if (watched.value || !deal.value) return
    unjudged.value = { seed: deal.value.seed, fault: chosen.value, acts: acts.value }
    localStorage.setItem(UNJUDGED, JSON.stringify(unjudged.value))
    await judged()
  }
  function dropped() {
    unjudged.value = null
    localStorage.removeItem(UNJUDGED)
  }
  /** How the start that waits was played. */
  async function judged() {
    const body = unjudged.value
    if (!body) return
    const found = await served(() => got(client.POST('/api/rehearsal/played', { body })))
    if (!found) return
    dropped()
    played.value = found as Played
    const { fault, late_s: late, in_time: ok } = played.value
    tries.value = { ...tries.value, [fault]: [...(tries.value[fault] ?? []), { late, ok }].slice(-MOST) }
    localStorage.setItem(KEPT, JSON.stringify(tries.value))
  }
  onScopeDispose(() => cancelAnimationFrame(frame))
  return {
    problem,
    deal,
    played,
    playing,
    watched,
    clock,
    heard,
    acts,
    tries,
    unjudged,
    judged,
    dropped,
    start,
    look,
    inSight,
    reads,
    key,
  }
}
