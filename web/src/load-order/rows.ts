import type { Schema } from '../api/client'
import { hasWords } from '../frame/search'
import type { Carried } from '../ui/list/places'
import type { ListRow } from '../ui/list/rows'
import type { LoadChange } from './queries'

type Plugin = Schema['PluginView']
type View = Schema['LoadOrderView']

export interface PluginRow extends ListRow {
  plugin: Plugin
}

/** By what the plugins can be looked at; the order itself never changes by it. */
export const SORTS = {
  order: { says: 'loads', of: (p: Plugin) => p.position, down: false },
  name: { says: 'plugin', of: (p: Plugin) => p.name.toLowerCase(), down: false },
  mod: { says: 'from', of: (p: Plugin) => (p.own ? '' : p.modName.toLowerCase()), down: false },
  overrides: { says: 'overrides', of: (p: Plugin) => p.overrides, down: true },
  stage: { says: 'stage', of: (p: Plugin) => (p.own ? -1 : p.stage), down: false },
} as const

export type Sort = keyof typeof SORTS

/** Which plugins are shown. */
export const KINDS = ['on', 'off', 'trouble', 'fresh', 'kept', 'mends'] as const
export type Kind = (typeof KINDS)[number]
export const KIND_WORDS: Record<Kind, string> = {
  on: 'switched on',
  off: 'switched off',
  trouble: 'in trouble',
  fresh: 'new',
  kept: 'kept here',
  mends: 'patches and merges',
}

export interface Wanted {
  find: string
  kinds: readonly Kind[]
  sort: Sort
  down: boolean
}

/**
 * The plugins that are looked for.
 *
 * @param troubled those that something is wrong with
 */
export function rowsOf(view: View, troubled: ReadonlySet<string>, w: Wanted): PluginRow[] {
  const is: Record<Kind, (p: Plugin) => boolean> = {
    on: (p) => p.on,
    off: (p) => !p.on,
    trouble: (p) => troubled.has(p.name),
    fresh: (p) => p.fresh,
    kept: (p) => p.kept,
    mends: (p) => p.mend,
  }
  const shown = view.plugins.filter(
    (p) => w.kinds.every((k) => is[k](p)) && hasWords(w.find, [p.name, p.modName, p.title ?? '']),
  )
  if (w.sort !== 'order') {
    const by = SORTS[w.sort].of
    const sign = w.down ? -1 : 1
    shown.sort((a, b) => {
      const [x, y] = [by(a), by(b)]
      return sign * (x < y ? -1 : x > y ? 1 : 0) || a.position - b.position
    })
  }
  return shown.map((p) => ({ id: p.name, label: p.name, fixed: p.own, plugin: p }))
}

/**
 * The move that carrying rows means. Where some plugins are not shown, those that are carried go right behind the
 * one above the gap.
 */
export function moveOf(view: View, rows: readonly PluginRow[], carried: Carried): LoadChange {
  const moving = new Set(carried.ids)
  const rest = rows.filter((r) => !moving.has(r.id))
  const above = rest[carried.to - 1]?.plugin.position
  const below = rest[carried.to]?.plugin.position
  const before = (p: Plugin) =>
    above !== undefined ? p.position <= above : below !== undefined && p.position < below
  const to = 1 + view.plugins.filter((p) => !moving.has(p.name) && before(p)).length
  return { kind: 'move', names: carried.ids, to }
}

/** Whether plugins are of several stages, so that it says something of one of which it is. */
export function hasStages(plugins: readonly Schema['PluginView'][]): boolean {
  return new Set(plugins.filter((p) => !p.own).map((p) => p.stage)).size > 1
}
