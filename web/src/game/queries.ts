import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, Refused, type Schema } from '../api/client'
import { makeOld } from '../frame/old'

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
