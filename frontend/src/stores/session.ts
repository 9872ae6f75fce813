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
  let waiting: { said: (initials: string) => void; notSaid: (problem: Error) => void }[] = []

  watch(dark, (on) => (document.documentElement.dataset.theme = on ? 'dark' : 'light'), { immediate: true })

  function toggleTheme() {
    chosen.value = dark.value ? 'light' : 'dark'
    localStorage.setItem('hollet.theme', chosen.value)
  }
  /** The initials, asked for if nobody said yet. */
  function whoIsIt(): Promise<string> {
    if (who.value) return Promise.resolve(who.value)
    asked.value = true
    return new Promise((said, notSaid) => waiting.push({ said, notSaid }))
  }
  function setWho(initials: string) {
    who.value = initials.toUpperCase()
    localStorage.setItem('hollet.who', who.value)
    asked.value = false
    for (const { said } of waiting) said(who.value)
    waiting = []
  }
  /** Closed without an answer: what waited for it is told so, and keeps what was typed. */
  function dismiss() {
    asked.value = false
    for (const { notSaid } of waiting)
      notSaid(new Error('Nobody said who is at the bench: nothing was written'))
    waiting = []
  }
  return { who, asked, dark, toggleTheme, whoIsIt, setWho, dismiss }
})
