// @vitest-environment jsdom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { BenchView, Entry } from '@/api/client'
import { useBook } from '@/stores/book'
import { screen } from '@/testing'
import type { Answer, Question } from './asking'
import { usePassing } from './passing'

const BASE = {
  step: 'lead',
  title: 'Battery lead off',
  waits: [] as unknown[],
  other_box: null as string | null,
  confirmed: true,
  box: null as string | null,
  pass_words: 'the lead is not off',
  pass_keys: ['a good reason'],
  skip_keys: ['not needed'],
  chance_keys: ['looked at, and good'],
  waited_for: [] as string[],
}
let written: Entry[]
let asked: Question[]
let refuses: string[]
let next: number

function passing(own: Partial<typeof BASE>, answer: Partial<Answer> | null) {
  const put = async (question: Question) => {
    asked.push(question)
    return answer && { spoken: null, words: '', thing: '', carry: null, ...answer }
  }
  const asker = { put, ask: async (question: Question) => (await put(question))?.words ?? '' }
  const bench = { base: { ...BASE, ...own } } as unknown as BenchView
  return usePassing(
    () => bench,
    () => asker,
    () => next++,
  )
}

beforeEach(() => {
  screen()
  setActivePinia(createPinia())
  ;[written, asked, refuses, next] = [[], [], [], 0]
  vi.spyOn(useBook(), 'act').mockImplementation(async (entry: Entry) => {
    written.push(entry)
    return !refuses.includes(entry.kind)
  })
})

describe('a step called done', () => {
  it('is written, and leads on', async () => {
    await passing({}, null).done()
    expect(written).toEqual([{ kind: 'done', step: 'lead', reason: null, spoken: null }])
    expect(next).toBe(1)
  })
  it('that was refused leads nowhere', async () => {
    refuses = ['done']
    await passing({}, null).done()
    expect(next).toBe(0)
  })
})

describe('a step done all the same', () => {
  it('asks for the reason in the words of what is passed, with its keys', async () => {
    await passing({ waits: [{}] }, { words: 'because of that' }).allTheSame()
    expect(asked[0]).toMatchObject({
      title: 'Done out of order',
      why: 'The lead is not off.',
      keys: ['a good reason'],
      least: 10,
      box: null,
    })
    expect(written).toEqual([{ kind: 'done', step: 'lead', reason: 'because of that', spoken: null }])
  })
  it('writes nothing when the question is closed', async () => {
    await passing({ waits: [{}] }, null).allTheSame()
    await passing({}, null).begin()
    await passing({}, null).skip(true)
    await passing({}, null).notThere()
    await passing({}, null).letGo('rear seal')
    expect(written).toEqual([])
    expect(next).toBe(0)
  })
  it('presses the box on which another step stands, and is done only when that was taken', async () => {
    const own = { other_box: 'Lead off: seen now' }
    await passing(own, { words: 'cut by hand' }).allTheSame()
    expect(asked[0]).toMatchObject({ title: 'Done in another way', box: 'Lead off: seen now' })
    expect(asked[0].aloud).toBeUndefined()
    expect(written.map((entry) => entry.kind)).toEqual(['confirmed', 'done'])
    refuses = ['confirmed']
    written = []
    await passing(own, { words: 'cut by hand' }).allTheSame()
    expect(written.map((entry) => entry.kind)).toEqual(['confirmed'])
    expect(next).toBe(1)
  })
  it('asks for no box twice: its own, pressed, is enough; one not pressed is not', async () => {
    const own = { other_box: 'Lead off: seen now', box: 'lead off' }
    await passing({ ...own, confirmed: true }, { words: 'x' }).allTheSame()
    await passing({ ...own, confirmed: false }, { words: 'x' }).allTheSame()
    expect(asked.map((question) => question.box)).toEqual([null, 'Lead off: seen now'])
  })
  it('may be spoken where only order is passed', async () => {
    await passing({ waits: [{}] }, { spoken: 'note-1' }).allTheSame()
    expect(asked[0].aloud).toBe('lead')
    expect(written).toEqual([{ kind: 'done', step: 'lead', reason: null, spoken: 'note-1' }])
  })
})

describe('other ways past a step', () => {
  it('begun out of order it stays to be done', async () => {
    await passing({ waits: [{}] }, { words: 'it can be reached' }).begin()
    expect(written).toEqual([{ kind: 'started', step: 'lead', reason: 'it can be reached', spoken: null }])
    expect(next).toBe(0)
  })
  it('not there is said of a thing by name, and where it was looked for', async () => {
    await passing({}, { words: 'under the tray', thing: '' }).notThere()
    await passing({}, { words: 'under the tray', thing: 'second lead' }).notThere()
    expect(written).toEqual([
      { kind: 'not there', step: 'lead', thing: 'Battery lead off', looked: 'under the tray' },
      { kind: 'not there', step: 'lead', thing: 'second lead', looked: 'under the tray' },
    ])
  })
  it('skipped says what it leaves unsatisfied', async () => {
    await passing({ waited_for: ['Engine up: it is live'] }, { words: 'done before' }).skip(false)
    await passing({}, { words: 'no such thing' }).skip(true)
    expect(asked.map((question) => [question.title, question.why])).toEqual([
      ['Skip this step', 'Skipped, it satisfies nothing that stands on it: Engine up: it is live.'],
      ['This step does not apply', undefined],
    ])
    expect(written.map((entry) => 'not_applicable' in entry && entry.not_applicable)).toEqual([false, true])
    expect(next).toBe(2)
  })
  it('a last chance let go names the thing', async () => {
    await passing({}, { words: 'renewed last year' }).letGo('rear seal')
    expect(written).toEqual([
      {
        kind: 'decision',
        step: 'lead',
        about: 'last_chance',
        thing: 'rear seal',
        reason: 'renewed last year',
      },
    ])
  })
  it('told as happened, and opened again', async () => {
    await passing({}, null).happened()
    await passing({}, null).reopen()
    expect(written).toEqual([
      { kind: 'happened', step: 'lead' },
      { kind: 'reopened', step: 'lead', reason: 'looked at again' },
    ])
  })
})
