import { useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'

export type ModFinding = Schema['ModFindingView']
export type Verdict = ModFinding['verdict']

/**
 * One's own findings, and what others have found out about the mods that are on.
 *
 * @param mod the id of the one mod that is asked about, on or off; null while it is not known
 */
export function useFindings(workspace: number, mod?: string | null) {
  return useQuery({
    enabled: mod !== null,
    queryKey: of(workspace, 'mod-findings', mod ?? ''),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/findings', {
          params: { path: { workspace }, query: mod ? { mod } : {} },
          signal,
        }),
      ),
  })
}
