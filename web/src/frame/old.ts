import type { QueryClient, QueryKey } from '@tanstack/react-query'

/**
 * What is in memory under a key is old from now on; what is on screen of it is asked for anew.
 *
 * An answer that is under way for the first time may be from before the change: it is not waited for. The
 * library asks again by itself only where an earlier answer is there.
 */
export function makeOld(queries: QueryClient, queryKey: QueryKey): Promise<void> {
  for (const query of queries.getQueryCache().findAll({ queryKey, fetchStatus: 'fetching' }))
    if (query.state.data === undefined) query.cancel({ silent: true })
  return queries.invalidateQueries({ queryKey })
}
