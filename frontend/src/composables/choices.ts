/**
 * What is chosen at a measuring step once its figures are read: the shims of a gap, which piston goes where,
 * which shim to which valve. The core proposes; a hand takes it or swaps two.
 */
import { computed, reactive, ref, watch } from 'vue'
import type { MeasureBenchView } from '@/api/client'
import { useBook } from '@/stores/book'

export type Choices = ReturnType<typeof useChoices>

/** `bench` is the measuring step on the screen, `reading` whether a figure is still to be typed. */
export function useChoices(bench: () => MeasureBenchView, reading: () => boolean) {
  const book = useBook()
  const asked = ref<boolean | null>(null) // shown or hidden by hand; null: as the step needs it
  const form = ref(false)
  const total = ref<number | null>(null)
  const swapped = ref<string[]>([])

  const open = computed(() => {
    const { packs, match, valve_shims, carrier } = bench()
    const pack = packs.find((p) => p.chooses && p.bare)
    const due =
      !reading() &&
      !bench().base.settled &&
      (!!pack || (!!match?.ready && match.chooses) || !!valve_shims || !!carrier)
    return asked.value ?? due
  })
  const pack = computed(() => {
    const { packs } = bench()
    return open.value ? (packs.find((p) => p.chooses && p.bare) ?? packs.find((p) => p.bare) ?? null) : null
  })
  const row = computed(
    () => pack.value?.rows.find((r) => r.total === total.value) ?? pack.value?.best ?? null,
  )
  const match = computed(() => {
    const found = bench().match
    return open.value && found?.ready ? found : null
  })
  const table = computed(() => (open.value ? bench().valve_shims : null))
  const carrier = computed(() => (open.value ? bench().carrier : null))
  const swaps = computed(() => !!table.value && table.value.moves.length > 0 && !table.value.changed)
  /** As somebody swapped them, as they were taken, or as proposed. */
  const inners = computed(() => {
    if (swapped.value.length) return swapped.value
    const lanes = match.value?.lanes ?? []
    const by = (key: 'lies_in' | 'best') => lanes.map((l) => l.options.find((o) => o[key])?.inner)
    const found = match.value?.chooses ? by('best') : by('lies_in')
    return found.every(Boolean) ? (found as string[]) : lanes.map((l, k) => l.options[k].inner)
  })
  const given = computed(() =>
    (match.value?.lanes ?? []).map((lane, k) => ({
      name: lane.outer_text,
      option: lane.options.find((o) => o.inner === inners.value[k]) ?? null,
    })),
  )
  function swapTo(lane: number, inner: string) {
    const now = [...inners.value]
    const other = now.indexOf(inner)
    ;[now[lane], now[other]] = [now[other], now[lane]]
    swapped.value = now
  }
  function reset() {
    asked.value = total.value = null
    form.value = false
    swapped.value = []
  }
  async function putIn() {
    const { step } = bench().base
    if (!pack.value || !row.value) return
    if (await book.act({ kind: 'pack put', step, pack: pack.value.id, shims: row.value.pieces })) reset()
  }
  async function takePairs() {
    if (await book.act({ kind: 'pairs taken', step: bench().base.step, inners: inners.value })) reset()
  }
  async function changed() {
    if (await book.act({ kind: 'shims changed', step: bench().base.step })) reset()
  }
  /** What the large button does while something is chosen. */
  const press = computed(() => {
    if (bench().base.settled) return null
    if (pack.value) return { name: 'They are in', ready: row.value !== null, act: putIn }
    if (match.value) return { name: 'They are paired so', ready: inners.value.length > 0, act: takePairs }
    if (carrier.value && !carrier.value.is_set && !form.value && !carrier.value.wants_packs)
      return {
        name: 'Shims were moved',
        ready: true,
        act: () => {
          form.value = true
        },
      }
    if (swaps.value) return { name: 'They are changed', ready: true, act: changed }
    return null
  })
  /** The two keys beside it: what is written down first, and to the readings and back. */
  const keys = computed(() => {
    const { packs, match: found, valve_shims, carrier: between, base } = bench()
    const bare = packs.some((p) => p.bare)
    if (!(bare || found?.ready || valve_shims || between)) return null
    const shown = open.value
      ? 'The readings'
      : bare
        ? 'The shims'
        : found
          ? 'The lanes'
          : between
            ? 'The packs'
            : 'The table'
    const first = bare ? 'The drawer' : valve_shims ? 'Their shims' : between ? 'Other packs' : null
    return { form: open.value && !base.settled ? first : null, other: shown }
  })
  const turn = () => {
    asked.value = !open.value
  }
  const title = computed(
    () => pack.value?.title ?? match.value?.title ?? table.value?.title ?? carrier.value?.title,
  )
  watch(() => bench().base.step, reset)
  return reactive({
    open,
    form,
    total,
    pack,
    row,
    match,
    table,
    carrier,
    swaps,
    inners,
    given,
    press,
    keys,
    title,
    turn,
    swapTo,
  })
}
