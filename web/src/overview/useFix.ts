import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, got, ifMatch, Refused, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { of } from '../frame/workspace'

type Fix = Schema['Fix']

/** The one act that remedies a wrinkle. A proposal is shown before it is taken; the rest can be undone. */
export function useFix(workspace: number) {
  const queries = useQueryClient()
  const go = useNavigate()
  const { say, fail } = useNotices()
  const act = useMutation({
    mutationFn: async (fix: Fix) => {
      const path = { workspace }
      if (fix.kind === 'BUILD_PATCH') {
        const job = await got(
          api.POST('/api/workspaces/{workspace}/mends/patch', {
            params: { path, header: { Prefer: 'wait=60' } },
          }),
        )
        if (job.state === 'FAILED') throw new Refused(422, job.problems)
        return
      }
      const { revision } = await got(api.GET('/api/workspaces/{workspace}', { params: { path } }))
      const header = ifMatch(revision)
      if (fix.kind === 'SWITCH_MOD_ON') {
        const body = { mods: [fix.mod as number], on: true }
        await got(api.POST('/api/workspaces/{workspace}/layers/switch', { params: { path, header }, body }))
        return
      }
      const body = { names: [fix.plugin as string], on: fix.kind === 'SWITCH_PLUGIN_ON' }
      await got(api.POST('/api/workspaces/{workspace}/load-order/switch', { params: { path, header }, body }))
    },
    onSuccess: (_, fix) => say(`${label(fix)}: done.`),
    onError: fail,
    onSettled: () => queries.invalidateQueries({ queryKey: of(workspace) }),
  })
  return {
    label,
    busy: act.isPending,
    run: (fix: Fix) => {
      if (fix.kind === 'TAKE_PROPOSAL') go(`/workspaces/${workspace}/load-order/proposal`)
      else act.mutate(fix)
    },
  }
}

function label(fix: Fix): string {
  switch (fix.kind) {
    case 'TAKE_PROPOSAL':
      return 'See the proposal'
    case 'BUILD_PATCH':
      return 'Put them into a patch'
    case 'SWITCH_PLUGIN_OFF':
      return `Switch ${fix.name} off`
    default:
      return `Switch ${fix.name} on`
  }
}
