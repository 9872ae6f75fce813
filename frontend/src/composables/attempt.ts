/** The clock of a running engine: what is late, why to stop, how long the starter still rests. */
import { computed, ref, watch } from 'vue'
import { useIntervalFn } from '@vueuse/core'
import type { RunBenchView } from '@/api/client'
import { useBook } from '@/stores/book'

const TICK_MS = 100

/** `bench` is the rung on the screen; times in seconds by the server's clock. */
export function useAttempt(bench: () => RunBenchView) {
  const book = useBook()
  const clock = ref(0)
  const resting = ref(0)
  const running = computed(() => bench().running)
  const late = computed(() => running.value?.deadlines.find((d) => !d.met && clock.value >= d.at_s) ?? null)
  const stop = computed(() => running.value?.stop ?? late.value?.reason ?? null)
  const since = computed(() => Math.min(running.value?.stop_at ?? Infinity, late.value?.at_s ?? Infinity))
  const readAgain = computed(
    () =>
      running.value?.deadlines.find(
        (d) => d.asked_from !== null && clock.value >= d.asked_from && clock.value < d.at_s,
      ) ?? null,
  )
  const left = computed(() => Math.max(0, (running.value?.limit_s ?? 0) - clock.value))

  const ago = (time: string) => (Date.now() - book.ahead - new Date(time).getTime()) / 1000
  function tick() {
    if (running.value) clock.value = Math.max(0, ago(running.value.started))
    const { rest } = bench()
    resting.value = rest && !running.value ? Math.max(0, rest.rest_s - ago(rest.since)) : 0
  }
  useIntervalFn(tick, TICK_MS)
  watch(running, tick, { immediate: true })
  return { running, clock, resting, stop, since, readAgain, left }
}
