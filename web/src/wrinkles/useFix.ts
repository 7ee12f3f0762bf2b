import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, got, ifMatch, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'
import { useUndo } from '../frame/queries'
import { of } from '../frame/workspace'
import { differenceWords } from '../layers/sentence'

type Fix = Schema['Fix']

/** A change of the layers that a fix is; undefined for the others. */
async function layersFix(
  workspace: number,
  fix: Fix,
  dryRun: boolean,
): Promise<Schema['DifferenceView'] | undefined> {
  const path = { workspace }
  const { revision } = await got(api.GET('/api/workspaces/{workspace}', { params: { path } }))
  const params = { path, query: { dryRun }, header: ifMatch(revision) }
  switch (fix.kind) {
    case 'SWITCH_MOD_ON':
    case 'SWITCH_MOD_OFF':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/switch', {
          params,
          body: { mods: [fix.mod as number], on: fix.kind === 'SWITCH_MOD_ON' },
        }),
      )
    case 'MEND_RULE':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/rules/mend', {
          params,
          body: {
            kind: fix.rule as NonNullable<Fix['rule']>,
            mod: fix.mod as number,
            ...(fix.other === undefined ? {} : { other: fix.other }),
          },
        }),
      )
    default:
      return undefined
  }
}

const OF_LAYERS: ReadonlySet<Fix['kind']> = new Set(['SWITCH_MOD_ON', 'SWITCH_MOD_OFF', 'MEND_RULE'])

/**
 * What a fix of the layers would change, in a sentence; nothing for the other fixes.
 *
 * @param ask whether to ask it now
 */
export function useFixPreview(workspace: number, fix: Fix, ask: boolean): string | null {
  const ofLayers = OF_LAYERS.has(fix.kind)
  const preview = useQuery({
    queryKey: of(workspace, 'fix-preview', fix),
    enabled: ask && ofLayers,
    gcTime: 30_000,
    queryFn: () => layersFix(workspace, fix, true),
  })
  if (!ofLayers) return null
  return preview.data ? differenceWords(preview.data, 'would') : 'Looking what that would change …'
}

/** The one act that remedies a wrinkle. A proposal is shown before it is taken; the rest can be undone. */
export function useFix(workspace: number) {
  const queries = useQueryClient()
  const go = useNavigate()
  const { say, fail } = useNotices()
  const { undo } = useUndo(workspace)
  const act = useMutation({
    mutationFn: async (fix: Fix) => {
      const path = { workspace }
      if (fix.kind === 'BUILD_PATCH') {
        await finished(got(api.POST('/api/workspaces/{workspace}/mends/patch', { params: { path } })))
        return
      }
      if (fix.kind === 'REBUILD_MEND') {
        const params = { path: { workspace, mod: fix.mod as number } }
        await finished(got(api.POST('/api/workspaces/{workspace}/mends/{mod}/rebuild', { params })))
        return
      }
      if (fix.kind === 'DROP_UNREADABLE') {
        const body = { key: fix.name }
        await got(
          api.POST('/api/workspaces/{workspace}/wrinkles/drop-unreadable', { params: { path }, body }),
        )
        return
      }
      if (OF_LAYERS.has(fix.kind)) {
        await layersFix(workspace, fix, false)
        return
      }
      const { revision } = await got(api.GET('/api/workspaces/{workspace}', { params: { path } }))
      const header = ifMatch(revision)
      const body = { names: [fix.plugin as string], on: fix.kind === 'SWITCH_PLUGIN_ON' }
      await got(api.POST('/api/workspaces/{workspace}/load-order/switch', { params: { path, header }, body }))
    },
    onSuccess: (_, fix) =>
      say(`${label(fix)}: done.`, fix.kind === 'DROP_UNREADABLE' ? undefined : { label: 'Undo', run: undo }),
    onError: fail,
    onSettled: () => makeOld(queries, of(workspace)),
  })
  return {
    label,
    about,
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
    case 'REBUILD_MEND':
      return 'Rebuild it'
    case 'DROP_UNREADABLE':
      return 'Go on without it'
    case 'MEND_RULE':
      return `Move ${fix.name} there`
    case 'SWITCH_PLUGIN_OFF':
    case 'SWITCH_MOD_OFF':
      return `Switch ${fix.name} off`
    default:
      return `Switch ${fix.name} on`
  }
}

/** What a button does, for those whose effect on the game is not asked beforehand. */
function about(fix: Fix): string | null {
  switch (fix.kind) {
    case 'TAKE_PROPOSAL':
      return 'Shows an order that keeps the rules; nothing changes until you take it.'
    case 'BUILD_PATCH':
      return 'Rebuilds the patch from the records as they are; it becomes its own layer.'
    case 'DROP_UNREADABLE':
      return 'What cannot be read is written down no more.'
    case 'REBUILD_MEND':
      return 'Rebuilds it from what its ingredients are now; your decisions stay.'
    default:
      return null
  }
}
