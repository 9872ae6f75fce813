/** Days, clocks and distances in time, in the time zone of the shop. */
import { useNow } from '@vueuse/core'
import { computed, type ComputedRef, type MaybeRefOrGetter, toValue } from 'vue'

export function clockOf(iso: string, zone: string): string {
  return new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone }).format(
    new Date(iso),
  )
}

export function dayOf(iso: string, zone: string): string {
  const options = { weekday: 'long', day: 'numeric', month: 'long', timeZone: zone } as const
  return new Intl.DateTimeFormat('en-GB', options).format(new Date(iso))
}

/** Such as "47 min ago" or "3 days ago". */
export function ago(iso: string, now: Date): string {
  const minutes = Math.max(0, Math.floor((now.getTime() - new Date(iso).getTime()) / 60000))
  if (minutes < 1) return 'just now'
  if (minutes < 90) return `${minutes} min ago`
  const hours = Math.round(minutes / 60)
  if (hours < 36) return `${hours} h ago`
  return `${Math.round(hours / 24)} days ago`
}

/** Time in this browser with its offset from UTC, for the bench's own clock. */
export function benchTime(now = new Date()): string {
  const offset = -now.getTimezoneOffset()
  const pad = (n: number) => String(Math.floor(Math.abs(n))).padStart(2, '0')
  const local = new Date(now.getTime() + offset * 60000).toISOString().slice(0, 23)
  return `${local}${offset < 0 ? '-' : '+'}${pad(offset / 60)}:${pad(offset % 60)}`
}

export function minutesSeconds(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds))
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}

/** A distance in time that stays true while it is looked at. */
export function useAgo(iso: MaybeRefOrGetter<string | undefined>): ComputedRef<string> {
  const now = useNow({ interval: 20000 })
  return computed(() => {
    const value = toValue(iso)
    return value ? ago(value, now.value) : ''
  })
}
