import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { atOnce } from '../frame/atOnce'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'

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
  /** They come to stand one behind the other, the first of them as number `to`. */
  | { kind: 'move'; names: readonly string[]; to: number }
  | { kind: 'switch'; names: readonly string[]; on: boolean }
  /** Taking a proposal: the whole order, and whose moves; all where none are named. */
  | { kind: 'proposal'; order: readonly string[]; names?: readonly string[] }
  | { kind: 'keep'; names: readonly string[]; kept: boolean }
  | { kind: 'list-file' }
  | { kind: 'restore'; point: number; name: string }

function request(
  workspace: number,
  change: LoadChange,
  revision: number,
  dryRun: boolean,
  signal?: AbortSignal,
) {
  const path = { workspace }
  const header = ifMatch(revision)
  const params = { path, query: { dryRun }, header }
  if (change.kind === 'proposal') {
    const body = change.names ? { names: [...change.names] } : {}
    return got(api.POST('/api/workspaces/{workspace}/load-order/proposal', { params, body, signal }))
  }
  if (change.kind === 'keep') {
    const body = { names: [...change.names], kept: change.kept }
    return got(api.POST('/api/workspaces/{workspace}/load-order/keep', { params: { path, header }, body }))
  }
  if (change.kind === 'restore') {
    const body = { point: change.point }
    return got(api.POST('/api/workspaces/{workspace}/load-order/restore', { params, body, signal }))
  }
  if (change.kind === 'list-file')
    return got(api.POST('/api/workspaces/{workspace}/load-order/list-file/take', { params, signal }))
  if (change.kind === 'move') {
    const body = { names: [...change.names], to: change.to }
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
  const shown = atOnce<LoadOrderView, LoadChange>(queries, key, changed)
  return useMutation({
    mutationFn: (change: LoadChange) => {
      const revision = queries.getQueryData<LoadOrderView>(key)?.revision ?? 0
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

/** The list as it will be, stages aside: the server's answer puts those right. */
export function changed(view: LoadOrderView, change: LoadChange): LoadOrderView {
  if (
    change.kind === 'list-file' ||
    change.kind === 'restore' ||
    (change.kind === 'proposal' && change.names)
  )
    return view
  if (change.kind === 'keep') {
    return {
      ...view,
      plugins: view.plugins.map((p) => (change.names.includes(p.name) ? { ...p, kept: change.kept } : p)),
    }
  }
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
  const moving = new Set(change.names)
  const moved = view.plugins.filter((p) => moving.has(p.name))
  if (moved.length === 0) return view
  const rest = view.plugins.filter((p) => !moving.has(p.name))
  rest.splice(change.to - 1, 0, ...moved)
  return { ...view, plugins: rest.map((p, i) => ({ ...p, position: i + 1 })) }
}

const ASK = '/api/workspaces/{workspace}/load-order' as const

/** What a plugin must follow and precede, and how far it could move. */
export function useWhy(workspace: number, plugin: string) {
  return useQuery({
    queryKey: of(workspace, 'load-why', plugin),
    queryFn: ({ signal }) =>
      got(api.GET(`${ASK}/why`, { params: { path: { workspace }, query: { plugin } }, signal })),
  })
}

export function useLoadRules(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'load-rules'),
    queryFn: ({ signal }) => got(api.GET(`${ASK}/rules`, { params: { path: { workspace } }, signal })),
  })
}

/** What a rule changes in the proposal; null asks nothing. */
export function useRuleEffect(workspace: number, key: string | null) {
  return useQuery({
    queryKey: of(workspace, 'load-rule-effect', key),
    enabled: key !== null,
    queryFn: ({ signal }) =>
      got(
        api.GET(`${ASK}/rules/effect`, {
          params: { path: { workspace }, query: { key: key as string } },
          signal,
        }),
      ),
  })
}

export type RuleAct =
  | { kind: 'add'; rule: Schema['LoadRuleRequest'] }
  | { kind: 'take-back'; key: string }
  | { kind: 'word'; key: string; word: Schema['WordRequest']['word'] }
  | { kind: 'mute'; key: string; muted: boolean }

/** What the user makes of rules; nothing moves by it. */
export function useRuleAct(workspace: number, done: (act: RuleAct) => void) {
  const path = { workspace }
  return useArrange(
    workspace,
    (act: RuleAct, header) => {
      switch (act.kind) {
        case 'add':
          return got(api.POST(`${ASK}/rules`, { params: { path, header }, body: act.rule }))
        case 'take-back':
          return got(api.DELETE(`${ASK}/rules`, { params: { path, header, query: { key: act.key } } }))
        case 'word':
          return got(
            api.POST(`${ASK}/rules/word`, {
              params: { path, header },
              body: { key: act.key, word: act.word },
            }),
          )
        case 'mute':
          return got(
            api.POST(`${ASK}/rules/mute`, {
              params: { path, header },
              body: { key: act.key, muted: act.muted },
            }),
          )
      }
    },
    () => undefined,
    (_, act) => done(act),
  )
}

export function useWaysOut(workspace: number, ask: boolean) {
  return useQuery({
    queryKey: of(workspace, 'load-ways-out'),
    enabled: ask,
    queryFn: ({ signal }) =>
      got(api.GET(`${ASK}/proposal/ways-out`, { params: { path: { workspace } }, signal })),
  })
}

/** What the list file in the game folder says; it is read at each look. */
export function useListFile(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'list-file'),
    queryFn: ({ signal }) => got(api.GET(`${ASK}/list-file`, { params: { path: { workspace } }, signal })),
  })
}

export function usePutListBack(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async () => {
      await finished(got(api.POST(`${ASK}/list-file/put-back`, { params: { path: { workspace } } })))
    },
    done,
  )
}

export function useStrayPlugins(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'stray-plugins'),
    queryFn: ({ signal }) => got(api.GET(`${ASK}/strays`, { params: { path: { workspace } }, signal })),
  })
}

export function useSlotTakers(workspace: number, ask: boolean) {
  return useQuery({
    queryKey: of(workspace, 'slot-takers'),
    enabled: ask,
    queryFn: ({ signal }) => got(api.GET(`${ASK}/slots`, { params: { path: { workspace } }, signal })),
  })
}
