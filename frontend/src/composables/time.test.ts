import { describe, expect, it } from 'vitest'
import { ago, benchTime, clockOf, dayOf, minutesSeconds } from './time'

const NOW = new Date('2026-03-20T12:00:00Z')
const before = (minutes: number) => new Date(NOW.getTime() - minutes * 60000).toISOString()

describe('ago', () => {
  it.each([
    [0, 'just now'],
    [47, '47 min ago'],
    [89, '89 min ago'],
    [120, '2 h ago'],
    [35 * 60, '35 h ago'],
    [72 * 60, '3 days ago'],
  ])('%i minutes is %s', (minutes, words) => {
    expect(ago(before(minutes), NOW)).toBe(words)
  })
  it('never runs into the future', () => {
    expect(ago(before(-10), NOW)).toBe('just now')
  })
})

describe('days and clock', () => {
  it('follow the time zone of the shop, summer time included', () => {
    expect(clockOf('2026-07-01T23:30:00Z', 'Europe/London')).toBe('00:30')
    expect(dayOf('2026-07-01T23:30:00Z', 'Europe/London')).toContain('Thursday')
    expect(clockOf('2026-01-01T23:30:00Z', 'Europe/London')).toBe('23:30')
  })
})

describe('benchTime', () => {
  it('is the same moment, with an offset', () => {
    const text = benchTime(NOW)
    expect(text).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}[+-]\d\d:\d\d$/)
    expect(new Date(text).getTime()).toBe(NOW.getTime())
  })
})

describe('minutesSeconds', () => {
  it.each([
    [0, '0:00'],
    [9.9, '0:09'],
    [61, '1:01'],
    [-3, '0:00'],
    [600, '10:00'],
  ])('%d s is %s', (seconds, text) => {
    expect(minutesSeconds(seconds)).toBe(text)
  })
})
