import { describe, expect, it } from 'vitest'
import type { Part, Search } from './queries'
import {
  costWords,
  leftWords,
  oftenWords,
  outcomeWords,
  partName,
  proofOf,
  reasonWords,
  whyWords,
} from './words'

function part(number: number, standing: Part['standing']): Part {
  return {
    number,
    mod: number,
    modName: `Mod ${number}`,
    path: '',
    record: '',
    field: '',
    standing,
    reasons: [],
    suspicion: 0.02,
    isNeeded: false,
  }
}

function search(state: Search['search']['state'], parts: Part[], more: Partial<Search> = {}): Search {
  return {
    search: {
      id: 1,
      level: 'MODS',
      state,
      automatic: true,
      begunAt: '2026-12-01T10:00:00Z',
      fault: { kind: 'STOPS', name: 'x', place: '', value: '', says: 'The game stops with x.' },
      tries: 0,
    },
    limitSeconds: 300,
    parts,
    tries: [],
    shown: 3,
    told: 3,
    triesToTrust: 1,
    unproved: [],
    updated: [],
    always: [],
    steps: [],
    ...more,
  }
}

describe('what has come of a search', () => {
  it('is said of one and of several', () => {
    expect(outcomeWords(search('FOUND', [part(1, 'FOUND'), part(2, 'CLEARED')]))).toBe(
      'With this mod the fault shows; without it, it does not.',
    )
    expect(outcomeWords(search('FOUND', [part(1, 'FOUND'), part(2, 'FOUND')]))).toBe(
      'With these 2 mods the fault shows; without any one of them it does not.',
    )
  })
  it('does not claim more than was shown', () => {
    const s = search('FOUND', [part(1, 'FOUND'), part(2, 'FOUND')], { unproved: [2] })
    expect(outcomeWords(s)).toContain('could not be told')
  })
  it('tells an order from what is in it', () => {
    const s = search('FOUND', [{ ...part(1, 'FOUND'), above: 2, aboveName: 'Mod 2' }])
    const order = { ...s, search: { ...s.search, level: 'ORDER' as const } }
    expect(outcomeWords(order)).toContain('in each other’s places it does not')
    expect(partName(order.parts[0] as Part)).toBe('Mod 1 below Mod 2')
  })
  it('says that every step works', () => {
    expect(outcomeWords(search('NOT_SHOWN', [], { steps: [[1], [2]] }))).toContain('Every step works')
  })
  it('says where nothing can be found', () => {
    expect(outcomeWords(search('NONE', []))).toContain('unmodded game')
    expect(outcomeWords(search('NOT_SHOWN', []))).toContain('only sometimes')
  })
})

describe('how far a search is', () => {
  it('counts runs that are done and left', () => {
    const asked = { why: 'NARROW', members: [1], atMostLeft: 4, running: false } as const
    expect(leftWords(search('SEARCHING', [], { asked: { ...asked, members: [1] } }))).toBe(
      '0 runs done, at most 4 left if one more mod is behind it.',
    )
    expect(leftWords(search('FOUND', []))).toBe('0 runs.')
  })
  it('tells of a fault that comes only sometimes', () => {
    expect(oftenWords(search('SEARCHING', []))).toBe('')
    expect(oftenWords(search('SEARCHING', [], { shown: 2, told: 4, triesToTrust: 7 }))).toBe(
      'The fault came in 2 of 4 runs with sets that show it, so a set counts as working after 7 runs without it.',
    )
  })
})

describe('names', () => {
  it('are those of the innermost part', () => {
    expect(partName(part(3, 'FOUND'))).toBe('Mod 3')
    expect(partName({ ...part(3, 'FOUND'), path: 'a/b.plug', record: 'A.plug/7', field: 'speed' })).toBe(
      'speed of A.plug/7',
    )
  })
  it('of reasons and sets are words', () => {
    expect(reasonWords(['NAMED', 'CHANGED'])).toBe('the fault names it, changed since it worked')
    expect(whyWords({ why: 'NOTHING' }, 'MODS')).toBe('the unmodded game')
    expect(whyWords({ why: 'PROOF_WITHOUT' }, 'MODS', 'Mod 3')).toBe('proof: without Mod 3')
  })
})

