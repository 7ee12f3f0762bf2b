import type { Schema } from '../api/client'
import type { ListRow } from '../ui/list/rows'
import { type Facts, type Filter, passes } from './filter'

type LayersView = Schema['LayersView']
type Layer = Schema['LayerView']

const GAME = '0'

/** A layer, a section that is folded, or the game. */
export interface LayerRow extends ListRow {
  layer: Layer | null
  /** Of a folded section: its layers from the lowest. */
  folded?: { section: Schema['SectionView']; layers: readonly Layer[] }
}

/** By what the list can be sorted; the order itself never changes by it. */
export const SORTS = {
  order: { name: 'install order', of: (l: Layer) => -l.position },
  name: { name: 'name', of: (l: Layer) => l.name.toLowerCase() },
  files: { name: 'files', of: (l: Layer) => -l.files },
  size: { name: 'size', of: (l: Layer) => -l.sizeBytes },
  contested: { name: 'contested files', of: (l: Layer) => -l.contested },
  covered: { name: 'covered files', of: (l: Layer) => -l.bar.covered },
  brought: { name: 'brought in last', of: (l: Layer) => -Date.parse(l.broughtAt) },
} as const

export type Sort = keyof typeof SORTS

/** Columns beside the number, the name and the switch, with their first widths in pixels. */
export const COLUMNS = {
  bar: { name: 'where its files stand', width: 168 },
  files: { name: 'files', width: 56 },
  size: { name: 'size', width: 70 },
  contested: { name: 'contested', width: 72 },
  tags: { name: 'tags', width: 120 },
  brought: { name: 'brought in', width: 110 },
  way: { name: 'how far', width: 64 },
} as const

export type Column = keyof typeof COLUMNS
export const FIRST_COLUMNS: readonly Column[] = ['bar', 'files', 'size', 'way']

/**
 * The rows from the top: what is folded as one, what a filter hides not at all, the game last.
 *
 * @param turned the other way about: the game first
 */
export function rowsOf(
  view: LayersView,
  folded: ReadonlySet<number>,
  filter: Filter | null,
  facts: Facts,
  sort: Sort,
  turned = false,
): LayerRow[] {
  const shown = view.layers.filter((l) => !filter || passes(filter, l, facts))
  if (sort !== 'order') {
    const by = SORTS[sort].of
    const keyed = shown.map((l) => ({ l, k: by(l) }))
    keyed.sort((a, b) => (a.k < b.k ? -1 : a.k > b.k ? 1 : b.l.position - a.l.position))
    return keyed.map(({ l }) => ({ id: String(l.mod), label: l.name, layer: l }))
  }
  const rows: LayerRow[] = []
  const sections = new Map(view.sections.map((s) => [s.id, s]))
  for (let i = shown.length - 1; i >= 0; i--) {
    const l = shown[i] as Layer
    const section = sections.get(l.section)
    if (!section || !folded.has(section.id)) {
      rows.push({ id: String(l.mod), label: l.name, layer: l })
      continue
    }
    const layers: Layer[] = []
    while (i >= 0 && shown[i]?.section === section.id) layers.unshift(shown[i--] as Layer)
    i++
    rows.push({ id: `section ${section.id}`, label: section.name, layer: null, folded: { section, layers } })
  }
  if (!filter) rows.push({ id: GAME, label: view.game.title, layer: null, fixed: true })
  return turned ? rows.reverse() : rows
}

/** The mods of some rows. */
export function modsOf(rows: readonly LayerRow[], ids: ReadonlySet<string>): number[] {
  return rows
    .filter((r) => ids.has(r.id))
    .flatMap((r) => (r.folded ? r.folded.layers.map((l) => l.mod) : r.layer ? [r.layer.mod] : []))
}

/**
 * The number that the lowest of some mods gets when they are put among the rows.
 *
 * @param rest the rows that stay, from the top
 * @param to how many of them are above
 * @param turned whether the rows run from the game up
 */
export function numberAt(
  view: LayersView,
  mods: readonly number[],
  rest: readonly LayerRow[],
  to: number,
  turned: boolean,
): number {
  const below = rest[turned ? to - 1 : to]
  // past the last row that is shown there may be others: right below the one above the gap
  const above = turned ? rest[to] : rest[to - 1]
  return below || !above ? numberAbove(view, mods, below) : Math.max(1, numberAbove(view, mods, above) - 1)
}

/**
 * The number that the lowest of some mods gets when they come to stand right above a row.
 *
 * @param below the row below the gap; none where the gap is at the very bottom
 */
export function numberAbove(view: LayersView, mods: readonly number[], below: LayerRow | undefined): number {
  const moving = new Set(mods)
  const top = below?.layer?.position ?? below?.folded?.layers.at(-1)?.position ?? 0
  return 1 + view.layers.filter((l) => l.position <= top && !moving.has(l.mod)).length
}
