import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { around, bothChanges } from './around'

type Board = Schema['FileBoard']
type Place = Schema['FilePlace']

const place = (where: string, outcome?: string): Place =>
  ({ key: where, where, how: 'ASKED', sides: [], from: [], once: false, outcome }) as unknown as Place

describe('what lies around a question', () => {
  it('are the lines on either side in a text', () => {
    const asked = place('line 5')
    const board = {
      places: [place('line 1'), asked],
      pieces: [
        { text: '1\n2\n3\n4\n', of: [], place: -1 },
        { text: 'x\n', of: [], place: 1 },
        { text: '6\n', of: [], place: -1 },
      ],
      shown: '',
    } as unknown as Board
    expect(around(board, asked)).toEqual({ before: '3\n4', behind: '6' })
    expect(around(board, place('line 99'))).toBeNull()
  })
  it('are the lines around a key where only one is meant', () => {
    const shown = '{\n  "fog": {\n    "lamp": "red",\n    "bell": 4\n  },\n  "lamp": "green"\n}\n'
    const board = { places: [], pieces: [], shown } as unknown as Board
    expect(around(board, place('/fog/lamp', '"red"'))).toEqual({
      before: '{\n  "fog": {',
      behind: '    "bell": 4\n  },',
    })
    const twice = { ...board, shown: shown.replace('green', 'red') }
    expect(around(twice, place('/fog/lamp', '"red"'))).toBeNull()
    expect(around(board, place('/fog/horn', '"red"'))).toBeNull()
    expect(around(board, place('/fog/lamp'))).toBeNull()
  })
})

describe('two changes beside one another', () => {
  it('are both kept where they touch no line in common', () => {
    expect(bothChanges('a\nb\n', 'A\nb\n', 'a\nB\n')).toBe('A\nB\n')
    expect(bothChanges('a\nb\n', 'a\nB\n', 'A\nb\n')).toBe('A\nB\n')
    expect(bothChanges('a\nb\nc\n', 'b\nc\n', 'a\nb\nc\nd\n')).toBe('b\nc\nd\n')
  })
  it('are not where both change one line, or add at one place', () => {
    expect(bothChanges('a\n', 'A\n', 'x\n')).toBeNull()
    expect(bothChanges('a\nb\n', 'a\n1\nb\n', 'a\n2\nb\n')).toBeNull()
    expect(bothChanges('a\nb\nc\n', 'a\nX\n', 'a\nb\nC\n')).toBeNull()
  })
  it('are none where one changes nothing', () => {
    expect(bothChanges('a\n', 'a\n', 'b\n')).toBeNull()
  })
  it('give what doing one after the other gives, for any lines that each changes alone', () => {
    const base = ['a', 'b', 'c', 'd', 'e'].map((l) => `${l}\n`)
    const write = (lines: ReadonlySet<number>, by: string) =>
      base.map((l, i) => (lines.has(i) ? by : l)).join('')
    for (let mask = 1; mask < 31; mask++) {
      const ones = new Set([0, 1, 2, 3, 4].filter((i) => mask & (1 << i)))
      const others = new Set([0, 1, 2, 3, 4].filter((i) => !ones.has(i)))
      const both = base.map((_, i) => (ones.has(i) ? '1\n' : '2\n')).join('')
      expect(bothChanges(base.join(''), write(ones, '1\n'), write(others, '2\n'))).toBe(both)
    }
  })
})
