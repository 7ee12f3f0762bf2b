import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { changed } from './queries'
import { differenceWords } from './sentence'

const none: Schema['DifferenceView'] = {
  revision: 1,
  files: 0,
  sources: [],
  samples: [],
  pluginsCome: [],
  pluginsGo: [],
  loadOrderChanges: false,
}

describe('the sentence about a change', () => {
  it('says when nothing changes', () => {
    expect(differenceWords(none, 'would')).toBe('Nothing in the game changes.')
  })

  it('counts files by where they come from', () => {
    const d = {
      ...none,
      files: 19,
      sources: [
        { mod: 5, name: 'Fogbound Weather', files: 19, folders: { 'data/tables': 17, 'data/textures': 2 } },
      ],
    }
    expect(differenceWords(d, 'would')).toBe(
      '19 files in the game would change: 17 in data/tables and 2 in data/textures would come from Fogbound Weather. No plugin moves.',
    )
    expect(differenceWords(d, 'does')).toContain('19 files in the game change: 17 in data/tables')
  })

  it('tells files that go, and has the right form for one', () => {
    const d = {
      ...none,
      files: 2,
      sources: [
        { mod: 0, name: 'Skerry Line', files: 1, folders: { data: 1 } as Record<string, number> },
        { name: 'nobody', files: 1, folders: { bin: 1 } as Record<string, number> },
      ],
      pluginsGo: ['A.plug'],
    }
    expect(differenceWords(d, 'does')).toBe(
      '2 files in the game change: 1 in data comes from Skerry Line and 1 in bin is gone. A.plug leaves it.',
    )
  })

  it('keeps long lists short', () => {
    const sources = [1, 2, 3, 4, 5].map((mod) => ({
      mod,
      name: `Mod ${mod}`,
      files: 10,
      folders: { a: 1, b: 2, c: 3, d: 4 },
    }))
    const words = differenceWords({ ...none, files: 50, sources, pluginsCome: ['a', 'b', 'c', 'd'] }, 'would')
    expect(words).toContain('20 from others')
    expect(words).toContain('4 plugins would join')
  })

  it('says when plugins move along', () => {
    expect(differenceWords({ ...none, loadOrderChanges: true }, 'does')).toBe(
      'The load order changes with it.',
    )
  })
})

describe('the list as it will be', () => {
  const layer = (mod: number, position: number) => ({ mod, position, on: true }) as Schema['LayerView']
  const view = { revision: 1, layers: [layer(1, 1), layer(2, 2), layer(3, 3)] } as Schema['LayersView']

  it('puts a layer at its number and counts the others anew', () => {
    const after = changed(view, { kind: 'move', mods: [1], to: 3 })
    expect(after.layers.map((l) => l.mod)).toEqual([2, 3, 1])
    expect(after.layers.map((l) => l.position)).toEqual([1, 2, 3])
    expect(changed(view, { kind: 'move', mods: [3], to: 1 }).layers.map((l) => l.mod)).toEqual([3, 1, 2])
    expect(changed(view, { kind: 'move', mods: [1, 3], to: 1 }).layers.map((l) => l.mod)).toEqual([1, 3, 2])
  })

  it('switches exactly those that are named', () => {
    const after = changed(view, { kind: 'switch', mods: [2], on: false })
    expect(after.layers.map((l) => l.on)).toEqual([true, false, true])
  })
})
