import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { SORTS, type Sort, shownMods, type Wanted } from './mods'

type Mod = Schema['ModView']

const mod = (id: number, name: string, rest: Partial<Mod> = {}): Mod =>
  ({
    id,
    name,
    version: '1',
    versions: 1,
    summary: '',
    authors: [],
    archiveName: `${name}.zip`,
    files: 1,
    sizeBytes: 1,
    plugins: [],
    tags: [],
    heldBack: 0,
    edited: 0,
    betterFitting: false,
    journey: { reached: 'ON', inPlay: 1, deployed: 0 },
    ...rest,
  }) as unknown as Mod

const mods = [
  mod(1, 'Rope Locker', { files: 3, tags: ['deck'], plugins: ['Rope.plug'] }),
  mod(2, 'anchor', { files: 9, journey: { reached: 'LIBRARY', inPlay: 0, deployed: 0 } }),
  mod(3, 'Bollards', { files: 3, authors: ['Sunniva'], tags: ['deck', 'quay'] }),
]
const wanted = (w: Partial<Wanted>) =>
  shownMods(mods, { find: '', kinds: [], tags: [], sort: 'name', down: false, ...w })
    .map((m) => m.id)
    .join('')

describe('the library as it is shown', () => {
  it('sorts by name without regard to capitals, and alike ones by name', () => {
    expect(wanted({})).toBe('231')
    expect(wanted({ down: true })).toBe('132')
    expect(wanted({ sort: 'files', down: true })).toBe('231')
    expect(wanted({ sort: 'files' })).toBe('312')
    expect(wanted({ sort: 'far' })).toBe('231')
  })
  it('finds all words, in whatever of it they stand', () => {
    expect(wanted({ find: 'ROPE lock' })).toBe('1')
    expect(wanted({ find: 'sunniva quay' })).toBe('3')
    expect(wanted({ find: 'rope.plug' })).toBe('1')
    expect(wanted({ find: 'rope sunniva' })).toBe('')
  })
  it('keeps what is of all kinds and has all tags', () => {
    expect(wanted({ kinds: ['off'] })).toBe('2')
    expect(wanted({ tags: ['deck'] })).toBe('31')
    expect(wanted({ tags: ['deck', 'quay'], kinds: ['on'] })).toBe('3')
    expect(wanted({ kinds: ['on', 'off'] })).toBe('')
  })
  it('never loses or doubles a mod, however it is sorted', () => {
    for (const sort of Object.keys(SORTS) as Sort[])
      for (const down of [true, false]) expect([...wanted({ sort, down })].sort().join('')).toBe('123')
  })
})
