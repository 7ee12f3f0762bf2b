import type { Schema } from '../api/client'
import { hasWords } from '../frame/search'

type Mod = Schema['ModView']

/** By what the library can be sorted, and which way a first click on it goes. */
export const SORTS = {
  name: { says: 'mod', of: (m: Mod) => m.name.toLowerCase(), down: false },
  version: { says: 'version', of: (m: Mod) => m.versions, down: true },
  files: { says: 'files', of: (m: Mod) => m.files, down: true },
  size: { says: 'size', of: (m: Mod) => m.sizeBytes, down: true },
  plugins: { says: 'plugins', of: (m: Mod) => m.plugins.length, down: true },
  far: { says: 'how far', of: (m: Mod) => FAR.indexOf(m.journey.reached), down: true },
  newest: { says: 'brought in', of: (m: Mod) => m.id, down: true },
} as const

const FAR: readonly Mod['journey']['reached'][] = ['LIBRARY', 'ON', 'DEPLOYED', 'READ']

export type Sort = keyof typeof SORTS

export function isSort(text: string | null): text is Sort {
  return text !== null && text in SORTS
}

/** Which mods are shown. */
export const KINDS = {
  on: { says: 'switched on', is: (m: Mod) => m.journey.reached !== 'LIBRARY' },
  off: { says: 'switched off', is: (m: Mod) => m.journey.reached === 'LIBRARY' },
  plugins: { says: 'with plugins', is: (m: Mod) => m.plugins.length > 0 },
  versions: { says: 'in several versions', is: (m: Mod) => m.versions > 1 },
  edited: { says: 'with edited files', is: (m: Mod) => m.edited > 0 },
  held: { says: 'with paths held back', is: (m: Mod) => m.heldBack > 0 },
  fitting: { says: 'that fit better otherwise', is: (m: Mod) => m.betterFitting },
} as const

export type Kind = keyof typeof KINDS

export function isKind(text: string): text is Kind {
  return text in KINDS
}

/** How the library is to be shown. */
export interface Wanted {
  find: string
  kinds: readonly Kind[]
  tags: readonly string[]
  sort: Sort
  /** Whether the largest comes first. */
  down: boolean
}

/** The mods that are looked for, sorted; those that are alike in this stay in the order of their names. */
export function shownMods(mods: readonly Mod[], w: Wanted): Mod[] {
  const by = SORTS[w.sort].of
  const sign = w.down ? -1 : 1
  return mods
    .filter((m) => w.kinds.every((k) => KINDS[k].is(m)) && w.tags.every((t) => m.tags.includes(t)))
    .filter((m) =>
      hasWords(w.find, [m.name, m.summary, m.archiveName, ...m.authors, ...m.tags, ...m.plugins]),
    )
    .map((mod) => ({ mod, key: by(mod), name: mod.name.toLowerCase() }))
    .sort((a, b) => sign * compared(a.key, b.key) || compared(a.name, b.name) || a.mod.id - b.mod.id)
    .map((x) => x.mod)
}

function compared<T extends string | number>(a: T, b: T): number {
  return a < b ? -1 : a > b ? 1 : 0
}
