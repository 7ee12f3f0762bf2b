import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'

/** A place in the timeline: right after a change, or a restore point. */
export interface Place {
  change?: number
  point?: number
}

export function useHistory(workspace: number) {
  return useInfiniteQuery({
    queryKey: of(workspace, 'history'),
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam, signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/timeline', {
          params: { path: { workspace }, query: pageParam === undefined ? {} : { before: pageParam } },
          signal,
        }),
      ),
    getNextPageParam: (last) => last.next,
  })
}

/** What going back to a place would change. */
export function useReturnPreview(workspace: number, revision: number, place: Place | null) {
  return useQuery({
    queryKey: of(workspace, 'return', revision, place),
    enabled: place !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.POST('/api/workspaces/{workspace}/timeline/return', {
          params: { path: { workspace }, query: { dryRun: true } },
          body: place as Place,
          signal,
        }),
      ),
  })
}

export function useReturn(workspace: number, done: (d: Schema['DifferenceView']) => void) {
  return useArrange(
    workspace,
    (place: Place, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/timeline/return', {
          params: { path: { workspace }, query: {}, header },
          body: place,
        }),
      ),
    (d) => d.revision,
    done,
  )
}

export function usePoints(workspace: number) {
  const { say } = useNotices()
  const add = useAct(
    workspace,
    (name: string) =>
      got(
        api.POST('/api/workspaces/{workspace}/restore-points', {
          params: { path: { workspace } },
          body: { name },
        }),
      ),
    (_r, name) => say(`This place is called “${name}” now.`),
  )
  const forget = useAct(workspace, (point: number) =>
    got(
      api.DELETE('/api/workspaces/{workspace}/restore-points/{point}', {
        params: { path: { workspace, point } },
      }),
    ),
  )
  return { add, forget }
}
