import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { largest } from './space'

const mod = (id: number, sizeBytes: number) =>
  ({ id, name: `Mod ${id}`, files: 1, sizeBytes }) as unknown as Schema['ModView']

describe('where space goes', () => {
  it('tells the largest one by one and the others together, and loses nothing', () => {
    const mods = [mod(1, 5), mod(2, 50), mod(3, 0), mod(4, 7), mod(5, 7)]
    const tiles = largest(mods, 3)
    expect(tiles.map((t) => t.mod)).toEqual([2, 4, 5, null])
    expect(tiles.at(-1)).toEqual({ mod: null, name: '1 smaller mod', files: 1, sizeBytes: 5 })
    expect(tiles.reduce((n, t) => n + t.sizeBytes, 0)).toBe(69)
  })
  it('has no tile for what takes none', () => {
    expect(largest([mod(1, 0)])).toEqual([])
    expect(largest([])).toEqual([])
  })
})
