/** Whether what is on the screen is fresh, or kept from before because Hollet cannot be reached. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { client } from '@/api/client'

export const KEPT = 'x-hollet-kept'

export const useReach = defineStore('reach', () => {
  const since = ref<string | null>(null) // when the answer on the screen was given, if it is a kept one
  return { since }
})

/** Look at each answer, and have the page kept on this device where the browser can. */
export function watchReach(): void {
  const reach = useReach()
  client.use({
    onResponse({ request, response }) {
      if (request.method === 'GET') reach.since = response.headers.get(KEPT)
    },
  })
  if (!('serviceWorker' in navigator)) return
  void navigator.serviceWorker
    .register('/sw.js')
    .then(() => navigator.serviceWorker.ready)
    .then((worker) => worker.active?.postMessage('keep'))
    .catch(() => undefined) // without it everything works but a reload while Hollet is stopped
}
