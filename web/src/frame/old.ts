import type { QueryClient, QueryKey } from '@tanstack/react-query'

/**
 * What is in memory under a key is old from now on; what is on screen of it is asked for anew.
 *
 * An answer that is under way for the first time may be from before the change: it is not waited for. The
 * library asks again by itself only where an earlier answer is there.
 *
 * @param but what stays as it is all the same
 */
export function makeOld(
  queries: QueryClient,
  queryKey: QueryKey,
  but: (queryKey: QueryKey) => boolean = () => false,
): Promise<void> {
  const which = { queryKey, predicate: (q: { queryKey: QueryKey }) => !but(q.queryKey) }
  for (const query of queries.getQueryCache().findAll({ ...which, fetchStatus: 'fetching' }))
    if (query.state.data === undefined) query.cancel({ silent: true })
  return queries.invalidateQueries(which)
}
