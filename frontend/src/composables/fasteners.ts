/**
 * The hand at the bag: lines of like fasteners, which one is in hand, what a typed line means. No rule of
 * the job here.
 */
import { computed, ref, watch } from 'vue'
import { type BagLine, client, got, type Schemas } from '@/api/client'

export function useFasteners() {
  const lines = ref<BagLine[]>([])
  const at = ref(0)
  const text = ref('')
  const reads = ref<Schemas['FastenerView'] | null>(null)
  const pieces = computed(() => lines.value.reduce((n, l) => n + l.count, 0))
  let asked = 0
  let timer: number | undefined

  watch(text, (typed) => {
    const mine = ++asked
    window.clearTimeout(timer)
    reads.value = null
    if (!typed.trim()) return
    timer = window.setTimeout(() => {
      void got<unknown>(client.POST('/api/fasteners', { body: { text: typed } }))
        .then((answer) => {
          if (mine === asked) reads.value = answer as Schemas['FastenerView']
        })
        .catch(() => undefined)
    }, 60)
  })
  const same = (a: BagLine, b: BagLine) => a.size === b.size && a.length === b.length && a.odd === b.odd

  function start(proposed: readonly BagLine[]) {
    lines.value = proposed.map((l) => ({ ...l }))
    at.value = 0
    text.value = ''
  }
  /** Put a line in, or take one more of it; it is the one in hand then. */
  function add(line: BagLine) {
    const k = lines.value.findIndex((l) => same(l, line))
    if (k < 0) lines.value.push({ ...line })
    else {
      lines.value[k].count += line.count
      if (line.holes) lines.value[k].holes = [lines.value[k].holes, line.holes].filter(Boolean).join(' ')
    }
    at.value = k < 0 ? lines.value.length - 1 : k
  }
  function choose(k: number) {
    at.value = k
  }
  function type(words: string) {
    text.value = words
  }
  function count(n: number) {
    if (lines.value[at.value]) lines.value[at.value].count = Math.max(0, Math.min(500, n))
  }
  function more(by: number) {
    if (lines.value[at.value]) count(lines.value[at.value].count + by)
  }
  function move(by: number) {
    if (lines.value.length) at.value = (at.value + by + lines.value.length) % lines.value.length
  }
  /** Take the typed line in, once the server has read it. */
  async function take(): Promise<boolean> {
    const typed = text.value.trim()
    if (!typed) return true
    const found =
      reads.value ??
      ((await got<unknown>(client.POST('/api/fasteners', { body: { text: typed } })).catch(() => null)) as
        Schemas['FastenerView'] | null)
    reads.value = found
    if (!found?.ok || !found.line) return false
    add(found.line)
    text.value = ''
    return true
  }
  const kept = computed(() => lines.value.filter((l) => l.count > 0))
  /** Digits set the count of the line in hand, arrows choose it. */
  const keys = () => ({
    ...Object.fromEntries(Array.from({ length: 9 }, (_, k) => [String(k + 1), () => count(k + 1)])),
    0: () => count(10),
    '+': () => more(1),
    '-': () => more(-1),
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
  })
  return { lines, at, text, reads, pieces, kept, start, add, choose, type, count, more, move, take, keys }
}
export type Hand = ReturnType<typeof useFasteners>
