import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, Refused } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'

export function usePlan(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'plan'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/deploy/plan', { params: { path: { workspace } }, signal })),
  })
}

export function useStrays(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'strays'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/deploy/strays', { params: { path: { workspace } }, signal })),
  })
}

/** Deploys, or takes everything out; resolves when it is over. */
export function useDeploy(workspace: number) {
  const queries = useQueryClient()
  const { say, fail } = useNotices()
  return useMutation({
    mutationFn: async (what: 'deploy' | 'undeploy') => {
      const params = { path: { workspace }, header: { Prefer: 'wait=600' } }
      const job = await got(
        what === 'deploy'
          ? api.POST('/api/workspaces/{workspace}/deploy', { params })
          : api.POST('/api/workspaces/{workspace}/deploy/undeploy', { params }),
      )
      if (job.state === 'FAILED') throw new Refused(422, job.problems)
      return job
    },
    onSuccess: (job, what) => {
      if (job.state === 'CANCELLED') say('Cancelled; the game folder is as it was.')
      else
        say(
          what === 'deploy'
            ? 'Deployed. The game folder is as you arranged it.'
            : 'Taken out. The game is as it was before.',
        )
    },
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: of(workspace) }),
  })
}
