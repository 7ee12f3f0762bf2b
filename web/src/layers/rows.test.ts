import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { parseFilter } from './filter'
import { modsOf, numberAbove, numberAt, rowsOf } from './rows'

const layer = (mod: number, section = 0): Schema['LayerView'] =>
  ({
    mod,
    position: mod,
    on: mod !== 2,
    section,
    kept: false,
    contested: mod,
    heldBack: 0,
    tags: [],
    broughtAt: `2026-11-0${mod}`,
    name: `Mod ${9 - mod}`,
    files: mod,
    sizeBytes: mod,
    plugins: [],
    bar: { inPlay: 1, covering: 0, contributing: 0, covered: 0, twin: 0 },
  }) as unknown as Schema['LayerView']

const view = {
  revision: 1,
  game: { title: 'Game' },
  layers: [layer(1), layer(2, 7), layer(3, 7), layer(4)],
  sections: [{ id: 7, name: 'Looks' }],
} as unknown as Schema['LayersView']
const facts = { sectionOf: new Map(), wrinkled: new Set<number>(), holding: new Map() }
const ids = (...args: [ReadonlySet<number>, string, 'order' | 'name' | 'brought']) =>
  rowsOf(view, args[0], parseFilter(args[1]), facts, args[2]).map((r) => r.id)

describe('the rows of the list', () => {
  it('run from the top, with the game last', () => {
    expect(ids(new Set(), '', 'order')).toEqual(['4', '3', '2', '1', '0'])
  })
  it('show a folded section as one', () => {
    expect(ids(new Set([7]), '', 'order')).toEqual(['4', 'section 7', '1', '0'])
    const rows = rowsOf(view, new Set([7]), null, facts, 'order')
    expect(modsOf(rows, new Set(['section 7', '4']))).toEqual([4, 2, 3])
  })
  it('leave out what a filter hides, and can be sorted without being moved', () => {
    expect(ids(new Set(), 'on', 'order')).toEqual(['4', '3', '1'])
    expect(ids(new Set(), '', 'name')).toEqual(['4', '3', '2', '1'])
    expect(ids(new Set([7]), '', 'brought')).toEqual(['4', '3', '2', '1'])
  })
  it('know the number that a place between them means', () => {
    const rows = rowsOf(view, new Set([7]), null, facts, 'order')
    expect(numberAbove(view, [1], rows[0])).toBe(4)
    expect(numberAbove(view, [1], rows[1])).toBe(3)
    expect(numberAbove(view, [4], rows[3])).toBe(1)
    expect(numberAbove(view, [4], undefined)).toBe(1)
    expect(numberAbove(view, [2, 3], rows[2])).toBe(2)
  })
  it('mean the same place when the stack is turned over', () => {
    const turned = rowsOf(view, new Set(), null, facts, 'order', true)
    expect(turned.map((r) => r.id)).toEqual(['0', '1', '2', '3', '4'])
    for (const mod of [1, 2, 3, 4]) {
      const rest = turned.filter((r) => r.id !== String(mod))
      const other = [...rest].reverse()
      for (let to = 1; to <= 4; to++) {
        const number = numberAt(view, [mod], rest, to, true)
        expect(number).toBe(to)
        expect(numberAt(view, [mod], other, 4 - to, false)).toBe(number)
      }
    }
    // where a filter hides the rest, below the lowest that is shown
    const shown = turned.slice(2)
    expect(numberAt(view, [4], shown.slice(0, 2), 0, true)).toBe(2)
  })
})
