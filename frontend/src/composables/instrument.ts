/**
 * The instrument that a bench waits for: what it says, and what it sent. What was sent for this spot alone
 * is taken at once; what several wait for, or what was sent before, is asked.
 */
import { computed, onUnmounted, ref, watch } from 'vue'
import { Refusal, sentence, type SentView } from '@/api/client'
import { type Spot, useFeed } from '@/stores/feed'

const HERS = ['taken', 'id_used'] // by another screen meanwhile: nothing to say, nothing lost

/** `spot` is where the bench waits, `take` writes what was sent. */
export function useInstrument(spot: () => Spot | null, take: (sent: SentView) => Promise<unknown>) {
  const feed = useFeed()
  const problem = ref('')
  const troubled = ref<SentView | null>(null)
  const known = ref<string[]>([])
  const dropped = ref<string[]>([])
  const early = ref<string[] | null>(null) // what had been sent before this bench was looked at
  let first = true
  const stop = feed.listen()

  const device = computed(() => feed.view?.instruments.find((d) => d.tool === spot()?.tool) ?? null)
  const own = computed(() => (feed.view?.sent ?? []).filter((s) => s.tool === spot()?.tool))
  /** Sent, and not plainly for here: pressed, it is taken here. */
  const asked = computed(() =>
    own.value.filter((s) => known.value.includes(s.id) && !dropped.value.includes(s.id)),
  )
  /** What another instrument sent last, while none waits for it: nothing of it was taken. */
  const stray = computed(() => {
    const last = feed.view?.sent.at(-1)
    const other = last && spot() && last.tool !== spot()?.tool && !last.spots.length
    return other && !early.value?.includes(last.id) ? last : null
  })
  const hold = computed(() => {
    if (!spot()) return ''
    if (feed.deaf) return 'nothing is heard of Hollet: hold'
    return device.value?.hold ?? ''
  })

  async function taken(sent: SentView) {
    problem.value = ''
    troubled.value = null
    dropped.value.push(sent.id)
    try {
      await take(sent)
    } catch (error) {
      if (error instanceof Refusal && HERS.includes(error.problem.reason_code)) return
      problem.value = sentence(error)
      troubled.value = sent
    }
  }
  const drop = (sent: SentView) => dropped.value.push(sent.id)
  function forget() {
    problem.value = ''
    troubled.value = null
  }

  watch(
    () => JSON.stringify(spot()),
    () => {
      feed.at(spot())
      forget()
    },
    { immediate: true },
  )
  watch(own, (all) => {
    for (const sent of all) {
      if (known.value.includes(sent.id) || dropped.value.includes(sent.id)) continue
      if (!first && sent.spots.length === 1 && sent.spots[0] === feed.named) void taken(sent)
      else known.value.push(sent.id)
    }
    first = false
  })
  watch(
    () => feed.view,
    (view) => {
      if (!view) return
      early.value ??= view.sent.map((s) => s.id)
      if (!own.value.length) first = false
    },
  )
  onUnmounted(() => {
    feed.at(null)
    stop()
  })
  return { feed, device, asked, stray, hold, problem, troubled, taken, drop, forget }
}
