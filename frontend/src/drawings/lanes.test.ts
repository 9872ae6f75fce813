// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { mounted } from '@/testing'
import GroupLine from './GroupLine.vue'
import OrientSketch from './OrientSketch.vue'
import PairLanes from './PairLanes.vue'
import StackSection from './StackSection.vue'
import StandLanes from './StandLanes.vue'
import SumLanes from './SumLanes.vue'

const judged = (value: number, verdict = 'inside') => ({
  value,
  U: 0.01,
  lo: 1.5,
  hi: 2.5,
  target: 2,
  verdict,
  side: null,
  value_text: value.toFixed(2),
  words: verdict,
})

describe('the sums of a drawer', () => {
  const rows = [
    { total: 0, total_text: '0.00', pieces: [], words: 'none', judgement: judged(3.27, 'outside') },
    { total: 1.25, total_text: '1.25', pieces: ['1.00', '0.25'], words: '2 pcs', judgement: judged(2.02) },
  ].map((row, k) => ({ ...row, best: k === 1, lies_in: false }))

  it('stand in rows with the gap that each leaves, the proposed one marked', () => {
    const page = mounted(SumLanes, { rows, lo: 1.5, hi: 2.5, chosen: 1.25 })
    const buttons = page.all('button')
    expect(buttons.map((b) => b.textContent.replace(/\s+/g, ' '))).toEqual([
      '0.00 none3.27',
      '1.25 2 pcs2.02',
    ])
    expect(buttons.map((b) => b.classList.contains('best'))).toEqual([false, true])
    expect(buttons.map((b) => b.getAttribute('aria-pressed'))).toEqual(['false', 'true'])
    page.leave()
  })
  it('are chosen by a press', () => {
    const onChoose = vi.fn()
    const page = mounted(SumLanes, { rows, lo: 1.5, hi: 2.5, chosen: null, onChoose })
    page.all('button')[0].click()
    expect(onChoose).toHaveBeenCalledWith(0)
    page.leave()
  })
  it('have an open end where there is no limit', () => {
    const page = mounted(SumLanes, { rows, lo: null, hi: 2.5, chosen: null })
    expect(page.root.innerHTML).not.toContain('NaN')
    page.leave()
  })
})

describe('a gap in section', () => {
  const props = {
    sketch: 'bell',
    labels: ['bell on block', 'fingers'],
    bare: 3.27,
    shims: ['1.00', '0.25'],
    thick: [1, 0.25],
    gapText: 'left 2.02',
    sumText: 'shims 1.25',
  }
  const heights = (page: ReturnType<typeof mounted>) =>
    page.all('rect[stroke="var(--yeledge)"]').map((r) => Number(r.getAttribute('height')))

  it('draws the shims to scale among themselves', () => {
    const page = mounted(StackSection, props)
    const [thick, thin] = heights(page)
    expect(thick / thin).toBeCloseTo(4, 6)
    expect(page.text()).toContain('left 2.02')
    page.leave()
  })
  it('says by its colour that more lies in than the gap is wide', () => {
    const page = mounted(StackSection, { ...props, sketch: 'plain', bare: 1, thick: [1, 0.25] })
    expect(page.all('.over')).toHaveLength(1)
    page.leave()
  })
})

describe('where a group may stand', () => {
  const lane = (name: string, least: number | null, most: number | null) => ({
    name,
    value_text: '22 mm',
    words: 'inside',
    verdict: 'inside',
    least,
    most,
  })
  const group = (least: number | null, most: number | null) => ({
    lanes: [lane('At the column', -4, null), lane('At the box', null, 4)],
    least,
    most,
    towards: 'to the column',
  })

  it('has a lane for each condition and one for both', () => {
    const page = mounted(StandLanes, { group: group(-4, 4) })
    expect(page.all('li').map((li) => li.querySelector('span')?.textContent)).toEqual([
      'At the column',
      'At the box',
      'Both',
    ])
    expect(page.all('path[stroke="var(--ink)"]')).toHaveLength(4)
    page.leave()
  })
  it('is all metal where no place does for both', () => {
    const page = mounted(StandLanes, { group: group(3, -1) })
    const last = page.all('g').at(-1)
    expect(last?.querySelectorAll('rect')[1].getAttribute('width')).toBe('300')
    page.leave()
  })
})

