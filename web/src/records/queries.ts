import {
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'
import type { Decision } from './decision'

export type RecordState = NonNullable<Schema['RecordLine']['state']>

/** Which records are looked at. */
export interface WhichRecords {
  find: string
  state: readonly RecordState[]
  type: string
  /** Plugins all of which have a version of it. */
  plugin: readonly string[]
  /** A plugin that loses something of its own. */
  losesOf: string
  refersTo: string
  /** Whether only those on which the user has decided. */
  decided: boolean
}

export function useRecords(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'records'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/records', { params: { path: { workspace } }, signal })),
  })
}

export function useRecordList(workspace: number, which: WhichRecords, asked = true) {
  return useInfiniteQuery({
    queryKey: of(workspace, 'record-list', which),
    enabled: asked,
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/records/list', {
          params: {
            path: { workspace },
            query: {
              find: which.find,
              state: [...which.state],
              type: which.type,
              plugin: [...which.plugin],
              losesOf: which.losesOf,
              refersTo: which.refersTo,
              decided: which.decided,
              offset: pageParam,
            },
          },
          signal,
        }),
      ),
    getNextPageParam: (last) => last.next ?? undefined,
  })
}

export function useRecordPairs(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'record-pairs'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/records/pairs', { params: { path: { workspace } }, signal })),
  })
}

export type FindingKind = Schema['FindingView']['kind']

export function useFindings(workspace: number, kind: FindingKind | undefined) {
  return useQuery({
    queryKey: of(workspace, 'findings', kind ?? ''),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/records/findings', {
          params: { path: { workspace }, query: kind ? { kind } : {} },
          signal,
        }),
      ),
  })
}

export type ComparedKind = 'DIFFERENT' | 'SAME' | 'ONLY'

export function useComparedPlugins(workspace: number, plugins: readonly string[], show: ComparedKind) {
  return useInfiniteQuery({
    queryKey: of(workspace, 'compared-plugins', plugins, show),
    enabled: plugins.length > 1,
    placeholderData: keepPreviousData,
    initialPageParam: 0,
    queryFn: ({ pageParam, signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/records/compare', {
          params: { path: { workspace }, query: { plugin: [...plugins], show, offset: pageParam } },
          signal,
        }),
      ),
    getNextPageParam: (last) => last.next ?? undefined,
  })
}

/** Records of a type by part of their name. */
export function useRecordNames(workspace: number, find: string, type: string | undefined, asked: boolean) {
  return useQuery({
    queryKey: of(workspace, 'record-names', find, type ?? ''),
    enabled: asked,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/records/names', {
          params: { path: { workspace }, query: { find, ...(type && { type }) } },
          signal,
        }),
      ),
  })
}

export function useBoard(workspace: number, owner: string, id: string) {
  return useQuery({
    queryKey: of(workspace, 'board', owner, id),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/records/{owner}/{id}', {
          params: { path: { workspace, owner, id } },
          signal,
        }),
      ),
  })
}

/** Takes a decision for one place of a record; null takes it back. */
export function useDecide(workspace: number, owner: string, id: string) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'board', owner, id)
  return useMutation({
    mutationFn: (d: { place: string; decision: Decision | null }) => {
      const revision = queries.getQueryData<Schema['Board']>(key)?.revision ?? 0
      return got(
        api.PUT('/api/workspaces/{workspace}/records/{owner}/{id}/decisions', {
          params: { path: { workspace, owner, id }, header: ifMatch(revision) },
          body: { place: d.place, decision: d.decision ?? undefined },
        }),
      )
    },
    scope: inTurn(workspace),
    onSuccess: (board) => {
      queries.setQueryData(key, board)
      tookRevision(queries, workspace, board.revision)
    },
    onError: fail,
    onSettled: () => askAgain(queries, workspace),
  })
}

/** Takes one plugin's version of records whole. */
export function useBring(workspace: number, done: (total: number) => void) {
  return useArrange(
    workspace,
    (body: { plugin: string; keys: string[]; withReferences: boolean }, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/records/bring', {
          params: { path: { workspace }, header },
          body,
        }),
      ),
    (r) => r.revision,
    (r) => done(r.total),
  )
}

/** Takes every decision on a record back. */
export function useUndecide(workspace: number) {
  return useArrange(
    workspace,
    (keys: string[], header) =>
      got(
        api.POST('/api/workspaces/{workspace}/records/undecide', {
          params: { path: { workspace }, header },
          body: { keys },
        }),
      ),
    (r) => r.revision,
  )
}

export type Pattern = Schema['PatternRequest']

export function usePatternPreview(workspace: number, pattern: Pattern | null) {
  return useQuery({
    queryKey: of(workspace, 'pattern', pattern),
    enabled: pattern !== null,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.POST('/api/workspaces/{workspace}/records/pattern', {
          params: { path: { workspace } },
          body: pattern as Pattern,
          signal,
        }),
      ),
  })
}

export function usePattern(workspace: number, done: (total: number) => void) {
  return useArrange(
    workspace,
    (body: Pattern, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/records/pattern', {
          params: { path: { workspace }, query: { dryRun: false }, header },
          body,
        }),
      ),
    (r) => r.revision,
    (r) => done(r.total),
  )
}

/** Brings a plugin back from its text form. */
export function useImportText(workspace: number, done: (r: Schema['ImportedPlugin']) => void) {
  return useAct(
    workspace,
    (body: { name: string; text: string }) =>
      got(api.POST('/api/workspaces/{workspace}/plugins/text', { params: { path: { workspace } }, body })),
    done,
  )
}
