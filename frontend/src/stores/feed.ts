/** What the instruments of the shop say, as long as a screen listens; and where this screen waits for one. */
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { FeedView } from '@/api/client'

export interface Spot {
  build: string
  step: string
  about: string
  tool: string
}
const DEAF_MS = 2000 // the server tells twice a second; after this nothing is known of any instrument

export const useFeed = defineStore('feed', () => {
  const view = shallowRef<FeedView | null>(null)
  const spot = ref<Spot | null>(null)
  const deaf = ref(false)
  let socket: WebSocket | null = null
  let listeners = 0
  let heard = 0
  let timer: number | undefined
  let wait = 500

  const named = computed(() =>
    spot.value ? `${spot.value.build}/${spot.value.step}/${spot.value.about}` : '',
  )

  function tell() {
    if (socket?.readyState === WebSocket.OPEN) socket.send(spot.value ? JSON.stringify(spot.value) : '')
  }
  /** Which tool this screen waits for, and where; null for none. */
  function at(now: Spot | null) {
    if (JSON.stringify(now) === JSON.stringify(spot.value)) return
    spot.value = now
    tell()
  }
  function connect() {
    socket = new WebSocket(`${window.location.origin.replace('http', 'ws')}/ws/feed`)
    socket.onopen = () => {
      wait = 500
      tell()
    }
    socket.onmessage = (event: MessageEvent<string>) => {
      heard = Date.now()
      deaf.value = false
      view.value = JSON.parse(event.data) as FeedView
    }
    socket.onclose = () => {
      if (!listeners) return
      window.setTimeout(() => {
        if (listeners) connect()
      }, wait)
      wait = Math.min(wait * 2, 8000)
    }
  }
  /** Listen; returns what ends it. The line is open as long as somebody does. */
  function listen(): () => void {
    listeners += 1
    if (listeners === 1) {
      heard = Date.now()
      connect()
      timer = window.setInterval(() => {
        deaf.value = Date.now() - heard > DEAF_MS
      }, 250)
    }
    return () => {
      listeners -= 1
      if (listeners) return
      window.clearInterval(timer)
      socket?.close()
      socket = null
      view.value = spot.value = null
    }
  }
  return { view, spot, named, deaf, at, listen }
})
