import { describe, expect, it } from 'vitest'
import { movedOf } from './looks'

describe('bolts that moved', () => {
  it('are read as they are typed', () => {
    expect(movedOf('')).toEqual([])
    expect(movedOf('3: 84, 5')).toEqual([
      { bolt: 3, typed: '84' },
      { bolt: 5, typed: '' },
    ])
    expect(movedOf('3:84 Nm; 12: 70')).toEqual([
      { bolt: 3, typed: '84 Nm' },
      { bolt: 12, typed: '70' },
    ])
    expect(movedOf('3 5')).toEqual([
      { bolt: 3, typed: '' },
      { bolt: 5, typed: '' },
    ])
  })
  it('are no number where none was typed: the server says so', () => {
    expect(movedOf('rear')[0].bolt).toBeNaN()
  })
})
