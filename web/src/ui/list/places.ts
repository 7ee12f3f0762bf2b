import type { Announcements, UniqueIdentifier } from '@dnd-kit/core'
import { together } from './choosing'
import type { ListRow } from './rows'

/**
 * Rows on their way.
 *
 * @param to how many of the other rows stay above them
 */
export interface Carried {
  ids: readonly string[]
  to: number
}

/** The nearest place to one that a row may have: fixed rows at both ends bound where the others go. */
export function within(rows: readonly ListRow[], to: number): number {
  const first = rows.findIndex((r) => !r.fixed)
  const last = rows.findLastIndex((r) => !r.fixed)
  return Math.max(Math.max(0, first), Math.min(to, last))
}

/** The rows on their way when the one at an index is carried to another. */
export function carriedTo(
  rows: readonly ListRow[],
  chosen: ReadonlySet<string>,
  id: string,
  from: number,
  to: number,
): Carried {
  const ids = together(rows, chosen, id)
  const gap = to > from ? to + 1 : to
  const moving = new Set(ids)
  return { ids, to: rows.slice(0, gap).filter((r) => !moving.has(r.id)).length }
}

/** What moving a row by one step, with all that are chosen with it, comes to; null where it is at its end. */
export function stepped(
  rows: readonly ListRow[],
  chosen: ReadonlySet<string>,
  id: string,
  down: boolean,
): Carried | null {
  const ends = together(rows, chosen, id).map((x) => rows.findIndex((r) => r.id === x))
  const edge = down ? Math.max(...ends) : Math.min(...ends)
  const to = within(rows, edge + (down ? 1 : -1))
  return to === edge ? null : carriedTo(rows, chosen, id, edge, to)
}

/** What a screen reader says while a row is carried; where it would land, each list says itself. */
export function announcements(rows: readonly ListRow[]): Announcements {
  const name = (id: UniqueIdentifier) => rows.find((r) => r.id === String(id))?.label ?? 'The row'
  return {
    onDragStart: ({ active }) => `${name(active.id)} is taken up.`,
    onDragOver: () => undefined,
    onDragEnd: ({ active }) => `${name(active.id)} is put down.`,
    onDragCancel: ({ active }) => `${name(active.id)} is left where it was.`,
  }
}
