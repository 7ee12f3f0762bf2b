import { useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'
import type { Wanted } from './wanted'

/** What a choice is, as the server is asked. */
export function asked(w: Wanted): Schema['WantedModsRequest'] {
  return { wishes: [...w.wishes], missing: w.missing ?? false, givenUp: [...(w.givenUp ?? [])] }
}

/** What a choice brings with it. */
export function useChoice(workspace: number, wanted: Wanted) {
  const body = asked(wanted)
  return useQuery({
    enabled: body.wishes.length > 0 || body.missing === true,
    queryKey: of(workspace, 'choice', body),
    queryFn: ({ signal }) =>
      got(api.POST('/api/workspaces/{workspace}/choice', { params: { path: { workspace } }, body, signal })),
  })
}
