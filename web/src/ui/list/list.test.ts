import { describe, expect, it } from 'vitest'
import { between, ids, together, turned } from './choosing'
import { carriedTo, stepped, within } from './places'
import { NONE } from './rows'
import { found, stepOf } from './walking'

const rows = [
  { id: 'game', label: 'The game', fixed: true },
  { id: 'a', label: 'Anchor' },
  { id: 'b', label: 'Bell' },
  { id: 'c', label: 'Buoy' },
  { id: 'd', label: 'Dock' },
]
const sorted = (s: ReadonlySet<string>) => [...s].sort().join('')

describe('choosing', () => {
  it('takes all between two rows, whichever comes first, and nothing that is fixed', () => {
    expect(sorted(between(rows, 1, 3))).toBe('abc')
    expect(sorted(between(rows, 3, 0))).toBe('abc')
    expect(sorted(between(rows, -1, 1))).toBe('a')
    expect(sorted(ids(rows))).toBe('abcd')
  })
  it('turns one row, and begins with the selected one', () => {
    const [game, , b] = rows as [(typeof rows)[0], (typeof rows)[0], (typeof rows)[0]]
    expect(sorted(turned(NONE, 'a', b))).toBe('ab')
    expect(sorted(turned(NONE, null, b))).toBe('b')
    expect(sorted(turned(new Set(['a', 'b']), 'a', b))).toBe('a')
    expect(sorted(turned(new Set(['a']), 'a', game))).toBe('a')
  })
  it('acts on all that are chosen where it begins at one of them, and else on the one', () => {
    expect(together(rows, new Set(['d', 'a']), 'd')).toEqual(['a', 'd'])
    expect(together(rows, new Set(['d', 'a']), 'b')).toEqual(['b'])
  })
})

describe('walking', () => {
  it('knows where keys lead', () => {
    expect(stepOf('ArrowDown', 2, 5, 3)).toBe(3)
    expect(stepOf('PageUp', 2, 5, 3)).toBe(-1)
    expect(stepOf('End', 2, 5, 3)).toBe(4)
    expect(stepOf('x', 2, 5, 3)).toBeUndefined()
  })
  it('finds by the beginning of a name, one letter again goes on to the next', () => {
    const first = found(rows, 0, { text: '', at: 0 }, 'B', 10_000)
    expect(rows[first.index]?.id).toBe('b')
    // within one word
    expect(rows[found(rows, first.index, first.typed, 'u', 10_500).index]?.id).toBe('c')
    // a word of its own, from the next row on, and round
    expect(rows[found(rows, 2, first.typed, 'b', 12_000).index]?.id).toBe('c')
    expect(rows[found(rows, 3, first.typed, 'b', 12_000).index]?.id).toBe('b')
    expect(found(rows, 3, first.typed, 'z', 12_000).index).toBe(-1)
    expect(found([], -1, first.typed, 'z', 12_000).index).toBe(-1)
  })
})

describe('carrying', () => {
  it('counts the rows that stay above', () => {
    expect(carriedTo(rows, NONE, 'a', 1, 3)).toEqual({ ids: ['a'], to: 3 })
    expect(carriedTo(rows, NONE, 'd', 4, 1)).toEqual({ ids: ['d'], to: 1 })
    expect(carriedTo(rows, new Set(['a', 'c']), 'c', 3, 4)).toEqual({ ids: ['a', 'c'], to: 3 })
  })
  it('goes past nothing that is fixed', () => {
    expect(within(rows, -4)).toBe(1)
    expect(within(rows, 9)).toBe(4)
    expect(stepped(rows, NONE, 'a', false)).toBeNull()
    expect(stepped(rows, NONE, 'd', true)).toBeNull()
  })
  it('moves all that are chosen past one neighbour, and closes them up', () => {
    const chosen = new Set(['a', 'c'])
    expect(stepped(rows, chosen, 'a', true)).toEqual({ ids: ['a', 'c'], to: 3 })
    expect(stepped(rows, chosen, 'c', false)).toBeNull()
  })
  it('brings any row anywhere, as taking it out and putting it in does', () => {
    const free = rows.slice(1)
    for (const row of free) {
      const from = rows.indexOf(row)
      for (let to = 1; to < rows.length; to++) {
        const rest = rows.filter((r) => r !== row)
        const there = carriedTo(rows, NONE, row.id, from, to).to
        rest.splice(there, 0, row)
        expect(rest.indexOf(row)).toBe(to)
      }
    }
  })
})
