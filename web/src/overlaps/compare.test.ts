import { describe, expect, it } from 'vitest'
import { hexRows, jsonPlaces, sideBySide, tablePlaces } from './compare'

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
