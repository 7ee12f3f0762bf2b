import type { QueryFunctionContext } from '@tanstack/react-query'

/** A view may also wait for something that takes minutes. */
const LONGEST = 5000

/**
 * How to ask for what stands around a view rather than in it: the first time once the view has what it shows. Of a large
 * workspace each such answer takes the processors for a good part of a second when a server has just started; the
 * connections of a browser are few, too. Later answers do not wait.
 */
export function beside<T>(ask: (signal: AbortSignal) => Promise<T>) {
  return {
    meta: { beside: true },
    queryFn: async (asked: QueryFunctionContext): Promise<T> => {
      await afterTheView(asked)
      return ask(asked.signal)
    },
  }
}

async function afterTheView({ client, queryKey, signal }: QueryFunctionContext): Promise<void> {
  if (client.getQueryData(queryKey) !== undefined) return
  // the queries of the view may begin after this one, in the same turn
  await new Promise((next) => setTimeout(next))
  await new Promise<void>((done) => {
    const end = () => {
      clearTimeout(enough)
      stop()
      done()
    }
    const look = () => {
      if (client.isFetching({ predicate: (q) => !q.meta?.beside }) === 0) end()
    }
    const stop = client.getQueryCache().subscribe(look)
    const enough = setTimeout(end, LONGEST)
    signal.addEventListener('abort', end)
    look()
  })
}
