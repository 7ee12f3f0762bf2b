import type { Schema } from '../api/client'
import { hasWords } from '../frame/search'

type MatrixView = Schema['MatrixView']

/** The side that the picture is to fill, in pixels. */
const SIDE = 720
const LARGEST = 36
const SMALLEST = 3

/** The side of one square, in pixels, so that all of them fit as far as they can still be pointed at. */
export function cellSize(mods: number): number {
  return Math.max(SMALLEST, Math.min(LARGEST, Math.floor(SIDE / Math.max(1, mods))))
}

/** The square at a point; null beyond the picture. */
export function cellAt(
  x: number,
  y: number,
  size: number,
  mods: number,
): { row: number; column: number } | null {
  const [row, column] = [Math.floor(y / size), Math.floor(x / size)]
  return row >= 0 && column >= 0 && row < mods && column < mods ? { row, column } : null
}

export interface ModPair {
  over: Schema['MatrixMod']
  under: Schema['MatrixMod']
  paths: number
  differs: number
}

/** The pairs of a matrix, those with most paths first; only those of mods that are looked for. */
export function pairsByPaths(matrix: MatrixView, find: string): ModPair[] {
  const mods = new Map(matrix.mods.map((m) => [m.mod, m]))
  return matrix.cells
    .flatMap((c) => {
      const [over, under] = [mods.get(c.over), mods.get(c.under)]
      return over && under ? [{ over, under, paths: c.paths, differs: c.differs }] : []
    })
    .filter((p) => hasWords(find, [p.over.name, p.under.name]))
    .sort((a, b) => b.paths - a.paths || a.over.name.localeCompare(b.over.name))
}
