import { describe, expect, it } from 'vitest'
import { folded, hexRows, hits, jsonPlaces, rowWith, sideBySide, tablePlaces } from './compare'

const text = (p: { text: string; marked: boolean }[] | undefined) =>
  p?.map((x) => (x.marked ? `[${x.text}]` : x.text)).join('')

describe('two texts side by side', () => {
  it('pairs changed lines and marks the words in them', () => {
    const lines = sideBySide('one\ntwo two\nthree\n', 'one\ntwo 2\nthree\nfour\n')
    expect(lines.map((l) => [text(l.left?.pieces), text(l.right?.pieces)])).toEqual([
      ['one', 'one'],
      ['two [two]', 'two [2]'],
      ['three', 'three'],
      [undefined, '[four]'],
      ['', ''],
    ])
    expect(lines.map((l) => [l.left?.number, l.right?.number])).toEqual([
      [1, 1],
      [2, 2],
      [3, 3],
      [undefined, 4],
      [4, 5],
    ])
  })
  it('does not count line ends as a change', () => {
    expect(sideBySide('a\r\nb', 'a\nb').every((l) => l.same)).toBe(true)
  })
})

describe('two structured files', () => {
  it('are compared cell by cell where they are tables', () => {
    expect(tablePlaces('id,a,b\nx,1,2\ny,3,4\n', 'id,a,c\nx,9,2\nz,5,6\n')).toEqual([
      { at: 'column b', left: 'there' },
      { at: 'column c', right: 'there' },
      { at: 'row x, a', left: '1', right: '9' },
      { at: 'row y', left: 'y, 3, 4' },
      { at: 'row z', right: 'z, 5, 6' },
    ])
    expect(tablePlaces('id,a\nx,1\nx,2\n', 'id,a\nx,1\n')).toBeNull()
  })
  it('are compared by pointer where they are JSON', () => {
    expect(jsonPlaces('{"a":{"b/c":1},"d":[1,2]}', '{"a":{"b/c":2},"d":[1],"e":null}')).toEqual([
      { at: '/a/b~1c', left: '1', right: '2' },
      { at: '/d/1', left: '2' },
      { at: '/e', right: 'null' },
    ])
    expect(jsonPlaces('{', '{}')).toBeNull()
  })
})

it('shows bytes sixteen a row', () => {
  expect(hexRows('48656c6c6f00'.padEnd(34, 'f'))).toMatchObject([
    { at: '000000', letters: 'Hello···········' },
    { at: '000010', bytes: ['ff'] },
  ])
})

describe('equal lines are folded', () => {
  const text = (n: number, change: (i: number) => string) =>
    Array.from({ length: n }, (_, i) => change(i)).join('\n')
  const lines = sideBySide(
    text(40, (i) => `line ${i}`),
    text(40, (i) => (i === 20 ? 'LINE 20' : `line ${i}`)),
  )
  const none = new Set<number>()

  it('but for three on either side of a difference', () => {
    const rows = folded(lines, none)
    expect(rows.map((r) => ('fold' in r ? `+${r.fold}` : r.index))).toEqual([
      '+17',
      17,
      18,
      19,
      20,
      21,
      22,
      23,
      '+16',
    ])
    expect(rowWith(rows, 20)).toBe(4)
    expect(rowWith(rows, 0)).toBe(0)
    expect(rowWith(rows, 39)).toBe(8)
    expect(rowWith(rows, 40)).toBe(-1)
  })
  it('until somebody opens them', () => {
    expect(folded(lines, new Set([0]))).toHaveLength(25)
    expect(folded(lines, new Set([0, 24]))).toHaveLength(40)
  })
  it('and every line is shown or folded once, whatever differs', () => {
    for (let mask = 0; mask < 64; mask++) {
      const other = text(60, (i) => (mask & (1 << Math.floor(i / 10)) && i % 10 === 5 ? 'x' : `line ${i}`))
      const all = sideBySide(
        text(60, (i) => `line ${i}`),
        other,
      )
      const rows = folded(all, none)
      const seen = rows.flatMap((r) =>
        'fold' in r ? Array.from({ length: r.fold }, (_, k) => r.from + k) : [r.index],
      )
      expect(seen).toEqual(all.map((_, i) => i))
      for (const r of rows)
        if ('fold' in r) for (let k = 0; k < r.fold; k++) expect(all[r.from + k]?.same).toBe(true)
    }
  })
  it('a search finds lines on either side, folded ones too', () => {
    expect(hits(lines, 'LINE 20')).toEqual([20])
    expect(hits(lines, 'line 3')).toEqual([3, 30, 31, 32, 33, 34, 35, 36, 37, 38, 39])
    expect(hits(lines, ' ')).toEqual([])
  })
})
