/** What a text being typed means, asked of the server; a late answer never overwrites a newer one. */
import { type MaybeRefOrGetter, ref, toValue, watch } from 'vue'
import { client, got, type Schemas } from '@/api/client'

export interface Field {
  dimension: string | null
  unit: string | null
  tool: string | null
}

export function useFigure(text: MaybeRefOrGetter<string>, field: MaybeRefOrGetter<Field>) {
  const view = ref<Schemas['QuantityView'] | null>(null)
  let asked = 0
  let timer: number | undefined

  watch([() => toValue(text), () => JSON.stringify(toValue(field))], () => {
    const mine = ++asked
    window.clearTimeout(timer)
    view.value = null
    const typed = toValue(text)
    if (!typed.trim()) return
    timer = window.setTimeout(() => {
      void got(client.POST('/api/quantity', { body: { text: typed, ...toValue(field) } }))
        .then((answer) => {
          if (mine === asked) view.value = answer
        })
        .catch(() => {
          if (mine === asked) view.value = null
        })
    }, 60)
  })
  return { view }
}
