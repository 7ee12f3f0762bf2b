import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'

export function useMends(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'mends'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/mends', { params: { path: { workspace } }, signal })),
  })
}

export function useCalledFor(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'called-for'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mends/called-for', { params: { path: { workspace } }, signal }),
      ),
  })
}

/** What making a patch anew would change in it. */
export function useMendDifference(workspace: number, mod: number, asked: boolean) {
  return useQuery({
    queryKey: of(workspace, 'mend-difference', mod),
    enabled: asked,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mends/{mod}/difference', {
          params: { path: { workspace, mod } },
          signal,
        }),
      ),
  })
}

/** Puts every record that combines into the profile's patch. */
export function useBuildPatch(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async () =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mends/patch', {
            params: { path: { workspace } },
          }),
        ),
      ),
    done,
  )
}

/** Makes a patch of its own for some plugins or records. */
export function useAddPatch(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async (body: Schema['PatchRequest']) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mends/patches', {
            params: { path: { workspace } },
            body,
          }),
        ),
      ),
    done,
  )
}

export function useRebuild(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async (mod: number) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mends/{mod}/rebuild', {
            params: { path: { workspace, mod } },
          }),
        ),
      ),
    done,
  )
}

export function useRebuildStale(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async () =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mends/rebuild', {
            params: { path: { workspace } },
          }),
        ),
      ),
    done,
  )
}

export function useConditions(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async ({ mod, body }: { mod: number; body: Schema['ConditionsRequest'] }) =>
      finished(
        got(
          api.PUT('/api/workspaces/{workspace}/mends/{mod}/conditions', {
            params: { path: { workspace, mod } },
            body,
          }),
        ),
      ),
    done,
  )
}

export type MergeWish = Schema['MergeRequest']

/** What a merge would come to; not asked while one is being made, since its plugins are then half merged. */
export function useMergePreview(workspace: number, wish: MergeWish | null, making: boolean) {
  return useQuery({
    queryKey: of(workspace, 'merge-preview', wish),
    enabled: wish !== null && !making,
    gcTime: 30_000,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.POST('/api/workspaces/{workspace}/mends/merges/preview', {
          params: { path: { workspace } },
          body: wish as MergeWish,
          signal,
        }),
      ),
  })
}

export function useMerge(workspace: number, done: (target: string) => void) {
  return useAct(
    workspace,
    async (body: MergeWish) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mends/merges', {
            params: { path: { workspace } },
            body,
          }),
        ),
      ),
    (_, made) => done(made.target),
  )
}

export function useTakeBack(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async (mod: number) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/mends/merges/{mod}/take-back', {
            params: { path: { workspace, mod } },
          }),
        ),
      ),
    done,
  )
}

/** Saves that were made with one of some plugins, as far as the runs that were recorded tell. */
export function useSaves(workspace: number, plugins: readonly string[]) {
  return useQuery({
    queryKey: of(workspace, 'saves', plugins),
    enabled: plugins.length > 0,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/saves', {
          params: { path: { workspace }, query: { plugin: [...plugins] } },
          signal,
        }),
      ),
  })
}

export type FileChoice = Schema['ChoiceRequest']

/** The files that several mods change, and what combining each comes to; or carrying one mod’s change over. */
export function useCandidateFiles(workspace: number, carry: string | undefined) {
  return useQuery({
    queryKey: of(workspace, 'combined-files', carry),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/combined-files', {
          params: { path: { workspace }, query: { carry } },
          signal,
        }),
      ),
  })
}

/** One file, place by place. */
export function useFileBoard(workspace: number, path: string, carry: string | undefined) {
  return useQuery({
    queryKey: of(workspace, 'file-board', path, carry),
    enabled: path !== '',
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/combined-files/board', {
          params: { path: { workspace }, query: { path, carry } },
          signal,
        }),
      ),
  })
}

/** Settles one place of a file. */
export function useSettle(workspace: number, path: string, carry: string | undefined) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  const key = of(workspace, 'file-board', path, carry)
  return useMutation({
    mutationFn: (body: FileChoice) => {
      const revision = queries.getQueryData<Schema['FileBoard']>(key)?.revision ?? 0
      return got(
        api.PUT('/api/workspaces/{workspace}/combined-files/choices', {
          params: { path: { workspace }, query: { path, carry }, header: ifMatch(revision) },
          body,
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

/** What one answer for many places would settle; null asks nothing. */
export function useSweepPreview(workspace: number, wish: Schema['SettleAllRequest'] | null) {
  return useQuery({
    queryKey: of(workspace, 'sweep', wish),
    enabled: wish !== null,
    gcTime: 30_000,
    queryFn: ({ signal }) =>
      got(
        api.POST('/api/workspaces/{workspace}/combined-files/settle', {
          params: { path: { workspace }, query: { dryRun: true } },
          body: wish as Schema['SettleAllRequest'],
          signal,
        }),
      ),
  })
}

/** Settles many places of files by one answer. */
export function useSweep(workspace: number, done: (settled: Schema['SettledView']) => void) {
  return useArrange(
    workspace,
    (body: Schema['SettleAllRequest'], header) =>
      got(
        api.POST('/api/workspaces/{workspace}/combined-files/settle', {
          params: { path: { workspace }, header },
          body,
        }),
      ),
    (settled) => settled.revision,
    done,
  )
}

/** Puts files into the mend that holds combined files. */
export function useCombine(workspace: number, done: () => void) {
  return useAct(
    workspace,
    async (wish: Schema['CombineRequest']) =>
      finished(
        got(
          api.POST('/api/workspaces/{workspace}/combined-files', {
            params: { path: { workspace } },
            body: wish,
          }),
        ),
      ),
    done,
  )
}
