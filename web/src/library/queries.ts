import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'

export function useLibrary(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'library'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/library', { params: { path: { workspace } }, signal })),
  })
}

export function useMod(workspace: number, mod: number) {
  return useQuery({
    queryKey: of(workspace, 'mod', mod),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}', { params: { path: { workspace, mod } }, signal }),
      ),
  })
}

/** Brings in every archive of a folder on the server's machine, as a job that the hem shows. */
export function useBringInFolder(workspace: number) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: (folder: string) =>
      got(
        api.POST('/api/workspaces/{workspace}/archives/from-folder', {
          params: { path: { workspace } },
          body: { folder },
        }),
      ),
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: of(workspace, 'jobs') }),
  })
}
