import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'
import { useArrange } from '../library/queries'

export type Kind = 'SAME' | 'DIFFERS' | 'LOOSE_OVER_PACKED' | 'COMBINES' | 'RULED'

/** Which contested paths are looked at. */
export interface Which {
  find: string
  kind: readonly Kind[]
  /** Mods all of which bring the path; 0 is the game. */
  mod: readonly number[]
}

export function useOverlaps(workspace: number, which: Which) {
  return useInfiniteQuery({
    queryKey: of(workspace, 'overlaps', which),
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/overlaps', {
          params: {
            path: { workspace },
            query: { find: which.find, kind: [...which.kind], mod: [...which.mod], offset: pageParam },
          },
          signal,
        }),
      ),
    getNextPageParam: (last) => last.next ?? undefined,
  })
}

export function useFolder(workspace: number, folder: string, which: Which, asked = true) {
  return useQuery({
    queryKey: of(workspace, 'overlaps-folder', folder, which),
    enabled: asked,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/overlaps/folder', {
          params: {
            path: { workspace },
            query: { folder, find: which.find, kind: [...which.kind], mod: [...which.mod] },
          },
          signal,
        }),
      ),
  })
}

export function useMatrix(workspace: number, kind: readonly Kind[]) {
  return useQuery({
    queryKey: of(workspace, 'overlaps-matrix', kind),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/overlaps/matrix', {
          params: { path: { workspace }, query: { kind: [...kind] } },
          signal,
        }),
      ),
  })
}

/** The same among hundreds of mods, with those together that collide where that is wished. */
export function useBigMatrix(workspace: number, kind: readonly Kind[], grouped: boolean) {
  return useQuery({
    queryKey: of(workspace, 'overlaps-matrix', kind, 'all', grouped),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/overlaps/matrix', {
          params: { path: { workspace }, query: { kind: [...kind], most: 400, grouped } },
          signal,
        }),
      ),
  })
}

export function usePath(workspace: number, path: string) {
  return useQuery({
    queryKey: of(workspace, 'path', path),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/path', {
          params: { path: { workspace }, query: { path } },
          signal,
        }),
      ),
  })
}

type Holder = Schema['Holder']

export function useContents(workspace: number, path: string, holder: Holder | undefined) {
  return useQuery({
    // by content: whoever brings it, and wherever it moves, it is the same
    queryKey: of(workspace, 'contents', holder?.sha256, path),
    enabled: holder !== undefined,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/path/contents', {
          params: {
            path: { workspace },
            query: { path, mod: holder?.mod ?? 0, ...(holder?.pack ? { pack: holder.pack } : {}) },
          },
          signal,
        }),
      ),
  })
}

/** The address of the bytes that a holder has at a path. */
export function contentsAddress(workspace: number, path: string, holder: Holder): string {
  const query = new URLSearchParams({
    path,
    mod: String(holder.mod),
    ...(holder.pack ? { pack: holder.pack } : {}),
  })
  // its content in the address, so that an edit is not shown from memory
  query.set('as', holder.sha256.slice(0, 12))
  return `/api/workspaces/${workspace}/path/file?${query}`
}

export function useRulings(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'rulings'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/rulings', { params: { path: { workspace } }, signal })),
  })
}

export function useRulingOrder(workspace: number, asked: boolean) {
  return useQuery({
    queryKey: of(workspace, 'ruling-order'),
    enabled: asked,
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/rulings/order', { params: { path: { workspace } }, signal })),
  })
}

/** A ruling, or taking one back. */
export type Verdict = { at: string; mod: number } | { takeBack: readonly string[] }

function verdict(workspace: number, v: Verdict, dryRun: boolean, header: { 'If-Match'?: string }) {
  return 'takeBack' in v
    ? got(
        api.DELETE('/api/workspaces/{workspace}/rulings', {
          params: { path: { workspace }, query: { at: [...v.takeBack], dryRun }, header },
        }),
      )
    : got(
        api.PUT('/api/workspaces/{workspace}/rulings', {
          params: { path: { workspace }, query: { dryRun }, header },
          body: { rulings: [v] },
        }),
      )
}

/** What a ruling would change in the game. */
export function useVerdictPreview(workspace: number, revision: number, v: Verdict | null) {
  return useQuery({
    queryKey: of(workspace, 'verdict', revision, v),
    enabled: v !== null,
    queryFn: () => verdict(workspace, v as Verdict, true, {}),
  })
}

export function useVerdict(workspace: number, done: (d: Schema['DifferenceView'], v: Verdict) => void) {
  return useArrange(
    workspace,
    (v: Verdict, header) => verdict(workspace, v, false, header),
    (d) => d.revision,
    done,
  )
}

export function useTakeRulingOrder(workspace: number, done: (d: Schema['DifferenceView']) => void) {
  return useArrange(
    workspace,
    (_: null, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/rulings/order', {
          params: { path: { workspace }, header },
        }),
      ),
    (d) => d.revision,
    done,
  )
}
