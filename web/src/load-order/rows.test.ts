import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { changed } from './queries'
import { hasStages, moveOf, type PluginRow, rowsOf, type Wanted } from './rows'

type View = Schema['LoadOrderView']

const view = {
  revision: 1,
  plugins: 'Gabcdef'.split('').map((name, i) => ({
    name,
    position: i + 1,
    own: name === 'G',
    on: name !== 'c',
    modName: name === 'd' ? 'Harbour' : 'Other',
    overrides: i % 3,
    stage: 1,
    kept: false,
    fresh: false,
    mend: false,
  })),
} as unknown as View

const all: Wanted = { find: '', kinds: [], sort: 'order', down: false }
const shown = (w: Partial<Wanted>) => rowsOf(view, new Set(['e']), { ...all, ...w })
const names = (rows: readonly PluginRow[]) => rows.map((r) => r.id).join('')

describe('plugins as they are shown', () => {
  it('are those that are looked for', () => {
    expect(names(shown({}))).toBe('Gabcdef')
    expect(names(shown({ find: 'harb' }))).toBe('d')
    expect(names(shown({ kinds: ['off'] }))).toBe('c')
    expect(names(shown({ kinds: ['trouble', 'on'] }))).toBe('e')
    expect(names(shown({ sort: 'overrides', down: true }))).toBe('beadGcf')
  })
  it('have a column of stages where there are several', () => {
    expect(hasStages(view.plugins)).toBe(false)
    expect(hasStages(view.plugins.map((p, i) => ({ ...p, stage: i })))).toBe(true)
    // those of the game stand before all stages
    expect(hasStages(view.plugins.map((p) => ({ ...p, stage: p.own ? 0 : 5 })))).toBe(false)
  })
  it('are moved behind the row above the gap, past what is not shown', () => {
    const odd = shown({}).filter((r) => 'Gace'.includes(r.id))
    const moved = (carried: { ids: string[]; to: number }) =>
      changed(view, moveOf(view, odd, carried))
        .plugins.map((p) => p.name)
        .join('')
    expect(moved({ ids: ['e'], to: 2 })).toBe('Gaebcdf')
    expect(moved({ ids: ['a'], to: 3 })).toBe('Gbcdeaf')
    expect(moved({ ids: ['c', 'e'], to: 1 })).toBe('Gceabdf')
  })
  it('come to stand where they are put when all are shown', () => {
    const rows = shown({})
    for (const id of 'abcdef')
      for (let to = 1; to < rows.length; to++)
        expect(changed(view, moveOf(view, rows, { ids: [id], to })).plugins[to]?.name).toBe(id)
  })
})
