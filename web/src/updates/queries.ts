import { useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'

export type Update = Schema['UpdateView']
export type Bridge = Schema['BridgeView']
export type LeftKind = Schema['LeaveRequest']['kind']

/** Every mod in use, with what is newer of it. */
export function useUpdates(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'updates'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/updates', { params: { path: { workspace } }, signal })),
  })
}

/** The bridges that have to do with what is on. */
export function useBridges(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'bridges'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/bridges', { params: { path: { workspace } }, signal })),
  })
}
