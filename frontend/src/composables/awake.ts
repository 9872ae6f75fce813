/** The screen stays on while it is wanted; where the browser forbids that, this device is told so once. */
import { onMounted, ref, watch } from 'vue'
import { useLocalStorage, useWakeLock } from '@vueuse/core'

export function useAwake(wanted: () => boolean) {
  const { isSupported, request, release } = useWakeLock()
  const told = useLocalStorage('hollet.awake', false)
  const goesDark = ref(false)
  async function hold(on: boolean) {
    try {
      if (isSupported.value) await (on ? request('screen') : release())
      goesDark.value = on && !isSupported.value && !told.value
    } catch {
      goesDark.value = on && !told.value // asked and not given
    }
  }
  onMounted(() => watch(wanted, (on) => void hold(on), { immediate: true }))
  function heard() {
    told.value = true
    goesDark.value = false
  }
  return { goesDark, heard }
}
