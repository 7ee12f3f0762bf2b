import {
  keepPreviousData,
  queryOptions,
  useMutation,
  useQueries,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { atOnce } from '../frame/atOnce'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'
import { layersNow } from './since'

type LayersView = Schema['LayersView']
type Difference = Schema['DifferenceView']

export function layersQuery(workspace: number) {
  return queryOptions({
    queryKey: of(workspace, 'layers'),
    queryFn: ({ signal }) => layersNow(workspace, signal),
  })
}

export function useLayers(workspace: number) {
  return useQuery(layersQuery(workspace))
}

export function useRelations(workspace: number, mod: number | null) {
  return useQuery({
    queryKey: of(workspace, 'relations', mod),
    enabled: mod !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/layers/{mod}/relations', {
          params: { path: { workspace, mod: mod as number } },
          signal,
        }),
      ),
  })
}

/** More than these beside the list would hold up whoever walks through it. */
const PATHS_BESIDE = 50

/** Contested paths of a mod; with another mod, those of the two. */
export function useModPaths(workspace: number, mod: number, other: number | null) {
  return useQuery({
    queryKey: of(workspace, 'mod-paths', mod, other),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/layers/{mod}/paths', {
          params: {
            path: { workspace, mod },
            query: { limit: PATHS_BESIDE, ...(other === null ? {} : { with: other }) },
          },
          signal,
        }),
      ),
  })
}

/** A change of the layers, as asked or as done. */
export type LayerChange =
  | { kind: 'move'; mods: readonly number[]; to: number }
  | { kind: 'switch'; mods: readonly number[]; on: boolean }
  | { kind: 'keep'; mods: readonly number[]; kept: boolean }
  /** Into a section; null for a new one of that name. */
  | { kind: 'gather'; mods: readonly number[]; section: number | null; name: string }
  | { kind: 'leave'; mods: readonly number[] }
  | { kind: 'rename'; section: number; name: string }
  | { kind: 'dissolve'; section: number; name: string }
  | { kind: 'suggestion'; mods: readonly number[] }
  | { kind: 'rule'; rule: RuleKey; reason: string }
  | { kind: 'drop-rule'; rule: RuleKey }
  | { kind: 'mend-rule'; rule: RuleKey }

export interface RuleKey {
  kind: Schema['RuleView']['kind']
  mod: number
  other?: number
}

function request(
  workspace: number,
  change: LayerChange,
  revision: number,
  dryRun: boolean,
  signal?: AbortSignal,
) {
  const params = { path: { workspace }, query: { dryRun }, header: ifMatch(revision) }
  const sure = { path: params.path, header: params.header }
  switch (change.kind) {
    case 'move':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/move', {
          params,
          body: { mods: [...change.mods], to: change.to },
          signal,
        }),
      )
    case 'switch':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/switch', {
          params,
          body: { mods: [...change.mods], on: change.on },
          signal,
        }),
      )
    case 'keep':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/keep', {
          params: sure,
          body: { mods: [...change.mods], kept: change.kept },
        }),
      )
    case 'gather':
      return change.section === null
        ? got(
            api.POST('/api/workspaces/{workspace}/sections', {
              params,
              body: { name: change.name, mods: [...change.mods] },
              signal,
            }),
          )
        : got(
            api.POST('/api/workspaces/{workspace}/sections/{section}/layers', {
              params: { ...params, path: { workspace, section: change.section } },
              body: { mods: [...change.mods] },
              signal,
            }),
          )
    case 'leave':
      return got(
        api.POST('/api/workspaces/{workspace}/sections/leave', {
          params: sure,
          body: { mods: [...change.mods] },
        }),
      )
    case 'rename':
      return got(
        api.PUT('/api/workspaces/{workspace}/sections/{section}', {
          params: { ...sure, path: { workspace, section: change.section } },
          body: { name: change.name },
        }),
      )
    case 'dissolve':
      return got(
        api.DELETE('/api/workspaces/{workspace}/sections/{section}', {
          params: { ...sure, path: { workspace, section: change.section } },
        }),
      )
    case 'suggestion':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/suggestion', {
          params,
          body: { mods: [...change.mods] },
          signal,
        }),
      )
    case 'rule':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/rules', {
          params: sure,
          body: { ...change.rule, reason: change.reason },
        }),
      )
    case 'drop-rule':
      return got(
        api.DELETE('/api/workspaces/{workspace}/layers/rules', {
          params: { ...sure, query: change.rule },
        }),
      )
    case 'mend-rule':
      return got(
        api.POST('/api/workspaces/{workspace}/layers/rules/mend', { params, body: change.rule, signal }),
      )
  }
}

