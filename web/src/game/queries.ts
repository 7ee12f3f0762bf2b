import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, Refused, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
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

/** A first definition of a folder, by what lies in it. */
export function usePropose() {
  return useMutation({
    mutationFn: (folder: string) => got(api.POST('/api/workspaces/propose', { body: { folder } })),
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
    async (body: Schema['DefinitionRequest']) => {
      const params = { path: { workspace } }
      await finished(got(api.PUT('/api/workspaces/{workspace}/definition', { params, body })))
    },
    done,
  )
}

/** Says which folder a place beside the game’s own is. */
export function useSayPlace(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async ({ place, folder }: { place: string; folder: string }) => {
      const params = { path: { workspace, place } }
      await finished(got(api.PUT('/api/workspaces/{workspace}/places/{place}', { params, body: { folder } })))
    },
    done,
  )
}

/** Looks for games below a folder. */
export function useFindGames() {
  return useMutation({
    mutationFn: (below: string) => got(api.GET('/api/folders/games', { params: { query: { below } } })),
  })
}

/** Whether the sample game is here, and whether it can be. */
export function useSample() {
  return useQuery({
    queryKey: ['sample'],
    queryFn: ({ signal }) => got(api.GET('/api/sample', { signal })),
  })
}

/** Brings the sample game in; gives the number of its workspace. */
export function useLoadSample(done: (workspace: number) => void) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: async () => {
      const job = await finished(got(api.POST('/api/sample', {})))
      if (job.result === undefined) throw new Refused(422, job.problems)
      return job.result
    },
    onSuccess: done,
    onError: fail,
    onSettled: () => {
      makeOld(queries, ['workspaces'])
      makeOld(queries, ['sample'])
    },
  })
}

/** Removes the sample game with its workspace and its folder. */
export function useRemoveSample() {
  const queries = useQueryClient()
  const { say, fail } = useNotices()
  return useMutation({
    mutationFn: async () => {
      await finished(got(api.DELETE('/api/sample', {})))
    },
    onSuccess: () => say('The sample game is removed.'),
    onError: fail,
    onSettled: () => {
      makeOld(queries, ['workspaces'])
      makeOld(queries, ['sample'])
    },
  })
}
