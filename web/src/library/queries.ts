import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, ifMatch, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'
import { askAgain, inTurn, tookRevision } from '../frame/revision'
import { of } from '../frame/workspace'
import { grown, type Tree } from '../ui/tree'
import { type AllFiles, gathered, PIECE } from './allFiles'

export type PartRequest = Schema['PartRequest']

export function useLibrary(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'library'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/library', { params: { path: { workspace } }, signal })),
  })
}

export function useInbox(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'inbox'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/inbox', { params: { path: { workspace } }, signal })),
  })
}

/** A mod without its files, which {@link useFiles} has. */
export function useMod(workspace: number, mod: number, limit = 1000) {
  return useQuery({
    enabled: mod > 0,
    queryKey: of(workspace, 'mod', mod, limit),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}', {
          params: { path: { workspace, mod }, query: { limit } },
          signal,
        }),
      ),
  })
}

/** All files of a mod; at the first look, those that have come so far. */
export function useFiles(workspace: number, mod: number) {
  return useQuery<AllFiles>({
    queryKey: of(workspace, 'mod-files', mod),
    structuralSharing: false,
    // some that were left behind when the user went elsewhere are not all
    staleTime: ({ state }) => (state.data?.whole === false ? 0 : Number.POSITIVE_INFINITY),
    queryFn: ({ signal, client, queryKey }): Promise<AllFiles> => {
      const known = client.getQueryData<AllFiles>(queryKey)?.whole
      return gathered(
        (offset) =>
          got(
            api.GET('/api/workspaces/{workspace}/mods/{mod}/files', {
              params: { path: { workspace, mod }, query: { limit: PIECE, offset } },
              signal,
            }),
          ),
        (now) => {
          if (!known && !signal.aborted) client.setQueryData(queryKey, now)
        },
      )
    },
  })
}

export function usePapers(workspace: number, mod: number) {
  return useQuery({
    queryKey: of(workspace, 'papers', mod),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/papers', {
          params: { path: { workspace, mod } },
          signal,
        }),
      ),
  })
}

/**
 * The text of a file of a mod.
 *
 * @param version of its content, so that an edit asks anew
 */
export function useText(workspace: number, mod: number, path: string | null, version = '') {
  return useQuery({
    queryKey: of(workspace, 'mod-text', mod, path, version),
    enabled: path !== null,
    retry: false,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/text', {
          params: { path: { workspace, mod }, query: { path: path as string } },
          signal,
        }),
      ),
  })
}

export function usePluginHeader(workspace: number, mod: number, path: string) {
  return useQuery({
    queryKey: of(workspace, 'plugin-header', mod, path),
    retry: false,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/plugin-header', {
          params: { path: { workspace, mod }, query: { path } },
          signal,
        }),
      ),
  })
}

/** The address of the bytes of a file of a mod. */
export function fileAddress(workspace: number, mod: number, path: string, download = false): string {
  const query = `path=${encodeURIComponent(path)}${download ? '&download=true' : ''}`
  return `/api/workspaces/${workspace}/mods/${mod}/file?${query}`
}

/** The address of the bytes of an entry of an archive. */
export function entryAddress(workspace: number, archive: number, path: string): string {
  return `/api/workspaces/${workspace}/archives/${archive}/entry?path=${encodeURIComponent(path)}`
}

/** A file that stays in the archive, by its place there. */
export type StaysOut = Schema['StaysOut'] & { path: string }

/** What the game would get, with its trees. */
export type Intake = Schema['IntakeView'] & {
  getsTree: Tree<Schema['Gets']>
  outTree: Tree<StaysOut>
}

/**
 * What the game would get from an archive under some choices.
 *
 * @param below lists only what lies there; for archives of more files than are listed at once
 */
export function useIntake(workspace: number, archive: number, part: PartRequest, below: string) {
  return useQuery({
    queryKey: of(workspace, 'intake', archive, part, below),
    placeholderData: keepPreviousData,
    structuralSharing: false,
    gcTime: 60_000,
    queryFn: async ({ signal }): Promise<Intake> => {
      const view = await got(
        api.POST('/api/workspaces/{workspace}/archives/{archive}/intake', {
          params: { path: { workspace, archive }, query: { below } },
          body: part,
          signal,
        }),
      )
      const getsTree = await grown(view.gets)
      const outTree = await grown(view.staysOut.map((s) => ({ ...s, path: s.entry })))
      return { ...view, getsTree, outTree }
    },
  })
}

export function useEntryText(workspace: number, archive: number, path: string | null) {
  return useQuery({
    queryKey: of(workspace, 'entry-text', archive, path),
    enabled: path !== null,
    retry: false,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/archives/{archive}/entry-text', {
          params: { path: { workspace, archive }, query: { path: path as string } },
          signal,
        }),
      ),
  })
}

export function useComparison(workspace: number, mod: number, other: number | null) {
  return useQuery({
    queryKey: of(workspace, 'comparison', mod, other),
    enabled: other !== null,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/compare', {
          params: { path: { workspace, mod }, query: { with: other as number } },
          signal,
        }),
      ),
  })
}

export function useRemoval(workspace: number, mod: number, asked: boolean) {
  return useQuery({
    queryKey: of(workspace, 'removal', mod),
    enabled: asked,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/mods/{mod}/removal', {
          params: { path: { workspace, mod } },
          signal,
        }),
      ),
  })
}

export function useStorage(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'storage'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/storage', { params: { path: { workspace } }, signal })),
  })
}

export function useBin(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'bin'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/bin', { params: { path: { workspace } }, signal })),
  })
}

/** Something that changes the library; afterwards everything of the workspace is asked anew. */
export function useAct<A, R = unknown>(
  workspace: number,
  act: (a: A) => Promise<R>,
  done?: (r: R, a: A) => void,
) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: act,
    onSuccess: (r: R, a: A) => done?.(r, a),
    onError: fail,
    onSettled: () => makeOld(queries, of(workspace)),
  })
}

/** A change of the arrangement that is made in the library. */
export function useArrange<A, R>(
  workspace: number,
  act: (a: A, header: { 'If-Match': string }) => Promise<R>,
  revisionOf: (r: R) => number | undefined,
  done?: (r: R, a: A) => void,
) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    scope: inTurn(workspace),
    mutationFn: async (a: A) => {
      // whatever stands on the screen was made from the state as it is now
      const now = await got(api.GET('/api/workspaces/{workspace}', { params: { path: { workspace } } }))
      return act(a, ifMatch(now.revision))
    },
    onSuccess: (r: R, a: A) => {
      const revision = revisionOf(r)
      if (revision !== undefined) tookRevision(queries, workspace, revision)
      done?.(r, a)
    },
    onError: fail,
    onSettled: () => askAgain(queries, workspace),
  })
}

/** Brings in what lies in a folder of the server's machine, as a job that the hem shows. */
export function useBringInFolder(workspace: number, done: () => void) {
  return useAct(
    workspace,
    ({ folder, plain }: { folder: string; plain: boolean }) => {
      const options = { params: { path: { workspace } }, body: { folder } }
      return got(
        plain
          ? api.POST('/api/workspaces/{workspace}/archives/plain-folder', options)
          : api.POST('/api/workspaces/{workspace}/archives/from-folder', options),
      )
    },
    done,
  )
}
