import type { Schema } from '../api/client'

type Overview = Schema['OverviewView']

/** How many mods have come how far; a number that nobody can tell yet is undefined. */
export function countsOf(counts: Overview['counts']): { n: number | undefined; says: string }[] {
  return [
    { n: counts.library, says: 'in the library' },
    { n: counts.on, says: 'switched on' },
    { n: counts.deployed, says: 'in the game folder' },
    {
      n: counts.read,
      says:
        counts.read === undefined
          ? 'read by the game: cannot be told yet'
          : 'read by the game in the last run',
    },
  ]
}

/** How far a bar is filled, in percent of all mods of the library. */
export function filled(n: number | undefined, library: number): number {
  return library > 0 ? (100 * (n ?? 0)) / library : 0
}

/** Where the files that the game sees come from; what there is none of is left out. */
export function makeupOf(m: Overview['makeup']): { n: number; look: string; says: string }[] {
  return [
    { n: m.game, look: 'way-game', says: 'of the unmodded game' },
    { n: m.mods, look: 'way-in-play', says: 'of mods, new to the game' },
    { n: m.covering, look: 'way-covering', says: 'of mods, covering another' },
    { n: m.mends, look: 'way-mend', says: 'of mends' },
  ].filter((p) => p.n > 0)
}
