import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, Refused, type Schema } from '../api/client'
import { makeOld } from '../frame/old'
import { of } from '../frame/workspace'
import { ended, useAct } from '../library/queries'

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
      let job = await got(api.POST('/api/workspaces', { body }))
      while (job.state === 'RUNNING') {
        onProgress(job)
        await new Promise((done) => setTimeout(done, 150))
        job = await got(api.GET('/api/jobs/{job}', { params: { path: { job: job.id } } }))
      }
      if (job.state !== 'DONE' || job.result === undefined) throw new Refused(422, job.problems)
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
      const params = { path: { workspace }, query, header: { Prefer: 'wait=60' } }
      const job = await ended(await got(api.DELETE('/api/workspaces/{workspace}', { params })))
      if (job.state === 'FAILED') throw new Refused(422, job.problems)
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
      const params = { path: { workspace }, header: { Prefer: 'wait=60' } }
      const job = await ended(
        await got(api.PUT('/api/workspaces/{workspace}/definition', { params, body: { definition } })),
      )
      if (job.state === 'FAILED') throw new Refused(422, job.problems)
    },
    done,
  )
}
