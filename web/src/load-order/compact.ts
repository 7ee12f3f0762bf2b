/** A row of a long list that is shown, or a stretch of rows that are not. */
export type CompactRow = { name: string; at: number } | { gap: number; after: number }

/** Short lists are shown whole. */
const SHORT = 60

/**
 * A list with its uneventful stretches folded: what is of interest is shown with its neighbours.
 *
 * @param of which names are of interest
 */
export function compact(names: readonly string[], of: ReadonlySet<string>, whole: boolean): CompactRow[] {
  const all = names.map((name, at) => ({ name, at }))
  if (whole || names.length <= SHORT) return all
  const near = (i: number) => [i - 1, i, i + 1].some((k) => of.has(names[k] ?? ''))
  const rows: CompactRow[] = []
  for (const row of all) {
    const last = rows.at(-1)
    if (near(row.at)) rows.push(row)
    else if (last && 'gap' in last) last.gap++
    else rows.push({ gap: 1, after: row.at })
  }
  // a gap of one is no shorter than its row
  return rows.map((r) => ('gap' in r && r.gap === 1 ? (all[r.after] as CompactRow) : r))
}
