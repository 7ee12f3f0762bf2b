import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'

/** What is taken of a list: all of it, or some of its steps. */
export type Taken = { moves?: number[]; switches?: number[] }

export function useLists(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'lists'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/lists', { params: { path: { workspace } }, signal })),
  })
}

export function useList(workspace: number, list: number) {
  return useQuery({
    queryKey: of(workspace, 'list', list),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/lists/{list}', {
          params: { path: { workspace, list } },
          signal,
        }),
      ),
  })
}

/** Brings a file in as a list; nothing else is changed by it. */
export function useBringInList(workspace: number, onDone: (list: Schema['FollowView']) => void) {
  const { fail } = useNotices()
  return useMutation({
    mutationFn: (file: File) =>
      got(
        api.POST('/api/workspaces/{workspace}/lists', {
          params: { path: { workspace }, query: { name: file.name } },
          headers: { 'Content-Type': 'application/octet-stream' },
          body: file as unknown as string,
          bodySerializer: (body) => body,
        }),
      ),
    onSuccess: onDone,
    onError: fail,
  })
}

/** What taking steps of a list would change in the game; null asks nothing. */
export function useTakePreview(workspace: number, list: number, revision: number, taken: Taken | null) {
  return useQuery({
    queryKey: of(workspace, 'list-preview', list, revision, taken),
    enabled: taken !== null,
    gcTime: 30_000,
    queryFn: ({ signal }) =>
      got(
        api.POST('/api/workspaces/{workspace}/lists/{list}/take', {
          params: { path: { workspace, list }, query: { dryRun: true } },
          body: taken as Taken,
          signal,
        }),
      ),
  })
}

export function useTakeList(workspace: number, list: number, done: (d: Schema['DifferenceView']) => void) {
  return useArrange(
    workspace,
    (body: Taken, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/lists/{list}/take', {
          params: { path: { workspace, list }, query: {}, header },
          body,
        }),
      ),
    (d) => d.revision,
    done,
  )
}

/** Ticks the note of an entry off; shown at once. */
export function useTick(workspace: number, list: number) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'list', list)
  return useMutation({
    mutationFn: (body: Schema['TickRequest']) =>
      got(
        api.PUT('/api/workspaces/{workspace}/lists/{list}/ticks', {
          params: { path: { workspace, list } },
          body,
        }),
      ),
    onMutate: ({ number, ticked }) =>
      queries.setQueryData<Schema['FollowView']>(
        key,
        (l) => l && { ...l, entries: l.entries.map((e) => (e.number === number ? { ...e, ticked } : e)) },
      ),
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: key }),
  })
}

/** Following a list no longer, and again. */
export function useListActs(workspace: number, list: number) {
  const params = { path: { workspace, list } }
  return {
    leave: useAct(workspace, () => got(api.DELETE('/api/workspaces/{workspace}/lists/{list}', { params }))),
    back: useAct(workspace, () => got(api.POST('/api/workspaces/{workspace}/lists/{list}/back', { params }))),
  }
}
