import { useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'

export type ModFinding = Schema['ModFindingView']
export type Verdict = ModFinding['verdict']

/** One's own findings, and what others have found out about the mods that are on. */
export function useFindings(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'mod-findings'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/findings', { params: { path: { workspace } }, signal })),
  })
}
