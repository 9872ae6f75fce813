/** Ask the server, and say what went wrong in its own words: once for every screen and dialog. */
import { type Ref, ref } from 'vue'
import { onlyAsks, Refusal, sentence } from '@/api/client'

/**
 * `served` runs a call: what it gives, or undefined when it failed, and then `problem` says why; `asks`, that
 * the same once more is taken; `field`, which field is meant. `wanted` says whether the answer still matters.
 */
export function useServer() {
  const problem = ref('')
  const asks = ref(false)
  const field = ref<string | null>(null)

  async function served<T>(call: () => Promise<T>, wanted = () => true): Promise<T | undefined> {
    problem.value = ''
    asks.value = false
    field.value = null
    try {
      return await call()
    } catch (error) {
      if (!wanted()) return undefined
      problem.value = sentence(error)
      asks.value = onlyAsks(error)
      field.value = error instanceof Refusal ? (error.problem.field ?? null) : null
      return undefined
    }
  }
  return { problem, asks, field, served }
}

/** Empties fields once what stood in them is written; what was typed meanwhile stays. */
export function emptied(...fields: Ref<string>[]) {
  const sent = fields.map((field) => field.value)
  return () => fields.forEach((field, k) => field.value === sent[k] && (field.value = ''))
}
