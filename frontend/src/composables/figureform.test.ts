import { describe, expect, it } from 'vitest'
import type { FigureRow } from '@/api/client'
import { changeOf, domainOf, filled } from './figureform'

const LIMIT = { lo: '0.030', hi: '0.070', target: null, source: 'book', page: '12', own: null, version: 3 }
const JOINT = {
  version: 2,
  tolerance: null,
  source: 'card',
  stage: [
    { torque: '25 Nm', angle: null },
    { torque: null, angle: '90 deg' },
    { torque: null, angle: null },
  ],
}
const row = (own: object) =>
  ({ id: 'gap', limit: null, joint: null, decided: false, sources: [], ...own }) as unknown as FigureRow
const limit = (own: object = {}) => row({ limit: { ...LIMIT, ...own } })

describe('the form of a figure', () => {
  it('shows what stands, and nothing where nothing does', () => {
    expect(filled(limit())).toMatchObject({
      lo: '0.030',
      hi: '0.070',
      target: '',
      source: 'book',
      page: '12',
    })
    expect(filled(row({ joint: JOINT }))).toMatchObject({
      source: 'card',
      tolerance: '',
      stages: ['25 Nm', '90 deg', ''],
    })
  })
  it('never shows a man as the source of his own decision', () => {
    const form = filled(row({ limit: { ...LIMIT, own: 'MK' }, decided: true }))
    expect([form.source, form.own]).toEqual(['', true])
  })
})

describe('the change that it asks for', () => {
  const form = (own: object = {}) => ({ ...filled(limit()), ...own })
  it('is of the version that was seen, empty fields as not given', () => {
    expect(changeOf(limit(), form({ hi: ' 0.065 ', lo: ' ', page: '' }), false, false)).toEqual({
      act: 'limit',
      limit: 'gap',
      version: 3,
      lo: null,
      hi: '0.065',
      target: null,
      page: null,
      source: 'book',
      own: false,
      same_source: false,
    })
  })
  it('has no source when somebody decides it himself, whatever stands in the field', () => {
    expect(changeOf(limit(), form({ own: true }), false, false)).toMatchObject({ source: null, own: true })
  })
  it('says that it stands so in the same place only on purpose', () => {
    expect(changeOf(limit(), form(), false, true)).toMatchObject({ same_source: true })
  })
  it('is laid beside what stands when it is what another source says', () => {
    const said = changeOf(limit(), form({ source: ' friend ', hi: '0.060' }), true, false)
    expect(said).toMatchObject({ act: 'answer', source: 'friend', hi: '0.060', version: 3 })
    expect(said).not.toHaveProperty('own')
  })
  it('of a joint has its stages in their order, empty ones as not given', () => {
    const joint = row({ id: 'head', joint: JOINT })
    const stages = [' 30 Nm', '90 deg', ' ']
    expect(changeOf(joint, { ...filled(joint), stages, tolerance: '5 %' }, false, false)).toEqual({
      act: 'joint',
      joint: 'head',
      version: 2,
      stage: ['30 Nm', '90 deg', ''],
      tolerance: '5 %',
      source: 'card',
      own: false,
    })
  })
  it('is none of what is neither', () => {
    expect(changeOf(row({}), form(), false, false)).toBeNull()
  })
})

describe('the scale of several sources', () => {
  const said = (lo: number | null, hi: number | null, value: number | null = null) => ({
    bar: { lo, hi, value },
  })
  it('holds all their ends and the reading, with a quarter of room', () => {
    expect(domainOf(row({ sources: [said(2, 6), said(3, 10, 8)] }))).toEqual([0, 12])
  })
  it('is left to each where there are not two ends', () => {
    expect(domainOf(row({ sources: [said(null, 6)] }))).toBeUndefined()
    expect(domainOf(row({}))).toBeUndefined()
  })
})
