import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { merged } from './since'

type View = Schema['LayersView']
type Layer = Schema['LayerView']

const layer = (mod: number, position: number, on = true) => ({ mod, position, on }) as unknown as Layer
const game = { title: 'Game' } as unknown as View['game']
const before: View = {
  revision: 1,
  game,
  sections: [],
  layers: [layer(7, 1), layer(8, 2), layer(9, 3)],
}
const changed = (changes: Partial<Schema['LayersChanges']>): Schema['LayersSince'] => ({
  tag: 2,
  changes: { revision: 2, game, sections: [], layers: [], ...changes },
})
const shown = (v: View) => v.layers.map((l) => `${l.mod}@${l.position}${l.on ? '' : ' off'}`)

describe('the list of layers with what has changed since', () => {
  it('is all of it where the server tells all', () => {
    expect(merged(undefined, { tag: 1, whole: before })).toBe(before)
    expect(merged(before, { tag: 1, whole: { ...before, layers: [] } }).layers).toEqual([])
  })
  it('has another order, and rows that came and went', () => {
    expect(shown(merged(before, changed({ order: { from: 0, gone: 3, mods: [9, 7, 8] } })))).toEqual([
      '9@1',
      '7@2',
      '8@3',
    ])
    expect(shown(merged(before, changed({ order: { from: 1, gone: 1, mods: [] } })))).toEqual(['7@1', '9@2'])
    expect(
      shown(merged(before, changed({ order: { from: 0, gone: 3, mods: [8, 4] }, layers: [layer(4, 2)] }))),
    ).toEqual(['8@1', '4@2'])
  })
  it('has rows that are otherwise, in the order that it had', () => {
    const now = merged(before, changed({ layers: [layer(8, 2, false)] }))
    expect(shown(now)).toEqual(['7@1', '8@2 off', '9@3'])
    expect(now.revision).toBe(2)
    expect(now.layers[0], 'not drawn again').toBe(before.layers[0])
  })
  it('refuses changes of a list that is not here', () => {
    expect(() => merged(undefined, changed({}))).toThrow()
  })
})
