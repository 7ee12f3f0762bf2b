import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { changed } from './queries'
import { loadWords } from './sentence'

const none: Schema['LoadDifferenceView'] = {
  revision: 1,
  records: 0,
  types: [],
  samples: [],
  files: 0,
  troublesBefore: 0,
  troublesAfter: 0,
}

describe('the sentence about a change of the load order', () => {
  it('says when nothing is read differently', () => {
    expect(loadWords(none, 'would')).toBe('The game reads every record as before.')
  })

  it('counts records by type, and troubles both ways', () => {
    const types = [
      { title: 'Harbour', records: 11 },
      { title: 'Tariff', records: 4 },
    ]
    expect(loadWords({ ...none, records: 15, types, troublesBefore: 2, troublesAfter: 1 }, 'would')).toBe(
      'The game would read 15 records differently: 11 harbour and 4 tariff. 1 trouble less.',
    )
    expect(loadWords({ ...none, troublesAfter: 1 }, 'would')).toBe('1 thing would be wrong that is not now.')
  })

  it('says where a plugin comes to stand when its stage holds it back', () => {
    const place = { name: 'A.plug', from: 3, to: 4, wished: 9, reason: 'It is of stage 5.' }
    expect(loadWords({ ...none, place }, 'does')).toContain('It loads as 4: it is of stage 5.')
  })
})

describe('the load order as it will be', () => {
  const plugin = (name: string, position: number) => ({ name, position, on: true }) as Schema['PluginView']
  const view = {
    revision: 1,
    plugins: [plugin('A', 1), plugin('B', 2), plugin('C', 3)],
  } as Schema['LoadOrderView']

  it('moves and switches the one that is named', () => {
    expect(
      changed(view, { kind: 'move', names: ['A'], to: 3 }).plugins.map((p) => `${p.name}${p.position}`),
    ).toEqual(['B1', 'C2', 'A3'])
    expect(changed(view, { kind: 'switch', names: ['B'], on: false }).plugins.map((p) => p.on)).toEqual([
      true,
      false,
      true,
    ])
    const back = changed(view, { kind: 'proposal', order: [...view.plugins].map((p) => p.name).reverse() })
    expect(back.plugins.map((p) => p.name)).toEqual([...view.plugins].map((p) => p.name).reverse())
    expect(back.plugins.map((p) => p.position)).toEqual(view.plugins.map((_, i) => i + 1))
  })
})
