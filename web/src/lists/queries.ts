import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { atOnce } from '../frame/atOnce'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'

/** What a list is an order of, and so where it is followed. */
export type Kind = 'layers' | 'load-order'

/** What is taken of a list: all of it, or the steps of some of its entries. */
export type Taken = readonly Schema['EntryView'][] | 'all'

const LAYERS = '/api/workspaces/{workspace}/lists' as const
const ORDERS = '/api/workspaces/{workspace}/load-order/lists' as const

export function useLists(workspace: number, kind: Kind) {
  const params = { path: { workspace } }
  return useQuery({
    queryKey: of(workspace, 'lists', kind),
    queryFn: ({ signal }) =>
      kind === 'layers' ? got(api.GET(LAYERS, { params, signal })) : got(api.GET(ORDERS, { params, signal })),
  })
}

export function useList(workspace: number, kind: Kind, list: number) {
  const params = { path: { workspace, list } }
  return useQuery({
    queryKey: of(workspace, 'list', kind, list),
    queryFn: ({ signal }) =>
      kind === 'layers'
        ? got(api.GET(`${LAYERS}/{list}`, { params, signal }))
        : got(api.GET(`${ORDERS}/{list}`, { params, signal })),
  })
}

/** Brings a file in as a list; nothing else is changed by it. */
export function useBringInList(workspace: number, kind: Kind, onDone: (list: Schema['FollowView']) => void) {
  const { fail } = useNotices()
  return useMutation({
    mutationFn: (file: File) => {
      const options = {
        params: { path: { workspace }, query: { name: file.name } },
        headers: { 'Content-Type': 'application/octet-stream' },
        body: file as unknown as string,
        bodySerializer: (body: unknown) => body as BodyInit,
      }
      return kind === 'layers' ? got(api.POST(LAYERS, options)) : got(api.POST(ORDERS, options))
    },
    onSuccess: onDone,
    onError: fail,
  })
}

function modsOf(taken: Taken): Schema['FollowRequest'] {
  if (taken === 'all') return {}
  const mods = (of: (e: Schema['EntryView']) => boolean) =>
    taken.flatMap((e) => (e.mod !== undefined && of(e) ? [e.mod] : []))
  return { moves: mods((e) => e.to !== undefined), switches: mods((e) => e.switchTo !== undefined) }
}

function pluginsOf(taken: Taken): Schema['FollowPluginsRequest'] {
  if (taken === 'all') return {}
  return {
    moves: taken.filter((e) => e.to !== undefined).map((e) => e.name),
    switches: taken.filter((e) => e.switchTo !== undefined).map((e) => e.name),
  }
}

/** What taking all of a list of mods would change in the game. */
export function useTakeLayersPreview(workspace: number, list: number, revision: number, ask: boolean) {
  return useQuery({
    queryKey: of(workspace, 'list-preview', list, revision),
    enabled: ask,
    gcTime: 30_000,
    queryFn: ({ signal }) =>
      got(
        api.POST(`${LAYERS}/{list}/take`, {
          params: { path: { workspace, list }, query: { dryRun: true } },
          body: {},
          signal,
        }),
      ),
  })
}

/** The same for a list of plugins. */
export function useTakeOrderPreview(workspace: number, list: number, revision: number, ask: boolean) {
  return useQuery({
    queryKey: of(workspace, 'order-preview', list, revision),
    enabled: ask,
    gcTime: 30_000,
    queryFn: ({ signal }) =>
      got(
        api.POST(`${ORDERS}/{list}/take`, {
          params: { path: { workspace, list }, query: { dryRun: true } },
          body: {},
          signal,
        }),
      ),
  })
}

/** Takes steps of a list of mods. */
export function useTakeLayers(workspace: number, list: number, done: (d: Schema['DifferenceView']) => void) {
  return useArrange(
    workspace,
    (taken: Taken, header) =>
      got(
        api.POST(`${LAYERS}/{list}/take`, {
          params: { path: { workspace, list }, query: {}, header },
          body: modsOf(taken),
        }),
      ),
    (d) => d.revision,
    done,
  )
}

/** Takes steps of a list of plugins. */
export function useTakeOrder(
  workspace: number,
  list: number,
  done: (d: Schema['LoadDifferenceView']) => void,
) {
  return useArrange(
    workspace,
    (taken: Taken, header) =>
      got(
        api.POST(`${ORDERS}/{list}/take`, {
          params: { path: { workspace, list }, query: {}, header },
          body: pluginsOf(taken),
        }),
      ),
    (d) => d.revision,
    done,
  )
}

/** Ticks the note of an entry off; shown at once. */
/** Remembers that an entry shall be otherwise here, or takes that back where no reason is given. */
export function useDepart(workspace: number, kind: Kind, list: number) {
  const params = { path: { workspace, list } }
  return useAct(workspace, (body: Schema['DepartureRequest']) =>
    kind === 'layers'
      ? got(api.PUT(`${LAYERS}/{list}/departures`, { params, body }))
      : got(api.PUT(`${ORDERS}/{list}/departures`, { params, body })),
  )
}

export function useTick(workspace: number, kind: Kind, list: number) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'list', kind, list)
  const params = { path: { workspace, list } }
  const shown = atOnce<Schema['FollowView'], Schema['TickRequest']>(
    queries,
    key,
    (l, { number, ticked }) => ({
      ...l,
      entries: l.entries.map((e) => (e.number === number ? { ...e, ticked } : e)),
    }),
  )
  return useMutation({
    mutationFn: (body: Schema['TickRequest']) =>
      kind === 'layers'
        ? got(api.PUT(`${LAYERS}/{list}/ticks`, { params, body }))
        : got(api.PUT(`${ORDERS}/{list}/ticks`, { params, body })),
    onMutate: shown.show,
    onSuccess: (_, tick) => shown.done(tick),
    onError: (error) => {
      shown.refused()
      fail(error)
    },
    onSettled: () => {
      shown.settled()
      makeOld(queries, key)
    },
  })
}

/** Following a list no longer, and again. */
export function useListActs(workspace: number, kind: Kind, list: number) {
  const params = { path: { workspace, list } }
  return {
    leave: useAct(workspace, () =>
      kind === 'layers'
        ? got(api.DELETE(`${LAYERS}/{list}`, { params }))
        : got(api.DELETE(`${ORDERS}/{list}`, { params })),
    ),
    back: useAct(workspace, () =>
      kind === 'layers'
        ? got(api.POST(`${LAYERS}/{list}/back`, { params }))
        : got(api.POST(`${ORDERS}/{list}/back`, { params })),
    ),
  }
}
