import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, Refused, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { makeOld } from '../frame/old'
import { of } from '../frame/workspace'
import { useAct } from '../library/queries'

export function useWorkspaces() {
  return useQuery({
    queryKey: ['workspaces'],
    queryFn: ({ signal }) => got(api.GET('/api/workspaces', { signal })),
  })
}

/** Looks at a folder without making anything. */
export function useLook() {
  return useMutation({
    mutationFn: (body: Schema['WorkspaceRequest']) => got(api.POST('/api/workspaces/look', { body })),
  })
}

/** Makes a workspace; gives its number once the game has been read. */
export function useMakeWorkspace(onProgress: (job: Schema['Job']) => void) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (body: Schema['WorkspaceRequest']) => {
      const job = await finished(got(api.POST('/api/workspaces', { body })), onProgress)
      if (job.result === undefined) throw new Refused(422, job.problems)
      return job.result
    },
    onSettled: () => makeOld(queries, ['workspaces']),
  })
}

/** The folders within one on the server's machine; without a path, those of the user's home. */
export function useFolders(path: string) {
  return useQuery({
    queryKey: ['folders', path],
    retry: false,
    queryFn: ({ signal }) =>
      got(api.GET('/api/folders', { params: { query: path ? { path } : {} }, signal })),
  })
}

/** What deleting a workspace would do. */
export function useRemoval(workspace: number) {
  return useQuery({
    queryKey: ['removal', workspace],
    staleTime: 0,
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/removal', { params: { path: { workspace } }, signal })),
  })
}

/** Deletes a workspace. */
export function useRemoveWorkspace(done: () => void) {
  const queries = useQueryClient()
  return useMutation({
    mutationFn: async (a: {
      workspace: number
      keepArchives: boolean
      leaveFolder: boolean
      bringBack: boolean
    }) => {
      const { workspace, ...query } = a
      const params = { path: { workspace }, query }
      await finished(got(api.DELETE('/api/workspaces/{workspace}', { params })))
    },
    onSuccess: done,
    onSettled: () => makeOld(queries, ['workspaces']),
  })
}

/** The definition that holds. */
export function useDefinition(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'definition'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/definition', { params: { path: { workspace } }, signal })),
  })
}

/** What another definition would change. */
export function useLookAtDefinition(workspace: number) {
  return useMutation({
    mutationFn: (definition: string) =>
      got(
        api.POST('/api/workspaces/{workspace}/definition/look', {
          params: { path: { workspace } },
          body: { definition },
        }),
      ),
  })
}

/** Takes another definition. */
export function useChangeDefinition(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async (definition: string) => {
      const params = { path: { workspace } }
      await finished(got(api.PUT('/api/workspaces/{workspace}/definition', { params, body: { definition } })))
    },
    done,
  )
}
