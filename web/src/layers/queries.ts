import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'

type LayersView = Schema['LayersView']
type Difference = Schema['DifferenceView']

export function layersQuery(workspace: number) {
  return queryOptions({
    queryKey: of(workspace, 'layers'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/layers', { params: { path: { workspace } }, signal })),
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

/** Contested paths of a mod; with another mod, those of the two. */
export function useModPaths(workspace: number, mod: number, other: number | null) {
  return useQuery({
    queryKey: of(workspace, 'mod-paths', mod, other),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/layers/{mod}/paths', {
          params: { path: { workspace, mod }, query: other === null ? {} : { with: other } },
          signal,
        }),
      ),
  })
}

/** A change of the layers, as asked or as done. */
export type LayerChange =
  | { kind: 'move'; mod: number; to: number }
  | { kind: 'switch'; mods: readonly number[]; on: boolean }

function request(
  workspace: number,
  change: LayerChange,
  revision: number,
  dryRun: boolean,
  signal?: AbortSignal,
) {
  const params = { path: { workspace }, query: { dryRun }, header: ifMatch(revision) }
  if (change.kind === 'move') {
    const body = { mods: [change.mod], to: change.to }
    return got(api.POST('/api/workspaces/{workspace}/layers/move', { params, body, signal }))
  }
  const body = { mods: [...change.mods], on: change.on }
  return got(api.POST('/api/workspaces/{workspace}/layers/switch', { params, body, signal }))
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
  return useMutation({
    mutationFn: (change: LayerChange) => {
      const revision = queries.getQueryData<LayersView>(key)?.revision ?? 0
      return request(workspace, change, revision, false)
    },
    scope: inTurn(workspace),
    onMutate: async (change) => {
      await queries.cancelQueries({ queryKey: key })
      queries.setQueryData<LayersView>(key, (view) => view && changed(view, change))
    },
    onSuccess: (difference, change) => {
      tookRevision(queries, workspace, difference.revision)
      onDone(change, difference)
    },
    onError: fail,
    onSettled: () => askAgain(queries, workspace),
  })
}

/** The list as it will be: who stands where, and who is on. */
export function changed(view: LayersView, change: LayerChange): LayersView {
  if (change.kind === 'switch') {
    const layers = view.layers.map((l) => (change.mods.includes(l.mod) ? { ...l, on: change.on } : l))
    return { ...view, layers }
  }
  const moved = view.layers.find((l) => l.mod === change.mod)
  if (!moved) return view
  const rest = view.layers.filter((l) => l.mod !== change.mod)
  rest.splice(change.to - 1, 0, moved)
  return { ...view, layers: rest.map((l, i) => ({ ...l, position: i + 1 })) }
}
