import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { expect, it } from 'vitest'
import { makeOld } from './old'

it('an answer that was under way for the first time when a change was told is not taken', async () => {
  const queries = new QueryClient()
  let state = 'before'
  const answers: (() => void)[] = []
  const observer = new QueryObserver(queries, {
    queryKey: ['of', 'tools'],
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => {
      const told = state
      return new Promise<string>((answer) => answers.push(() => answer(told)))
    },
  })
  const seen: (string | undefined)[] = []
  const stop = observer.subscribe((result) => seen.push(result.data))
  expect(answers.length).toBe(1)
  state = 'after'
  const asked = makeOld(queries, ['of'])
  for (const answer of answers) answer()
  await asked
  expect(queries.getQueryData(['of', 'tools'])).toBe('after')
  expect(seen.at(-1)).toBe('after')
  expect(seen).not.toContain('before')

  state = 'later'
  const again = makeOld(queries, ['of'])
  for (const answer of answers) answer()
  await again
  expect(queries.getQueryData(['of', 'tools'])).toBe('later')
  stop()
})

it('what nobody looks at is asked for when it is looked at', async () => {
  const queries = new QueryClient()
  queries.setQueryData(['of', 'tools'], 'before')
  await makeOld(queries, ['of'])
  expect(queries.getQueryState(['of', 'tools'])?.isInvalidated).toBe(true)
})
