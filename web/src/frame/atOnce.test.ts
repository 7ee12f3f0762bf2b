import { QueryClient } from '@tanstack/react-query'
import { expect, test } from 'vitest'
import { atOnce } from './atOnce'

const KEY = ['of', 1, 'layers']

interface View {
  letters: string
  revision: number
}

const add = (view: View, letter: string): View => ({ ...view, letters: view.letters + letter })

function list(letters: string) {
  const queries = new QueryClient()
  queries.setQueryData<View>(KEY, { letters, revision: 1 })
  const shown = () => queries.getQueryData<View>(KEY)?.letters
  return { queries, shown, change: atOnce<View, string>(queries, KEY, add) }
}

test('a change is shown at once, and stays when it is done', async () => {
  const { shown, change } = list('a')
  await change.show('b')
  expect(shown()).toBe('ab')
  change.done('b')
  change.settled()
  expect(shown()).toBe('ab')
})

test('a refused change leaves the screen though nobody can be asked', async () => {
  const { shown, change } = list('a')
  await change.show('b')
  change.refused()
  change.settled()
  expect(shown()).toBe('a')
})

test('two refused changes in a row leave nothing of either', async () => {
  const { shown, change } = list('a')
  await change.show('b')
  await change.show('c')
  expect(shown()).toBe('abc')
  change.refused()
  change.settled()
  change.refused()
  change.settled()
  expect(shown()).toBe('a')
})

test('a refused change does not take back the one that was done before it', async () => {
  const { shown, change } = list('a')
  await change.show('b')
  await change.show('c')
  change.done('b')
  change.settled()
  change.refused()
  change.settled()
  expect(shown()).toBe('ab')
})

test('what was asked for anew in between is where the next change begins', async () => {
  const { shown, change } = list('a')
  await change.show('b')
  change.refused()
  change.settled()
  await change.show('c')
  change.done('c')
  change.settled()
  await change.show('d')
  change.refused()
  change.settled()
  expect(shown()).toBe('ac')
})

test('a view that is not there yet is left alone', async () => {
  const queries = new QueryClient()
  const change = atOnce<View, string>(queries, KEY, add)
  await change.show('b')
  change.refused()
  change.settled()
  expect(queries.getQueryData(KEY)).toBeUndefined()
})

test('what is shown again after a refusal is of the newest revision', async () => {
  const { queries, change } = list('a')
  await change.show('b')
  await change.show('c')
  change.done('b')
  queries.setQueryData<View>(KEY, (v) => v && { ...v, revision: 2 })
  change.settled()
  change.refused()
  expect(queries.getQueryData<View>(KEY)).toEqual({ letters: 'ab', revision: 2 })
})