it('the proof is every try of what was found, and of less of it, that says so', () => {
  const tried = (id: number, members: number[], answer: 'FAILS' | 'WORKS') => ({
    id,
    why: 'NARROW' as const,
    members,
    answer,
    byUser: false,
    note: '',
    at: '',
    picture: '',
  })
  const tries = [
    tried(1, [1, 2, 3], 'FAILS'),
    tried(2, [1, 3], 'WORKS'),
    tried(3, [1], 'WORKS'),
    tried(4, [1, 2], 'FAILS'),
    tried(5, [1, 2], 'WORKS'),
  ]
  const s = search('FOUND', [part(1, 'FOUND'), part(2, 'FOUND'), part(3, 'CLEARED')], { tries })
  expect(proofOf(s).map((t) => t.id)).toEqual([3, 4])
})

describe('how long it takes yet', () => {
  const tried = (at: string): Search['tries'][number] => ({
    id: 1,
    why: 'NARROW',
    members: [],
    answer: 'WORKS',
    byUser: false,
    note: '',
    at,
    picture: '',
  })
  const asked = { why: 'NARROW' as const, members: [1], atMostLeft: 8, running: true }

  it('is told by the tries before, whatever rest lay between two of them', () => {
    const times = ['10:00:00', '10:00:02', '10:00:04', '18:00:00', '18:00:02']
    const tries = times.map((t) => tried(`2026-12-01T${t}Z`))
    const going = search('SEARCHING', [part(1, 'SUSPECTED')], { tries, asked })
    expect(leftWords(going)).toBe('5 runs done, at most 8 left if one more mod is behind it: about 16 s.')
    expect(leftWords({ ...going, tries: tries.slice(0, 1) })).not.toContain('about')
    expect(leftWords({ ...going, search: { ...going.search, state: 'RESTING' } })).not.toContain('about')
  })
})

describe('what a mod costs', () => {
  const spread = (least: number, middle: number, most: number) => ({ least, middle, most, runs: 3 })

  it('is told only where the bars do not meet', () => {
    const measure = 'MEMORY' as const
    const [small, large] = [spread(1 << 20, 2 << 20, 3 << 20), spread(10 << 20, 12 << 20, 13 << 20)]
    expect(costWords({ measure, with: large, without: small, apart: true })).toBe('10 MiB more with it')
    expect(costWords({ measure, with: small, without: large, apart: true })).toBe('10 MiB less with it')
    expect(costWords({ measure, with: large, without: small, apart: false })).toBe(
      'no difference beyond the spread',
    )
    expect(costWords({ measure, with: large, apart: false })).toBe('')
    const [slow, quick] = [spread(3000, 3000, 3000), spread(500, 500, 500)]
    expect(costWords({ measure: 'TIME', with: slow, without: quick, apart: true })).toBe('2.5 s more with it')
  })

  it('says how many runs there are left', () => {
    const cost = { mod: 1, name: 'Mod 1', alsoLeftOut: [], times: 3, figures: [] }
    const asked = { why: 'MEASURE_WITH' as const, members: [1], atMostLeft: 6, running: false }
    expect(leftWords(search('SEARCHING', [part(1, 'SUSPECTED')], { measured: cost, asked }))).toBe(
      '0 runs done, 6 left.',
    )
  })
})

describe('a search about a mod that stays on', () => {
  it('never speaks of the unmodded game', () => {
    const always = ['Lamps', 'Rope']
    expect(whyWords({ why: 'NOTHING' }, 'MODS', undefined, always)).toBe('Lamps and Rope alone')
    expect(outcomeWords(search('NONE', [part(1, 'CLEARED')], { always }))).toBe(
      'With nothing on but Lamps and Rope the fault shows too: no other mod is behind it.',
    )
  })
})
