import { useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'

export type ModStanding = Schema['ModStandingView']
export type Said = Schema['GameWordRequest']['said']

/** How each mod in use stands with the version of the game. */
export function useStandings(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'standings'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/game-version/mods', { params: { path: { workspace } }, signal }),
      ),
  })
}
