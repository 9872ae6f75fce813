/**
 * Gauges that send while an engine runs: each second the server takes what they read. Nothing of it waits in
 * a queue: a moment that was not taken is gone, and silence is STOP as ever.
 */
import { onUnmounted, watch } from 'vue'
import { useIntervalFn } from '@vueuse/core'
import { v7 } from 'uuid'
import { client, type RunBenchView } from '@/api/client'
import { useBook } from '@/stores/book'
import { useSession } from '@/stores/session'

const EACH_MS = 1000

export function useGauges(bench: () => RunBenchView) {
  const book = useBook()
  const session = useSession()
  async function take() {
    const { running, base } = bench()
    const build = book.card?.id
    if (!running || !build) return
    await client
      .POST('/api/builds/{build}/entries', {
        params: { path: { build } },
        body: {
          id: v7(),
          who: session.who ?? '',
          bench_time: new Date().toISOString(),
          seen: 0,
          entry: { kind: 'gauges read', step: base.step, attempt: running.id },
        },
      })
      .catch(() => undefined) // the server is gone: what is missing stops the engine by its deadline
  }
  const { pause, resume } = useIntervalFn(() => void take(), EACH_MS, { immediate: false })
  watch(
    () => bench().running !== null && bench().gauges.length > 0,
    (on) => (on ? resume() : pause()),
    { immediate: true },
  )
  onUnmounted(pause)
}
