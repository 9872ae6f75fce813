/** Who is at the bench and how the screen looks: kept in this browser only. */
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'

export const useSession = defineStore('session', () => {
  const who = ref(localStorage.getItem('hollet.who') ?? '')
  const asked = ref(false)
  const chosen = ref(localStorage.getItem('hollet.theme') ?? '')
  const system = window.matchMedia('(prefers-color-scheme: dark)')
  const systemDark = ref(system.matches)
  system.addEventListener('change', (event) => (systemDark.value = event.matches))
  const dark = computed(() => (chosen.value ? chosen.value === 'dark' : systemDark.value))
  let waiting: ((initials: string) => void)[] = []

  watch(dark, (on) => (document.documentElement.dataset.theme = on ? 'dark' : 'light'), { immediate: true })

  function toggleTheme() {
    chosen.value = dark.value ? 'light' : 'dark'
    localStorage.setItem('hollet.theme', chosen.value)
  }
  /** The initials, asked for if nobody said yet. */
  function whoIsIt(): Promise<string> {
    if (who.value) return Promise.resolve(who.value)
    asked.value = true
    return new Promise((resolve) => waiting.push(resolve))
  }
  function setWho(initials: string) {
    who.value = initials.toUpperCase()
    localStorage.setItem('hollet.who', who.value)
    asked.value = false
    for (const resolve of waiting) resolve(who.value)
    waiting = []
  }
  function dismiss() {
    asked.value = false
    waiting = []
  }
  return { who, asked, dark, toggleTheme, whoIsIt, setWho, dismiss }
})
