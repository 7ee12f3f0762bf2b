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

/** How many shades the picture has. */
const SHADES = 8

/** Squares of one colour and shade, as one path of SVG: one for each square would be too many for a page. */
export interface Shade {
  differs: boolean
  /** From a quarter to one. */
  opacity: number
  path: string
}

/** The squares of a matrix by colour and shade: the more paths two have in common, the darker. */
export function shades(matrix: MatrixView, size: number): Shade[] {
  const index = new Map(matrix.mods.map((m, i) => [m.mod, i]))
  const most = Math.log1p(Math.max(1, ...matrix.cells.map((c) => c.paths)))
  const side = size - (size > 5 ? 1 : 0)
  const by = new Map<string, Shade>()
  for (const c of matrix.cells) {
    const [row, column] = [index.get(c.over), index.get(c.under)]
    if (row === undefined || column === undefined) continue
    const step = Math.ceil((SHADES * Math.log1p(c.paths)) / most)
    const differs = c.differs > 0
    const key = `${differs} ${step}`
    const shade = by.get(key) ?? { differs, opacity: 0.25 + (0.75 * step) / SHADES, path: '' }
    shade.path += `M${column * size} ${row * size}h${side}v${side}h${-side}z`
    by.set(key, shade)
  }
  return [...by.values()]
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
