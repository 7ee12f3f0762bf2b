import type { Schema } from '../api/client'
import { count } from '../ui/text'

/** A tile of the picture of where space goes. */
export interface Tile {
  /** The mod; null for all the smaller ones together. */
  mod: number | null
  name: string
  files: number
  sizeBytes: number
}

/** More tiles than this cannot be told from one another. */
const MOST = 400

/** The mods that take most space, the largest first, and behind them all the others as one. */
export function largest(mods: readonly Schema['ModView'][], most = MOST): Tile[] {
  const sorted = [...mods]
    .filter((m) => m.sizeBytes > 0)
    .sort((a, b) => b.sizeBytes - a.sizeBytes || a.name.localeCompare(b.name))
  const tiles: Tile[] = sorted
    .slice(0, most)
    .map((m) => ({ mod: m.id, name: m.name, files: m.files, sizeBytes: m.sizeBytes }))
  const rest = sorted.slice(most)
  if (rest.length > 0)
    tiles.push({
      mod: null,
      name: `${count(rest.length, 'smaller mod')}`,
      files: rest.reduce((n, m) => n + m.files, 0),
      sizeBytes: rest.reduce((n, m) => n + m.sizeBytes, 0),
    })
  return tiles
}
