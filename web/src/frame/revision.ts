import type { QueryClient } from '@tanstack/react-query'
import { makeOld } from './old'
import { of } from './workspace'

/** By workspace: the newest revision that was made here. */
const made = new Map<number, number>()

/**
 * After a change that was made here: what is in memory counts as of its revision, so that the next change,
 * on whatever screen, is not refused as one made from an old state. Fresh content follows by itself.
 */
export function tookRevision(queries: QueryClient, workspace: number, revision: number): void {
  made.set(workspace, Math.max(revision, made.get(workspace) ?? 0))
  for (const kind of ['layers', 'load-order', 'board']) {
    queries.setQueriesData<{ revision: number }>(
      { queryKey: of(workspace, kind) },
      (view) => view && { ...view, revision },
    )
  }
}

/** Two changes in a row go one after the other, each on top of the one before. */
export function inTurn(workspace: number): { id: string } {
  return { id: `arrangement-${workspace}` }
}

/** Whether a change that was asked for here is under way. */
function changing(queries: QueryClient, workspace: number): boolean {
  const { id } = inTurn(workspace)
  return queries.isMutating({ predicate: (m) => m.options.scope?.id === id }) > 0
}

/** What no change of the arrangement ever touches: it has to do with files, work or words alone. */
const UNTOUCHED: ReadonlySet<unknown> = new Set([
  'bin',
  'catalogues',
  'contents',
  'definition',
  'downloads',
  'entry-text',
  'holding',
  'inbox',
  'jobs',
  'layers-shown',
  'mod-files',
  'mod-text',
  'pair-notes',
  'papers',
  'plugin-header',
  'run',
  'runs',
  'storage',
  'tool-run',
  'tool-runs',
])

/**
 * After a change of the arrangement that was asked for here, done or refused: what it may touch is asked for anew. First the page shows
 * what it knows already; and of several changes in a row only the last one asks.
 *
 * @param ofLibrary it may have been one of the library, such as undoing an edit: all of it is asked for anew
 */
export function askAgain(queries: QueryClient, workspace: number, ofLibrary = false): void {
  requestAnimationFrame(() =>
    setTimeout(() => {
      if (!changing(queries, workspace))
        makeOld(queries, of(workspace), (key) => !ofLibrary && UNTOUCHED.has(key[of(workspace).length]))
    }),
  )
}

/** Whether what the server tells of a revision follows from a change made here anyway. */
export function followsAnyway(queries: QueryClient, workspace: number, revision: number): boolean {
  return changing(queries, workspace) || revision <= (made.get(workspace) ?? 0)
}
