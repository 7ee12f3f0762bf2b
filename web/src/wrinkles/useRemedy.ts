import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useNavigate } from 'react-router'
import { api, got, ifMatch, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'
import { useUndo } from '../frame/queries'
import { of } from '../frame/workspace'
import { differenceWords } from '../layers/sentence'
import { loadWords } from '../load-order/sentence'
import { label, type Remedy } from './remedies'

/** What a remedy changes in the game, as a sentence; undefined for those that are no change of the order or its switches. */
async function change(workspace: number, remedy: Remedy, dryRun: boolean): Promise<string | undefined> {
  const path = { workspace }
  const { revision } = await got(api.GET('/api/workspaces/{workspace}', { params: { path } }))
  const params = { path, query: { dryRun }, header: ifMatch(revision) }
  switch (remedy.kind) {
    case 'mods': {
      const body = { mods: remedy.mods.map((m) => m.id), on: remedy.on }
      return differenceWords(
        await got(api.POST('/api/workspaces/{workspace}/layers/switch', { params, body })),
        'would',
      )
    }
    case 'plugins': {
      const body = { names: [...remedy.names], on: remedy.on }
      return loadWords(
        await got(api.POST('/api/workspaces/{workspace}/load-order/switch', { params, body })),
        'would',
      )
    }
    case 'rule': {
      const { rule, mod, other } = remedy.fix
      const body = {
        kind: rule as NonNullable<Schema['Fix']['rule']>,
        mod: mod as number,
        ...(other === undefined ? {} : { other }),
      }
      return differenceWords(
        await got(api.POST('/api/workspaces/{workspace}/layers/rules/mend', { params, body })),
        'would',
      )
    }
  }
}

const CHANGES: ReadonlySet<Remedy['kind']> = new Set(['mods', 'plugins', 'rule'])

/**
 * What a remedy would change, in a sentence; null for those that change neither order nor switches.
 *
 * @param ask whether to ask it now
 */
export function useRemedyPreview(workspace: number, remedy: Remedy, ask: boolean): string | null {
  const changes = CHANGES.has(remedy.kind)
  const preview = useQuery({
    queryKey: of(workspace, 'remedy-preview', remedy),
    enabled: ask && changes,
    gcTime: 30_000,
    queryFn: async () => (await change(workspace, remedy, true)) ?? '',
  })
  if (!changes) return null
  return preview.data ?? 'Looking what that would change …'
}

async function mend(workspace: number, remedy: Remedy): Promise<void> {
  const path = { workspace }
  switch (remedy.kind) {
    case 'patch':
      await finished(got(api.POST('/api/workspaces/{workspace}/mends/patch', { params: { path } })))
      return
    case 'rebuild':
      for (const { id: mod } of remedy.mods) {
        const params = { path: { workspace, mod } }
        await finished(got(api.POST('/api/workspaces/{workspace}/mends/{mod}/rebuild', { params })))
      }
      return
    case 'drop':
      for (const key of remedy.keys) {
        await got(
          api.POST('/api/workspaces/{workspace}/wrinkles/drop-unreadable', {
            params: { path },
            body: { key },
          }),
        )
      }
      return
    default:
      await change(workspace, remedy, false)
  }
}

/** Does the act that mends wrinkles. A proposal is shown before it is taken; the rest can be undone. */
export function useRemedy(workspace: number) {
  const queries = useQueryClient()
  const go = useNavigate()
  const { say, fail } = useNotices()
  const { undo } = useUndo(workspace)
  const act = useMutation({
    mutationFn: (remedy: Remedy) => mend(workspace, remedy),
    onSuccess: (_, remedy) =>
      say(`${label(remedy)}: done.`, remedy.kind === 'drop' ? undefined : { label: 'Undo', run: undo }),
    onError: fail,
    onSettled: () => makeOld(queries, of(workspace)),
  })
  return {
    busy: act.isPending,
    run: (remedy: Remedy) => {
      if (remedy.kind === 'proposal') go(`/workspaces/${workspace}/load-order/proposal`)
      else if (remedy.kind === 'rules') go(`/workspaces/${workspace}/layers/suggestion`)
      else act.mutate(remedy)
    },
  }
}
