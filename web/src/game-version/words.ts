import type { Schema } from '../api/client'

type GameVersion = Schema['GameVersionView']

/** Which version the game has, or what is the matter with it. */
export function headline(v: GameVersion): string {
  if (!v.noticed) return v.known ? `Version ${v.known}.` : 'The game tells no version.'
  if (v.known !== v.found && v.found)
    return `${v.found} lies in the folder${v.known ? `; your mods were arranged for ${v.known}` : ''}.`
  return 'The version is the same, but files of the game are not.'
}
