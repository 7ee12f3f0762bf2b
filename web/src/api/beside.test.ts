import { QueryClient } from '@tanstack/react-query'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { beside } from './beside'

beforeEach(() => {
  vi.useFakeTimers()
})

afterEach(() => {
  vi.useRealTimers()
})

function started() {
  return new QueryClient({ defaultOptions: { queries: { retry: false } } })
}

test('what stands beside a view is asked for once the view has its answer, and later at once', async () => {
  const client = started()
  const order: string[] = []
  let answer = () => {}
  const around = () =>
    client.fetchQuery({
      queryKey: ['beside'],
      ...beside(async () => {
        order.push('beside')
        return 1
      }),
    })
  const first = around()
  const view = client.fetchQuery({
    queryKey: ['view'],
    queryFn: () =>
      new Promise((done) => {
        answer = () => {
          order.push('view')
          done(1)
        }
      }),
  })
  await vi.advanceTimersByTimeAsync(20)
  expect(order).toEqual([])
  answer()
  await vi.advanceTimersByTimeAsync(20)
  await Promise.all([view, first])
  expect(order).toEqual(['view', 'beside'])

  client.fetchQuery({ queryKey: ['slow'], queryFn: () => new Promise(() => {}) })
  const again = around()
  await vi.advanceTimersByTimeAsync(20)
  expect(await again).toBe(1)
  expect(client.isFetching({ queryKey: ['slow'] })).toBe(1)
})

test('a view that fails keeps nothing waiting, and those beside it do not wait for each other', async () => {
  const client = started()
  const view = client.fetchQuery({ queryKey: ['view'], queryFn: () => Promise.reject(new Error('no')) })
  const both = ['one', 'two'].map((key) =>
    client.fetchQuery({
      queryKey: [key],
      ...beside(async () => key),
    }),
  )
  const failed = expect(view).rejects.toThrow('no')
  await vi.advanceTimersByTimeAsync(20)
  await failed
  expect(await Promise.all(both)).toEqual(['one', 'two'])
})

test('what takes long in a view is not waited for longer than some seconds', async () => {
  const client = started()
  client.fetchQuery({ queryKey: ['view'], queryFn: () => new Promise(() => {}) })
  const asked = vi.fn(() => 1)
  client.fetchQuery({
    queryKey: ['beside'],
    ...beside(async () => asked()),
  })
  await vi.advanceTimersByTimeAsync(4000)
  expect(asked).not.toHaveBeenCalled()
  await vi.advanceTimersByTimeAsync(1100)
  expect(asked).toHaveBeenCalled()
})
