import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'

type LoadOrderView = Schema['LoadOrderView']
type LoadDifference = Schema['LoadDifferenceView']

export function useLoadOrder(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'load-order'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/load-order', { params: { path: { workspace } }, signal })),
  })
}

export function useProposal(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'proposal'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/load-order/proposal', {
          params: { path: { workspace } },
          signal,
        }),
      ),
  })
}

/** A change of the load order, as asked or as done. */
export type LoadChange =
  | { kind: 'move'; name: string; to: number }
  | { kind: 'switch'; names: readonly string[]; on: boolean }
  | { kind: 'proposal'; order: readonly string[] }

function request(
  workspace: number,
  change: LoadChange,
  revision: number,
  dryRun: boolean,
  signal?: AbortSignal,
) {
  const path = { workspace }
  const header = ifMatch(revision)
  if (change.kind === 'proposal') {
    return got(api.POST('/api/workspaces/{workspace}/load-order/proposal', { params: { path, header } }))
  }
  const params = { path, query: { dryRun }, header }
  if (change.kind === 'move') {
    const body = { name: change.name, to: change.to }
    return got(api.POST('/api/workspaces/{workspace}/load-order/move', { params, body, signal }))
  }
  const body = { names: [...change.names], on: change.on }
  return got(api.POST('/api/workspaces/{workspace}/load-order/switch', { params, body, signal }))
}

/** What a change would do, asked while nothing is done yet; null asks nothing. */
export function useLoadPreview(workspace: number, revision: number, change: LoadChange | null) {
  return useQuery({
    queryKey: of(workspace, 'load-preview', revision, change),
    enabled: change !== null,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) => request(workspace, change as LoadChange, revision, true, signal),
  })
}

export function useChangeLoadOrder(
  workspace: number,
  onDone: (change: LoadChange, d: LoadDifference) => void,
) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'load-order')
  return useMutation({
    mutationFn: (change: LoadChange) => {
      const revision = queries.getQueryData<LoadOrderView>(key)?.revision ?? 0
      return request(workspace, change, revision, false)
    },
    scope: inTurn(workspace),
    onMutate: async (change) => {
      await queries.cancelQueries({ queryKey: key })
      queries.setQueryData<LoadOrderView>(key, (view) => view && changed(view, change))
    },
    onSuccess: (difference, change) => {
      tookRevision(queries, workspace, difference.revision)
      onDone(change, difference)
    },
    onError: fail,
    onSettled: () => askAgain(queries, workspace),
  })
}

/** The list as it will be, stages aside: the server's answer puts those right. */
export function changed(view: LoadOrderView, change: LoadChange): LoadOrderView {
  if (change.kind === 'proposal') {
    const to = new Map(change.order.map((name, i) => [name, i + 1]))
    const plugins = view.plugins.map((p) => ({ ...p, position: to.get(p.name) ?? p.position }))
    return { ...view, plugins: plugins.sort((a, b) => a.position - b.position) }
  }
  if (change.kind === 'switch') {
    return {
      ...view,
      plugins: view.plugins.map((p) => (change.names.includes(p.name) ? { ...p, on: change.on } : p)),
    }
  }
  const moved = view.plugins.find((p) => p.name === change.name)
  if (!moved) return view
  const rest = view.plugins.filter((p) => p.name !== change.name)
  rest.splice(change.to - 1, 0, moved)
  return { ...view, plugins: rest.map((p, i) => ({ ...p, position: i + 1 })) }
}
