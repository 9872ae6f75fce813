/** Which bolt is in hand, by the core's own list, and what a press does to one. */
import { computed } from 'vue'
import type { Entry, TightenBenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import type { Question } from './asking'
import { useKept } from './kept'

type Fastener = Extract<Entry, { kind: 'fastener' }>
type Own = Omit<Fastener, 'kind' | 'step' | 'bolt'>

export function useBolts(bench: () => TightenBenchView) {
  const book = useBook()
  const joint = computed(() => bench().joint)
  const setting = computed(() => bench().setting)
  /** The bench moves on along the core's own list, and takes none twice. */
  const pulled = useKept('fastener', () => bench().base.step, true)
  const kept = computed(() => (book.busy ? [] : pulled.value.map((entry) => entry.bolt)))
  const next = computed(() =>
    kept.value.length
      ? (joint.value.ahead.find((n) => !kept.value.includes(n)) ?? null)
      : joint.value.next_bolt,
  )
  const stage = computed(() => joint.value.next_stage)
  const indicating = computed(() => bench().reads && setting.value?.turns === false && !setting.value.feels)
  const blocked = computed(() => !joint.value.final && next.value === null)
  const needsWrench = computed(
    () =>
      setting.value?.turns === false &&
      !setting.value.feels &&
      (setting.value.reads_off ? setting.value.refusal !== null : setting.value.set_to === null),
  )
  const ready = computed(
    () =>
      joint.value.final ||
      joint.value.to_mark ||
      joint.value.to_lock !== null ||
      (!needsWrench.value && !bench().wide && !indicating.value && !blocked.value),
  )
  const title = computed(() => {
    if (joint.value.final) return `${joint.value.name}: final`
    if (joint.value.to_mark) return `Bolt ${next.value}: mark it`
    if (joint.value.to_lock) return `Bolt ${next.value}: set its lock`
    if (kept.value.length && next.value === null)
      return `${kept.value.length} bolts wait to be saved: nothing more until they are`
    return stage.value ? `Bolt ${next.value}, stage ${stage.value}` : (joint.value.waits ?? joint.value.name)
  })
  const say = computed(() => {
    const own = setting.value?.reads_off ? (setting.value.unit ?? '') : 'newton metres'
    const unit = setting.value?.turns ? 'degrees' : own
    return `Bolt ${next.value}, stage ${stage.value}, ${setting.value?.figure} ${unit}`
  })
  return { joint, setting, kept, next, stage, indicating, blocked, needsWrench, ready, title, say }
}

/** What is done to one bolt by a press; `asker` asks for a reason. */
export function useBoltActs(
  bench: () => TightenBenchView,
  hand: Pick<ReturnType<typeof useBolts>, 'next' | 'stage'>,
  asker: () => { ask: (question: Question) => Promise<string> | undefined } | null,
) {
  const book = useBook()
  const stageOf = (bolt: number) => bench().joint.bolts[bolt - 1].stage
  const act = (bolt: number, own: Own) =>
    book.act({ kind: 'fastener', step: bench().base.step, bolt, ...own })

  /** The bolt in hand got what its stage asks, or its mark. */
  async function confirm() {
    const bolt = hand.next.value
    if (bolt === null) return
    const { to_mark, to_lock } = bench().joint
    const last = to_mark ? ('marked' as const) : to_lock ? ('locked' as const) : null
    await act(bolt, last ? { act: last } : { act: 'clicked', stage: hand.stage.value })
  }
  const again = (bolt: number) => act(bolt, { act: 'clicked', stage: stageOf(bolt), note: 'put right' })
  /** The bolt pulled last, pulled once more at the same setting; never after an angle. */
  async function checkAgain(moved: boolean) {
    const bolt = bench().joint.last_bolt
    if (bolt === null) return
    const note = moved
      ? 'checked again, it moved before the click'
      : 'checked again, it clicked without moving'
    await act(bolt, { act: 'clicked', stage: stageOf(bolt), note })
  }
  const outOfOrder = (bolt: number) =>
    act(bolt, { act: 'clicked', stage: hand.stage.value, note: 'out of order', sure: true })
  const state = (bolt: number, tightness: Own['tightness']) => act(bolt, { act: 'state', tightness })
  /** Its hole stays empty for a part that is still to come: which one. */
  async function leaveEmpty(bolt: number) {
    const note = await asker()?.ask({
      title: `Bolt ${bolt} stays out for now`,
      button: 'Left empty for it',
      least: 3,
      why: 'For which part is its hole left empty? The joint is final only once it is in.',
    })
    if (note) await act(bolt, { act: 'state', tightness: 'left out on purpose', note })
  }
  async function passOver(bolt: number) {
    const reason = await asker()?.ask({
      title: `Leave bolt ${bolt} as it is`,
      button: 'Left with this reason',
      keys: bench().bolt_keys,
      least: 10,
      why: 'It stays marked, and the joint counts it as passed over.',
    })
    const about = { about: 'pass_over' as const, bolt, stage: stageOf(bolt) }
    if (reason) await book.act({ kind: 'decision', step: bench().base.step, ...about, reason })
  }
  return { act, confirm, again, checkAgain, outOfOrder, state, leaveEmpty, passOver }
}
