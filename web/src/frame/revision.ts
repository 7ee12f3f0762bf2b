import type { QueryClient } from '@tanstack/react-query'
import { of } from './workspace'

/**
 * After a change that was made here: what is in memory counts as of its revision, so that the next change,
 * on whatever screen, is not refused as one made from an old state. Fresh content follows by itself.
 */
export function tookRevision(queries: QueryClient, workspace: number, revision: number): void {
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
