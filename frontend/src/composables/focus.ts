/** Where the hand of the keyboard stands. */
import { type Ref } from 'vue'
import { useEventListener, useMutationObserver } from '@vueuse/core'

/**
 * When what was pressed is gone, as an answered question is, the hand stands at the head of the work again
 * and not behind it: the next Tab is the first thing there is now.
 */
export function useFocusKept(work: Ref<HTMLElement | null>) {
  let held: Element | null = null
  useEventListener(document, 'focusin', (event: FocusEvent) => {
    const at = event.target
    held = at instanceof Element && at !== work.value && work.value?.contains(at) ? at : null
  })
  const look = () => {
    if (!held || held.isConnected || document.activeElement !== document.body) return
    held = null
    work.value?.focus({ preventScroll: true })
  }
  useMutationObserver(work, look, { childList: true, subtree: true })
}
