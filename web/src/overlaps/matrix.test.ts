import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { cellAt, cellSize, pairsByPaths, shades } from './matrix'

const mod = (id: number, name: string) => ({ mod: id, name, position: id, paths: 1 })
const matrix: Schema['MatrixView'] = {
  revision: 1,
  mods: [mod(1, 'Bell'), mod(2, 'Buoy'), mod(3, 'Anchor')],
  more: 0,
  cells: [
    { over: 1, under: 2, paths: 3, differs: 1 },
    { over: 3, under: 1, paths: 9, differs: 0 },
    { over: 2, under: 3, paths: 3, differs: 3 },
    { over: 2, under: 99, paths: 50, differs: 3 },
  ],
}

describe('the picture of who collides with whom', () => {
  it('fits as far as its squares can be pointed at', () => {
    expect(cellSize(2)).toBe(36)
    expect(cellSize(100)).toBe(7)
    expect(cellSize(400)).toBe(3)
    expect(cellSize(0)).toBe(36)
  })
  it('knows which square lies at a point', () => {
    expect(cellAt(0, 0, 7, 3)).toEqual({ row: 0, column: 0 })
    expect(cellAt(20, 6.9, 7, 3)).toEqual({ row: 0, column: 2 })
    expect(cellAt(21, 0, 7, 3)).toBeNull()
    expect(cellAt(-1, 0, 7, 3)).toBeNull()
  })
  it('has a square for each pair of its mods, the darkest for the most paths', () => {
    const drawn = shades(matrix, 10)
    expect(
      drawn
        .map((s) => s.path)
        .join('')
        .split('M'),
    ).toHaveLength(4)
    const twin = drawn.find((s) => !s.differs)
    expect(twin).toEqual({ differs: false, opacity: expect.any(Number), path: 'M0 20h9v9h-9z' })
    expect(drawn.filter((s) => s.differs)).toHaveLength(1)
    for (const s of drawn) expect(s.opacity).toBeGreaterThan(0.25)
    expect(shades({ ...matrix, cells: [] }, 10)).toEqual([])
  })
  it('has a table behind it, the largest first, of the mods that are looked for', () => {
    const names = (find: string) => pairsByPaths(matrix, find).map((p) => `${p.over.name}>${p.under.name}`)
    expect(names('')).toEqual(['Anchor>Bell', 'Bell>Buoy', 'Buoy>Anchor'])
    expect(names('buoy')).toEqual(['Bell>Buoy', 'Buoy>Anchor'])
    expect(names('buoy anchor')).toEqual(['Buoy>Anchor'])
    expect(names('mast')).toEqual([])
  })
})