/** What a change would do, asked while nothing is done yet; null asks nothing. */
export function usePreview(workspace: number, revision: number, change: LayerChange | null) {
  return useQuery({
    queryKey: of(workspace, 'preview', revision, change),
    enabled: change !== null,
    gcTime: 30_000,
    queryFn: ({ signal }) => request(workspace, change as LayerChange, revision, true, signal),
  })
}

/** Does a change. The order is shown at once; the bars follow with the server's answer. */
export function useChangeLayers(workspace: number, onDone: (change: LayerChange, d: Difference) => void) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'layers')
  const shown = atOnce<LayersView, LayerChange>(queries, key, changed)
  return useMutation({
    mutationFn: (change: LayerChange) => {
      const revision = queries.getQueryData<LayersView>(key)?.revision ?? 0
      return request(workspace, change, revision, false)
    },
    scope: inTurn(workspace),
    onMutate: shown.show,
    onSuccess: (difference, change) => {
      shown.done(change)
      tookRevision(queries, workspace, difference.revision)
      onDone(change, difference)
    },
    onError: (error) => {
      shown.refused()
      fail(error)
    },
    onSettled: () => {
      shown.settled()
      askAgain(queries, workspace)
    },
  })
}

/** The list as it will be, as far as that is known before the server answers. */
export function changed(view: LayersView, change: LayerChange): LayersView {
  if (change.kind === 'switch' || change.kind === 'keep') {
    const mods = new Set(change.mods)
    const next = change.kind === 'switch' ? { on: change.on } : { kept: change.kept }
    return { ...view, layers: view.layers.map((l) => (mods.has(l.mod) ? { ...l, ...next } : l)) }
  }
  if (change.kind !== 'move') return view
  const moving = new Set(change.mods)
  const moved = view.layers.filter((l) => moving.has(l.mod))
  const rest = view.layers.filter((l) => !moving.has(l.mod))
  rest.splice(change.to - 1, 0, ...moved)
  return { ...view, layers: rest.map((l, i) => ({ ...l, position: i + 1 })) }
}

/** Rules of placement: the user's own first, then those of cards and files. */
export function useRules(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'layer-rules'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/layers/rules', { params: { path: { workspace } }, signal })),
  })
}

export function useSuggestion(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'layer-suggestion'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/layers/suggestion', {
          params: { path: { workspace } },
          signal,
        }),
      ),
  })
}

/** By part of a path the mods that bring such a file. */
export function useHolding(
  workspace: number,
  parts: readonly string[],
): ReadonlyMap<string, ReadonlySet<number>> {
  return useQueries({
    queries: parts.map((part) => ({
      queryKey: of(workspace, 'holding', part),
      queryFn: async ({ signal }: { signal: AbortSignal }) =>
        new Set(
          await got(
            api.GET('/api/workspaces/{workspace}/layers/holding', {
              params: { path: { workspace }, query: { file: part } },
              signal,
            }),
          ),
        ),
    })),
    combine: (results) =>
      new Map(parts.flatMap((part, i) => (results[i]?.data ? [[part, results[i].data] as const] : []))),
  })
}
