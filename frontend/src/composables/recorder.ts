/**
 * A note spoken into this device: recorded while it is held. Where the page may not listen, the phone's own
 * recorder does.
 */
import { onUnmounted, ref } from 'vue'
import { sentence } from '@/api/client'

const LONGEST_MS = 120_000 // what is longer is typed

export function useRecorder(said: (sound: Blob) => unknown) {
  const listening = ref(false)
  const problem = ref('')
  const possible = typeof MediaRecorder !== 'undefined' && !!navigator.mediaDevices?.getUserMedia
  let recorder: MediaRecorder | null = null
  let held = 0 // which press is held; 0 when none is
  let presses = 0
  let timer: number | undefined

  async function begin() {
    if (held || !possible) return
    const mine = (held = ++presses)
    problem.value = ''
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      const deaf = () => {
        for (const track of stream.getTracks()) track.stop()
      }
      if (held !== mine) return deaf() // let go while the device still asked
      const parts: Blob[] = []
      const tape = new MediaRecorder(stream)
      tape.ondataavailable = (event) => parts.push(event.data)
      tape.onstop = () => {
        deaf()
        listening.value = false
        if (parts.some((part) => part.size)) void said(new Blob(parts, { type: tape.mimeType }))
      }
      recorder = tape
      tape.start()
      listening.value = true
      timer = window.setTimeout(end, LONGEST_MS)
    } catch (error) {
      if (held === mine) held = 0
      problem.value = `Not recorded: ${sentence(error)}`
    }
  }
  function end() {
    held = 0
    window.clearTimeout(timer)
    if (recorder?.state === 'recording') recorder.stop()
    recorder = null
  }
  onUnmounted(end)
  return { listening, problem, possible, begin, end }
}
