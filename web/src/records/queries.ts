import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, ifMatch, Refused, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'

export function useRecords(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'records'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/records', { params: { path: { workspace } }, signal })),
  })
}

export function useBoard(workspace: number, owner: string, id: number) {
  return useQuery({
    queryKey: of(workspace, 'board', owner, id),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/records/{owner}/{id}', {
          params: { path: { workspace, owner, id } },
          signal,
        }),
      ),
  })
}

/** Takes a decision for one place of a record; null takes it back. */
export function useDecide(workspace: number, owner: string, id: number) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'board', owner, id)
  return useMutation({
    mutationFn: (d: { place: string; choice: string | null }) => {
      const revision = queries.getQueryData<Schema['Board']>(key)?.revision ?? 0
      return got(
        api.PUT('/api/workspaces/{workspace}/records/{owner}/{id}/decisions', {
          params: { path: { workspace, owner, id }, header: ifMatch(revision) },
          body: { place: d.place, choice: d.choice ?? undefined },
        }),
      )
    },
    scope: inTurn(workspace),
    onSuccess: (board) => {
      queries.setQueryData(key, board)
      tookRevision(queries, workspace, board.revision)
    },
    onError: fail,
    onSettled: () => askAgain(queries, workspace),
  })
}

export function useMends(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'mends'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/mends', { params: { path: { workspace } }, signal })),
  })
}

/** Puts every record that combines into the profile's patch. */
export function useBuildPatch(workspace: number, onDone: () => void) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: async () => {
      const params = { path: { workspace }, header: { Prefer: 'wait=120' } }
      const job = await got(api.POST('/api/workspaces/{workspace}/mends/patch', { params }))
      if (job.state === 'FAILED') throw new Refused(422, job.problems)
      return job
    },
    onSuccess: onDone,
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: of(workspace) }),
  })
}
