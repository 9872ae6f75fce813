// @vitest-environment jsdom
import { describe, expect, it } from 'vitest'
import { Refusal, sentence } from '@/api/client'
import { ref } from 'vue'
import { emptied, useServer } from './server'

const refusal = (asks: boolean) =>
  new Refusal(
    { refuse: true, reason_code: 'x', message: 'no such unit', field: 'typed', newer: [], asks },
    422,
  )

describe('asking the server', () => {
  it('gives the answer', async () => {
    const { problem, served } = useServer()
    expect(await served(async () => 7)).toBe(7)
    expect(problem.value).toBe('')
  })
  it('says why it was refused, which field is meant, and whether it is only asked', async () => {
    const { asks, field, problem, served } = useServer()
    expect(await served(() => Promise.reject(refusal(true)))).toBeUndefined()
    expect([problem.value, field.value, asks.value]).toEqual(['no such unit', 'typed', true])
    await served(() => Promise.reject(refusal(false)))
    expect(asks.value).toBe(false)
    await served(() => Promise.reject(new Error('gone')))
    expect([problem.value, field.value]).toEqual(['gone', null])
  })
  it('forgets what went wrong when it is tried again, and keeps what the call itself says', async () => {
    const { problem, served } = useServer()
    await served(() => Promise.reject(new Error('gone')))
    const again = served(async () => {
      problem.value = 'a length is missing'
    })
    await again
    expect(problem.value).toBe('a length is missing')
    await served(async () => 'here')
    expect(problem.value).toBe('')
  })
  it('says nothing of an answer that nobody waits for any more', async () => {
    const { problem, served } = useServer()
    await served(
      () => Promise.reject(new Error('late')),
      () => false,
    )
    expect(problem.value).toBe('')
  })
  it('makes a sentence of whatever was thrown', () => {
    expect(sentence('odd')).toBe('odd')
  })
})

describe('a field whose text is on its way', () => {
  it('is emptied once it is written, but never of what was typed meanwhile', () => {
    const [sent, newer] = [ref('81200'), ref('81200')]
    const empty = emptied(sent, newer)
    newer.value = '81263'
    empty()
    expect([sent.value, newer.value]).toEqual(['', '81263'])
  })
})
