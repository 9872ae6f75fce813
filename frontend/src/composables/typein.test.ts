import { describe, expect, it } from 'vitest'
import type { MeasureBenchView } from '@/api/client'
import { offered, toolFor, ticked } from './typein'

const reading = (id: string, tools: string[], tool_kind = 'micrometer') => ({ id, tools, tool_kind })
const pin = reading('pin', ['small', 'caliper'])
const piston = reading('piston', ['large', 'small', 'caliper'])
const gap = reading('gap', ['leaves'], 'feeler')
const BENCH = {
  readings: [pin, piston, gap],
  tools: ['small', 'large', 'caliper', 'leaves'].map((id) => ({ id })),
} as unknown as MeasureBenchView
const tool = (r: unknown, picked?: string) =>
  toolFor(BENCH, r as MeasureBenchView['readings'][number], picked)?.id ?? null

describe('a sheet typed in', () => {
  it('offers each tool once that may give a reading of the kind, and no other', () => {
    expect(offered(BENCH, 'micrometer').map((t) => t.id)).toEqual(['small', 'caliper', 'large'])
    expect(offered(BENCH, 'feeler').map((t) => t.id)).toEqual(['leaves'])
  })
  it('is read with the best tool for each figure, not with that of the first', () => {
    expect([tool(pin), tool(piston)]).toEqual(['small', 'large'])
  })
  it('is read with the tool that was picked, where it may give the figure', () => {
    expect([tool(pin, 'caliper'), tool(piston, 'caliper')]).toEqual(['caliper', 'caliper'])
    expect(tool(pin, 'large')).toBe('small')
  })
  it('has none where the shop has none', () => {
    expect(tool(reading('x', []))).toBeNull()
    expect(tool(reading('x', ['gone']))).toBeNull()
  })
})

describe('ticks of a card', () => {
  it('are bolts and stretches of bolts, each once', () => {
    expect(ticked('1-3 5, 5;7–8', 10)).toEqual({ bolts: [1, 2, 3, 5, 7, 8], problem: '' })
  })
  it('are nothing at all where one of them cannot be read', () => {
    for (const text of ['0', '11', '3-2', 'all', '1-', '1 x', ''])
      expect(ticked(text, 10)).toMatchObject({ bolts: [], problem: expect.stringContaining('1-6 8') })
  })
})
