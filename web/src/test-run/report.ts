import type { Schema } from '../api/client'

type Report = Schema['RunReport']

/** A stretch of the report that belongs together, such as all fares. */
export interface ReportGroup {
  title: string
  reports: readonly Report[]
}

/**
 * The report in groups: “Fare, Lyngholm to Vardøya” and “Fare, by night” are told under “Fare”. Names
 * without a comma, and those alone in their group, are told together at the top.
 */
export function groups(reports: readonly Report[]): ReportGroup[] {
  const byTitle = new Map<string, Report[]>()
  for (const r of reports) {
    const title = titleOf(r.name)
    const known = byTitle.get(title)
    if (known) known.push(r)
    else byTitle.set(title, [r])
  }
  const alone = [...byTitle.values()].filter((g) => g.length === 1).flat()
  const together = [...byTitle.entries()]
    .filter(([, g]) => g.length > 1)
    .map(([title, g]) => ({ title, reports: g }))
  return alone.length > 0 ? [{ title: 'The day', reports: alone }, ...together] : together
}

function titleOf(name: string): string {
  const comma = name.indexOf(',')
  return comma < 0 ? name : name.slice(0, comma)
}

/** The name within its group. */
export function shortName(r: Report, group: ReportGroup): string {
  const prefix = `${group.title}, `
  return r.name.startsWith(prefix) ? r.name.slice(prefix.length) : r.name
}

/** Reports with keys of their own: a game may report one name twice. */
export function keyed(reports: readonly Report[]): { key: string; report: Report }[] {
  const seen = new Map<string, number>()
  return reports.map((report) => {
    const times = (seen.get(report.name) ?? 0) + 1
    seen.set(report.name, times)
    return { key: `${report.name} ${times}`, report }
  })
}

export function isChanged(r: Report): boolean {
  return r.before !== undefined && r.before !== r.value
}

/** Where a fault of the game is best looked at, and what helps. */
export function helpFor(code: string): { path: string; says: string } {
  if (
    code.startsWith('master') ||
    code === 'no-slot' ||
    code === 'plugin-missing' ||
    code === 'wrong-game-version'
  ) {
    return {
      path: 'load-order',
      says: 'Look at the load order: it says what is wrong there, and proposes a better one.',
    }
  }
  if (code.startsWith('reference')) {
    return {
      path: 'records',
      says: 'A record refers to one that another plugin removes. Switch one of the two off, or decide in Records.',
    }
  }
  if (code.startsWith('routine') || code.startsWith('script') || code === 'data-broken') {
    return { path: 'overlaps', says: 'See which mods bring this file, and which of them is in play.' }
  }
  return { path: 'layers', says: 'Switch the mod off, and start again.' }
}
