/** A note spoken into this device: recorded while it is held. Where the page may not listen, the phone's own recorder does. */
import { onUnmounted, ref } from 'vue'

const LONGEST_MS = 120_000 // what is longer is typed

export function useRecorder(said: (sound: Blob) => unknown) {
  const listening = ref(false)
  const problem = ref('')
  const possible = typeof MediaRecorder !== 'undefined' && !!navigator.mediaDevices?.getUserMedia
  let recorder: MediaRecorder | null = null
  let held = false
  let timer: number | undefined

  async function begin() {
    if (held || !possible) return
    held = true
    problem.value = ''
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      const parts: Blob[] = []
      const mine = new MediaRecorder(stream)
      mine.ondataavailable = (event) => parts.push(event.data)
      mine.onstop = () => {
        for (const track of stream.getTracks()) track.stop()
        listening.value = false
        if (parts.some((part) => part.size)) void said(new Blob(parts, { type: mine.mimeType }))
      }
      recorder = mine
      mine.start()
      listening.value = true
      timer = window.setTimeout(end, LONGEST_MS)
      if (!held) end() // let go while the device still asked
    } catch (error) {
      held = false
      problem.value = `Not recorded: ${(error as Error).message}`
    }
  }
  function end() {
    held = false
    window.clearTimeout(timer)
    if (recorder?.state === 'recording') recorder.stop()
    recorder = null
  }
  onUnmounted(end)
  return { listening, problem, possible, begin, end }
}
