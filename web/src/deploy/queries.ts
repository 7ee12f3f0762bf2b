import { type QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { beside } from '../api/beside'
import { api, got, type Schema } from '../api/client'
import { Cancelled, finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'
import { isUnsure } from './unsure'

export function usePlan(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'plan'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/deploy/plan', { params: { path: { workspace } }, signal })),
  })
}

/** Where the game folder is not as it was deployed to. */
export function useDrift(workspace: number, thorough = false) {
  return useQuery({
    queryKey: of(workspace, 'drift', thorough),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/drift', {
          params: { path: { workspace }, query: { thorough } },
          signal,
        }),
      ),
  })
}

const FOLDER_STATE = 'folder-state'

/**
 * The same for every screen: looked for when a workspace is opened, and after whatever touches the
 * folder. Not with each answer that has become old: a look goes through all of its files.
 */
function useFolderState(workspace: number) {
  return useQuery({
    queryKey: [FOLDER_STATE, workspace],
    staleTime: Number.POSITIVE_INFINITY,
    ...beside((signal) =>
      got(
        api.GET('/api/workspaces/{workspace}/drift', {
          params: { path: { workspace }, query: { thorough: false } },
          signal,
        }),
      ),
    ),
  })
}

/** How many files are not as they were left there; what was set aside is out of the way. */
export function useDrifted(workspace: number): number {
  const groups = useFolderState(workspace).data?.groups ?? []
  return groups.filter((g) => g.cause !== 'SET_ASIDE').reduce((sum, g) => sum + g.inAll, 0)
}

export function lookAtFolderAgain(queries: QueryClient, workspace: number) {
  makeOld(queries, [FOLDER_STATE, workspace])
}

export type DriftAct = 'put-back' | 'own' | 'take' | 'left'

/** Does something about files to which the same has happened; without paths, about all of them. */
export function useDriftAct(
  workspace: number,
  done: (what: { act: DriftAct | 'tell-again'; archive?: number }) => void,
) {
  return useAct(
    workspace,
    async (wish: {
      act: DriftAct | 'tell-again'
      cause?: Schema['DriftGroup']['cause']
      paths?: string[]
      /** Whether they were found by reading every byte. */
      thorough?: boolean
    }): Promise<number | undefined> => {
      const params = { path: { workspace } }
      if (wish.act === 'tell-again' || !wish.cause) {
        await got(api.DELETE('/api/workspaces/{workspace}/drift/left', { params }))
        return undefined
      }
      const body = { cause: wish.cause, paths: wish.paths, thorough: wish.thorough }
      if (wish.act === 'take')
        return (await got(api.POST('/api/workspaces/{workspace}/drift/take', { params, body }))).archive
      if (wish.act === 'left') {
        await got(api.POST('/api/workspaces/{workspace}/drift/left', { params, body }))
        return undefined
      }
      const waiting = { params: { path: { workspace } }, body }
      await finished(
        got(
          wish.act === 'own'
            ? api.POST('/api/workspaces/{workspace}/drift/own', waiting)
            : api.POST('/api/workspaces/{workspace}/drift/put-back', waiting),
        ),
      )
      return undefined
    },
    (archive, wish) => done({ act: wish.act, archive }),
  )
}

/** Whether the game is another than the one that was taken in last, and what that means. */
export function useGameVersion(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'game-version'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/game-version', { params: { path: { workspace } }, signal })),
  })
}

/** Takes the game as it lies there for the unmodded game from now on. */
export function useTakeGameVersion(workspace: number, done: () => void) {
  const queries = useQueryClient()
  return useAct(
    workspace,
    async (body: Schema['TakeVersionRequest']) => {
      const params = { path: { workspace } }
      await finished(got(api.POST('/api/workspaces/{workspace}/game-version', { params, body })))
    },
    () => {
      lookAtFolderAgain(queries, workspace)
      done()
    },
  )
}

/** What was done to the game folder, the newest first. */
export function useHistory(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'deployments'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/deploy/history', { params: { path: { workspace } }, signal })),
  })
}

/** Arranges the profile as it was at a deployment. */
export function useGoBack(workspace: number, done: () => void) {
  return useArrange(
    workspace,
    (deployment: number, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/deploy/history/{deployment}/return', {
          params: { path: { workspace, deployment }, header },
        }),
      ),
    (r) => r.revision,
    done,
  )
}

/** Deploys, or takes everything out; resolves when it is over. */
export function useDeploy(workspace: number) {
  const queries = useQueryClient()
  const { say, fail } = useNotices()
  return useMutation({
    mutationFn: async (what: 'deploy' | 'undeploy' | 'bring-back') => {
      const params = { path: { workspace } }
      const query = { bringBack: what === 'bring-back' }
      return finished(
        got(
          what === 'deploy'
            ? api.POST('/api/workspaces/{workspace}/deploy', { params })
            : api.POST('/api/workspaces/{workspace}/deploy/undeploy', { params: { ...params, query } }),
        ),
      )
    },
    onSuccess: (_, what) =>
      say(
        what === 'deploy'
          ? 'Deployed. The game folder is as you arranged it.'
          : 'Taken out. The game is as it was before.',
      ),
    onError: (error) => {
      if (error instanceof Cancelled) say('Cancelled; the game folder is as it was.')
      // what waits for a word is asked on the screen
      else if (!isUnsure(error)) fail(error)
    },
    onSettled: () => makeOld(queries, of(workspace)),
  })
}
