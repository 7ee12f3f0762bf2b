import { QueryClient } from '@tanstack/react-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { askAgain, followsAnyway, inTurn, tookRevision } from './revision'
import { of } from './workspace'

// the newest revision of a workspace outlives a test: each has a workspace of its own
let workspace = 100
let queries: QueryClient

beforeEach(() => {
  workspace++
  queries = new QueryClient()
  vi.useFakeTimers()
  vi.stubGlobal('requestAnimationFrame', (then: () => void) => setTimeout(then))
})

afterEach(() => {
  vi.unstubAllGlobals()
  vi.useRealTimers()
})

/** A change that goes on until it is let end. */
function change(scope = inTurn(workspace)) {
  let end = () => {}
  const going = new Promise<void>((done) => {
    end = done
  })
  const ended = queries
    .getMutationCache()
    .build(queries, { scope, mutationFn: () => going })
    .execute(undefined)
  return async () => {
    end()
    await ended
  }
}

const settled = () => vi.advanceTimersByTimeAsync(20)
const isOld = (kind: string) => queries.getQueryState(of(workspace, kind))?.isInvalidated

describe('after a change made here', () => {
  it('what is in memory of that workspace counts as of its revision', () => {
    for (const kind of ['layers', 'load-order', 'board', 'timeline'])
      queries.setQueryData(of(workspace, kind), { revision: 3, mods: [1] })
    queries.setQueryData(of(workspace + 1000, 'layers'), { revision: 3 })
    tookRevision(queries, workspace, 4)
    for (const kind of ['layers', 'load-order', 'board'])
      expect(queries.getQueryData(of(workspace, kind))).toEqual({ revision: 4, mods: [1] })
    expect(queries.getQueryData(of(workspace, 'timeline'))).toEqual({ revision: 3, mods: [1] })
    expect(queries.getQueryData(of(workspace + 1000, 'layers'))).toEqual({ revision: 3 })
  })

  it('what the server tells of it, or of one before, is no news; a later one is', () => {
    expect(followsAnyway(queries, workspace, 1)).toBe(false)
    tookRevision(queries, workspace, 5)
    expect(followsAnyway(queries, workspace, 4)).toBe(true)
    expect(followsAnyway(queries, workspace, 5)).toBe(true)
    expect(followsAnyway(queries, workspace, 6)).toBe(false)
    expect(followsAnyway(queries, workspace + 1000, 5)).toBe(false)
    tookRevision(queries, workspace, 4)
    expect(followsAnyway(queries, workspace, 5), 'answers may come in another order').toBe(true)
  })

  it('everything of the workspace is asked for anew, after what is known was drawn', async () => {
    queries.setQueryData(of(workspace, 'layers'), { revision: 1 })
    askAgain(queries, workspace)
    expect(isOld('layers')).toBe(false)
    await settled()
    expect(isOld('layers')).toBe(true)
  })

  it('but not for what no order has to do with', async () => {
    for (const kind of ['jobs', 'pair-notes', 'mod-files', 'overview', 'relations'])
      queries.setQueryData(of(workspace, kind, 7), {})
    askAgain(queries, workspace)
    await settled()
    const old = (kind: string) => queries.getQueryState(of(workspace, kind, 7))?.isInvalidated
    expect(['jobs', 'pair-notes', 'mod-files'].map(old)).toEqual([false, false, false])
    expect(['overview', 'relations'].map(old)).toEqual([true, true])
    askAgain(queries, workspace, true)
    await settled()
    expect(['jobs', 'mod-files'].map(old), 'an edit may be undone').toEqual([true, true])
  })

  it('of several in a row only the last one asks', async () => {
    queries.setQueryData(of(workspace, 'layers'), { revision: 1 })
    const end = change()
    askAgain(queries, workspace)
    await settled()
    expect(isOld('layers'), 'one is under way').toBe(false)
    expect(followsAnyway(queries, workspace, 99)).toBe(true)
    await end()
    askAgain(queries, workspace)
    await settled()
    expect(isOld('layers')).toBe(true)
  })

  it('one that goes on in another workspace keeps nobody waiting', async () => {
    queries.setQueryData(of(workspace, 'layers'), { revision: 1 })
    const end = change(inTurn(workspace + 1000))
    askAgain(queries, workspace)
    await settled()
    expect(isOld('layers')).toBe(true)
    await end()
  })
})
