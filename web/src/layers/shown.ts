import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useCallback, useMemo, useRef } from 'react'
import { beside } from '../api/beside'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'
import { useKept } from '../ui/kept'
import type { SavedView } from './FilterBar'
import { COLUMNS, type Column, FIRST_COLUMNS, SORTS, type Sort } from './rows'

/** How the user likes the list shown, in every browser; the order and the game know nothing of it. */
export interface Shown {
  sort: Sort
  columns: readonly Column[]
  /** Of columns that were made wider or narrower, in pixels. */
  widths: Partial<Record<Column, number>>
  folded: readonly number[]
  /** Whether the stack is turned over: the game on top, and the last line covers all above it. */
  turned: boolean
  views: readonly SavedView[]
}

/** The narrowest and the widest that a column can be, in pixels. */
export const NARROWEST = 40
export const WIDEST = 600

/** A column that is being made wider changes many times a second: only what it comes to is kept. */
const KEPT_AFTER_MS = 400

/** A browser takes no more bytes than 64 KiB along from a page that is left; a character has up to three. */
const MOST_KEPT_ALIVE = 20_000

/** What the server keeps, without what this page does not know. */
export function asShown(kept: Schema['ShownLayersWish'] | undefined): Shown {
  const columns = (kept?.columns ?? []).filter((c): c is Column => c in COLUMNS)
  const widths = Object.entries(kept?.widths ?? {}).filter(([c]) => c in COLUMNS)
  return {
    sort: kept && kept.sort in SORTS ? (kept.sort as Sort) : 'order',
    columns: kept && (columns.length > 0 || kept.sort !== '') ? columns : FIRST_COLUMNS,
    widths: Object.fromEntries(widths.map(([c, w]) => [c, Math.min(WIDEST, Math.max(NARROWEST, w))])),
    folded: kept?.folded ?? [],
    turned: kept?.turned ?? false,
    views: kept?.views ?? [],
  }
}

/** The columns with one of them a place further to the left or to the right. */
export function nudged(columns: readonly Column[], column: Column, by: -1 | 1): readonly Column[] {
  const at = columns.indexOf(column)
  const other = columns[at + by]
  if (at < 0 || other === undefined) return columns
  return columns.map((c) => (c === column ? other : c === other ? column : c))
}

/** By workspace: what was changed here and is not kept yet. An answer of before must not take it back. */
const pending = new Map<number, Schema['ShownLayersWish']>()

function shownQuery(workspace: number) {
  return queryOptions({
    queryKey: of(workspace, 'layers-shown'),
    ...beside(async (signal) => {
      const path = { workspace }
      const kept = await got(
        api.GET('/api/workspaces/{workspace}/layers/shown', { params: { path }, signal }),
      )
      return pending.get(workspace) ?? kept
    }),
  })
}

/** How the list is shown, one for each workspace. A change is shown at once and kept; a width, a moment later. */
export function useShown(workspace: number): [Shown, (change: Partial<Shown>) => void] {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const { data } = useQuery(shownQuery(workspace))
  const { mutate } = useMutation({
    scope: { id: `shown ${workspace}` },
    mutationFn: (body: Schema['ShownLayersWish']) =>
      got(
        api.PUT('/api/workspaces/{workspace}/layers/shown', {
          params: { path: { workspace } },
          body,
          // a page that is left or loaded again meanwhile sends it all the same
          keepalive: JSON.stringify(body).length < MOST_KEPT_ALIVE,
        }),
      ),
    onError: fail,
    onSettled: (_, __, body) => {
      if (pending.get(workspace) === body) pending.delete(workspace)
    },
  })
  const later = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const shown = useMemo(() => asShown(data), [data])
  const show = useCallback(
    async (change: Partial<Shown>) => {
      try {
        // what is kept is known before anything of it is written over
        const now = pending.get(workspace) ?? (await queries.ensureQueryData(shownQuery(workspace)))
        const next = { ...asShown(now), ...change }
        const body: Schema['ShownLayersWish'] = {
          sort: next.sort,
          columns: [...next.columns],
          widths: next.widths as Record<string, number>,
          folded: [...next.folded],
          turned: next.turned,
          views: next.views.map((v) => ({ ...v, columns: [...v.columns] })),
        }
        pending.set(workspace, body)
        queries.setQueryData(shownQuery(workspace).queryKey, body)
        clearTimeout(later.current)
        if (change.widths) later.current = setTimeout(() => mutate(body), KEPT_AFTER_MS)
        else mutate(body)
      } catch (e) {
        fail(e)
      }
    },
    [queries, workspace, mutate, fail],
  )
  return [shown, show]
}

/** What the list was filtered by last in this tab: where the address says nothing, it is so again. */
export function useLastFilter(workspace: number): [string, (text: string) => void] {
  const [text, write] = useKept(`filter of layers ${workspace}`, '')
  return [text, write]
}
