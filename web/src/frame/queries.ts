import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { beside } from '../api/beside'
import { api, got, type Schema } from '../api/client'
import { useNotices } from './Notices'
import { askAgain, inTurn, tookRevision } from './revision'
import { of } from './workspace'

export function useOverview(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'overview'),
    ...beside((signal) =>
      got(api.GET('/api/workspaces/{workspace}', { params: { path: { workspace } }, signal })),
    ),
  })
}

function useTimeline(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'timeline'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/timeline', { params: { path: { workspace } }, signal })),
  })
}

export function useDeployStatus(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'deploy-status'),
    ...beside((signal) =>
      got(api.GET('/api/workspaces/{workspace}/deploy', { params: { path: { workspace } }, signal })),
    ),
  })
}

/** Long work of the workspace, the newest first; kept current by events. */
export function useJobs(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'jobs'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/jobs', { params: { path: { workspace } }, signal })),
  })
}

/** The newest job of a kind that is still going on. */
export function useRunningJob(workspace: number, kinds: readonly string[]): Schema['Job'] | undefined {
  return useJobs(workspace).data?.find((j) => j.state === 'RUNNING' && kinds.includes(j.kind))
}

export function useCancelJob() {
  const { fail } = useNotices()
  return useMutation({
    mutationFn: (job: number) => got(api.DELETE('/api/jobs/{job}', { params: { path: { job } } })),
    onError: fail,
  })
}

/** Undo and redo, each with a sentence about what it did. */
export function useUndo(workspace: number) {
  const queries = useQueryClient()
  const { say, fail } = useNotices()
  const timeline = useTimeline(workspace)
  // it may be a change of the library that is undone
  const settled = () => askAgain(queries, workspace, true)
  const path = { workspace }
  const undo = useMutation({
    scope: inTurn(workspace),
    mutationFn: () => got(api.POST('/api/workspaces/{workspace}/undo', { params: { path } })),
    onSuccess: ({ revision, said }) => {
      tookRevision(queries, workspace, revision)
      say(`Undone: ${said}.`)
    },
    onError: fail,
    onSettled: settled,
  })
  const redo = useMutation({
    scope: inTurn(workspace),
    mutationFn: () => got(api.POST('/api/workspaces/{workspace}/redo', { params: { path } })),
    onSuccess: ({ revision, said }) => {
      tookRevision(queries, workspace, revision)
      say(`Redone: ${said}.`)
    },
    onError: fail,
    onSettled: settled,
  })
  return {
    undoes: timeline.data?.undo,
    redoes: timeline.data?.redo,
    undo: () => undo.mutate(),
    redo: () => redo.mutate(),
  }
}
