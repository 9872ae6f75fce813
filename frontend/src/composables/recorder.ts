/**
 * What this device hears, or sees and hears: a note while it is held, a clip till its time is over. Where the
 * page may not, the phone's own recorder does.
 */
import { onUnmounted, ref } from 'vue'
import { sentence } from '@/api/client'

export interface Tape {
  video: boolean
  longest_ms: number
}
export const NOTE: Tape = { video: false, longest_ms: 120_000 } // what is longer is typed
export const CLIP: Tape = { video: true, longest_ms: 20_000 }

/** `said` gets what was recorded, and how long it is in seconds. */
export function useRecorder(said: (tape: Blob, seconds: number) => unknown, { video, longest_ms } = NOTE) {
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
      const stream = await navigator.mediaDevices.getUserMedia({
        audio: true,
        ...(video ? { video: { facingMode: 'environment' } } : {}),
      })
      const deaf = () => {
        for (const track of stream.getTracks()) track.stop()
      }
      if (held !== mine) return deaf() // let go while the device still asked
      const parts: Blob[] = []
      const tape = new MediaRecorder(stream)
      let since = 0
      tape.ondataavailable = (event) => parts.push(event.data)
      tape.onstop = () => {
        deaf()
        listening.value = false
        const seconds = Math.min(longest_ms, Math.max(100, Date.now() - since)) / 1000
        if (parts.some((part) => part.size)) void said(new Blob(parts, { type: tape.mimeType }), seconds)
      }
      recorder = tape
      tape.start()
      since = Date.now()
      listening.value = true
      timer = window.setTimeout(end, longest_ms)
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
