import { keepPreviousData, useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'

export type Catalogue = Schema['CatalogueView']
export type FoundMod = Schema['FoundMod']
export type OfferedMod = Schema['OfferedModView']
export type Release = Schema['ReleaseView']

/** How many rows are asked for at once. */
const PIECE = 50

/** What mods are looked for in the catalogues. */
export interface Looked {
  search: string
  tag: string
  fits: boolean
  nothingMore: boolean
}

export function useCatalogues(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'catalogues'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/catalogues', { params: { path: { workspace } }, signal })),
  })
}

/** The mods that are found, piece by piece. */
export function useFound(workspace: number, looked: Looked) {
  return useInfiniteQuery({
    queryKey: of(workspace, 'offered', looked),
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ signal, pageParam }) =>
      got(
        api.GET('/api/workspaces/{workspace}/catalogues/mods', {
          params: { path: { workspace }, query: { ...looked, offset: pageParam, limit: PIECE } },
          signal,
        }),
      ),
    getNextPageParam: (last, all) => (last.mods.length < PIECE ? undefined : all.length * PIECE),
  })
}

export function useTags(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'offered', 'tags'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/catalogues/tags', { params: { path: { workspace } }, signal }),
      ),
  })
}

/** One mod as each catalogue says; asked for only where one is selected. */
export function useOffered(workspace: number, mod: string | null) {
  return useQuery({
    enabled: mod !== null,
    queryKey: of(workspace, 'offered', 'mod', mod),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/catalogues/mods/{mod}', {
          params: { path: { workspace, mod: mod ?? '' } },
          signal,
        }),
      ),
  })
}

/** How fast downloads may be; without a number as fast as they come. */
export function useSpeedLimit(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'downloads', 'limit'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/downloads/limit', { params: { path: { workspace } }, signal }),
      ),
  })
}
