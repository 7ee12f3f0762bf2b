import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'
import { useArrange } from '../library/queries'

export function useRuns(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'runs'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/runs', { params: { path: { workspace } }, signal })),
  })
}

/** All saves, with what the arrangement of now means for each. */
export function useAllSaves(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'saves', 'all'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/saves', { params: { path: { workspace }, query: {} }, signal }),
      ),
  })
}

/** Whose saves there are, where each profile has its own. */
export function useSavesOfProfiles(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'saves', 'profiles'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/saves/profiles', { params: { path: { workspace } }, signal })),
  })
}

/** Copies another profile's saves to those of the profile in use. */
export function useCopySaves(workspace: number, done: (copied: number) => void) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: (from: number) =>
      got(
        api.POST('/api/workspaces/{workspace}/saves/copies', {
          params: { path: { workspace } },
          body: { from },
        }),
      ),
    onSuccess: (r) => done(r.copied),
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: of(workspace, 'saves') }),
  })
}

/** For each mod that is on, what the last run has shown of it. */
export function useSigns(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'signs'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/signs', { params: { path: { workspace } }, signal })),
  })
}

export function useRun(workspace: number, run: number | null) {
  return useQuery({
    queryKey: of(workspace, 'run', run),
    enabled: run !== null,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/runs/{run}', {
          params: { path: { workspace, run: run as number } },
          signal,
        }),
      ),
  })
}

/** What a run and those before it have cost. */
export function useCosts(workspace: number, run: number) {
  return useQuery({
    queryKey: of(workspace, 'run', run, 'costs'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/runs/{run}/costs', {
          params: { path: { workspace, run } },
          signal,
        }),
      ),
  })
}

export function useStartRun(workspace: number, onStarted: (run: number) => void) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: () => got(api.POST('/api/workspaces/{workspace}/runs', { params: { path: { workspace } } })),
    onSuccess: (started) => onStarted(started.run),
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: of(workspace, 'runs') }),
  })
}

/** Arranges the profile as it was when the game was started. */
export function useReturnToRun(workspace: number, done: () => void) {
  return useArrange(
    workspace,
    (run: number, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/runs/{run}/return', {
          params: { path: { workspace, run }, header },
        }),
      ),
    (r) => r.revision,
    done,
  )
}

export function useStopRun(workspace: number) {
  const { fail } = useNotices()
  return useMutation({
    mutationFn: () =>
      got(api.DELETE('/api/workspaces/{workspace}/runs', { params: { path: { workspace } } })),
    onError: fail,
  })
}