describe('a group in line', () => {
  const member = (letter: string, joint: string, state: string) => ({
    letter,
    joint,
    bolt: 1,
    name: joint,
    state,
    words: state,
  })
  const group = {
    title: 'Lock B',
    members: [member('A', 'column', 'locked'), member('B', 'box', 'now'), member('C', 'bearing', 'early')],
    along: ['box', 'bearing', 'column'],
    ends: ['box', 'column'],
    adjust: [{ name: 'the shaft', how: 'slides', sets: 'how far it is in' }],
  }
  it('stands as it lies in the vehicle, lettered as it is locked', () => {
    const page = mounted(GroupLine, { group })
    expect(page.all('.letter').map((t) => t.textContent.trim())).toEqual(['B', 'C', 'A'])
    expect(page.all('.m-now')).toHaveLength(1)
    expect(page.all('.m-early')).toHaveLength(1)
    expect(page.text()).toContain('the shaft slides: this sets')
    page.leave()
  })
  it.each([
    ['turns', 'turns'],
    ['stack', 'takes shims'],
  ])('an adjuster that is %s says so', (how, words) => {
    const page = mounted(GroupLine, {
      group: { ...group, ends: null, adjust: [{ name: 'It', how, sets: '' }] },
    })
    expect(page.text()).toContain(`It ${words}`)
    page.leave()
  })
})

describe('pistons in their lanes', () => {
  const option = (inner: string, value: number, best = false) => ({
    inner,
    name: `Piston ${inner}`,
    judgement: { ...judged(value), lo: 0.03, hi: 0.07, target: 0.05 },
    best,
    lies_in: false,
  })
  const match = {
    outer: 'bore',
    inner: 'piston',
    lanes: [
      {
        result: 'm1',
        name: 'C1',
        outer_text: 'bore 1',
        options: [option('p1', 0.03), option('p2', 0.05, true)],
      },
      {
        result: 'm2',
        name: 'C2',
        outer_text: 'bore 2',
        options: [option('p1', 0.05, true), option('p2', 0.07)],
      },
    ],
  }
  it('shows every piston in every bore, the chosen one last and ringed', () => {
    const page = mounted(PairLanes, { match, chosen: ['p2', 'p1'] })
    expect(page.all('.option')).toHaveLength(4)
    expect(page.all('.ring text').map((t) => t.textContent.trim())).toEqual(['2', '1'])
    expect(page.all('li em').map((e) => e.textContent)).toEqual(['0.05', '0.05'])
    page.leave()
  })
  it('a touched circle is asked for', () => {
    const onChoose = vi.fn()
    const page = mounted(PairLanes, { match, chosen: ['p2', 'p1'], onChoose })
    page.all('.option')[0].dispatchEvent(new MouseEvent('click'))
    expect(onChoose).toHaveBeenCalledWith(0, 'p1')
    page.leave()
  })
})

describe('what points one way', () => {
  const kinds = [
    'arrow',
    'side',
    'label',
    'one position',
    'all one way',
    'washer',
    'lip',
    'drain',
    'ring gaps',
    'mark to mark',
    'felt',
  ]
  it('has a drawing of its own for each kind', () => {
    const drawn = kinds.map((kind) => {
      const page = mounted(OrientSketch, { kind })
      const inner = page.root.querySelector('g')?.innerHTML.replace(/#o[\w-]+/g, '#o') ?? ''
      page.leave()
      return inner
    })
    expect(new Set(drawn).size).toBe(kinds.length)
  })
})
