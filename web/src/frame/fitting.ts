import { defaultFilter } from 'cmdk'

/** Something that the palette leads to. */
interface Entry {
  /** What it is found by; no other has the same. */
  value: string
  name: string
  about?: string
  /** Words of the trade that it is found by as well. */
  words?: readonly string[]
  run: () => void
}

export interface Group {
  heading: string
  entries: readonly Entry[]
}

/** As many of a group as anybody looks through. */
const MOST = 60

/** What fits what is typed: the best first in each group, and the groups by their best. */
export function fitting(groups: readonly Group[], typed: string): Group[] {
  if (!typed.trim())
    return groups
      .filter((g) => g.entries.length > 0)
      .map((g) => ({ ...g, entries: g.entries.slice(0, MOST) }))
  const rated = groups.map((g) => ({
    heading: g.heading,
    all: g.entries
      .map((entry) => ({ entry, fit: fitOf(entry, typed) }))
      .filter((e) => e.fit > 0)
      .sort((a, b) => b.fit - a.fit),
  }))
  return rated
    .filter((g) => g.all.length > 0)
    .sort((a, b) => (b.all[0]?.fit ?? 0) - (a.all[0]?.fit ?? 0))
    .map((g) => ({ heading: g.heading, entries: g.all.slice(0, MOST).map((e) => e.entry) }))
}

/** How well an entry fits: by its name, or else by the beginning of a word of the trade. */
function fitOf(entry: Entry, typed: string): number {
  const asked = typed.trim().toLowerCase()
  const byWord = entry.words?.some((w) => w.startsWith(asked) || w.includes(` ${asked}`)) ? 0.2 : 0
  return Math.max(defaultFilter(entry.value, typed), byWord)
}
