import type { ListRow } from './rows'

/** The rows between two, both of them with it, that can be chosen. */
export function between(rows: readonly ListRow[], one: number, other: number): ReadonlySet<string> {
  const [low, high] = one < other ? [one, other] : [other, one]
  return ids(rows.slice(Math.max(0, low), high + 1))
}

/** All rows that can be chosen. */
export function ids(rows: readonly ListRow[]): ReadonlySet<string> {
  return new Set(rows.filter((r) => !r.fixed).map((r) => r.id))
}

/**
 * What is chosen once a row has been added, or taken away where it was chosen before.
 *
 * @param selected counts as chosen where nothing else is
 */
export function turned(
  chosen: ReadonlySet<string>,
  selected: string | null,
  row: ListRow,
): ReadonlySet<string> {
  if (row.fixed) return chosen
  const next = new Set(chosen.size > 0 ? chosen : selected === null ? [] : [selected])
  if (!next.delete(row.id)) next.add(row.id)
  return next
}

/** The rows that an act on a row is for: all that are chosen, from the top, where it is one of them; else itself. */
export function together(rows: readonly ListRow[], chosen: ReadonlySet<string>, id: string): string[] {
  return chosen.has(id) ? rows.filter((r) => chosen.has(r.id) && !r.fixed).map((r) => r.id) : [id]
}
