import type { QueryClient, QueryKey } from '@tanstack/react-query'

/** What the server is known to have, while changes are shown that it has not answered yet. */
interface Waiting {
  confirmed: unknown
  changes: number
}

const waiting = new WeakMap<QueryClient, Map<string, Waiting>>()

/**
 * A change is shown before the server has answered; a refused one leaves the screen again, also where the
 * server cannot be reached to ask how things stand. Of several in a row only the refused ones leave.
 *
 * @param key where the view lies that shows it
 * @param changed the view as it is once the change is done
 */
export function atOnce<V extends { revision?: number }, C>(
  queries: QueryClient,
  key: QueryKey,
  changed: (view: V, change: C) => V,
) {
  const name = JSON.stringify(key)
  let all = waiting.get(queries)
  if (!all) {
    all = new Map()
    waiting.set(queries, all)
  }
  const known = all
  return {
    show: async (change: C): Promise<void> => {
      await queries.cancelQueries({ queryKey: key })
      const view = queries.getQueryData<V>(key)
      const w = known.get(name)
      if (w) w.changes++
      else known.set(name, { confirmed: view, changes: 1 })
      if (view !== undefined) queries.setQueryData<V>(key, changed(view, change))
    },
    /** It is done: what was refused before or is refused after it does not take it back. */
    done: (change: C): void => {
      const w = known.get(name)
      if (w?.confirmed !== undefined) w.confirmed = changed(w.confirmed as V, change)
    },
    refused: (): void => {
      const w = known.get(name)
      if (w?.confirmed === undefined) return
      // the revision is not shown: it is what the next change is made of, and may have gone on meanwhile
      queries.setQueryData<V>(key, (now) => {
        const before = w.confirmed as V
        return now?.revision === undefined ? before : { ...before, revision: now.revision }
      })
    },
    settled: (): void => {
      const w = known.get(name)
      if (w && --w.changes === 0) known.delete(name)
    },
  }
}
