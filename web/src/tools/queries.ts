import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { Cancelled, finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'
import { of } from '../frame/workspace'
import { useAct } from '../library/queries'

export function useTools(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'tools'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/tools', { params: { path: { workspace } }, signal })),
  })
}

export function useToolRuns(workspace: number, tool: number) {
  return useQuery({
    queryKey: of(workspace, 'tool-runs', tool),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/tools/{tool}/runs', {
          params: { path: { workspace, tool } },
          signal,
        }),
      ),
  })
}

export function useToolRun(workspace: number, run: number | undefined) {
  return useQuery({
    queryKey: of(workspace, 'tool-run', run),
    enabled: run !== undefined,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/tools/runs/{run}', {
          params: { path: { workspace, run: run as number } },
          signal,
        }),
      ),
  })
}

/** Adds a tool, or changes the one with this number. */
export function useSaveTool(workspace: number, done: (tool: number) => void) {
  return useAct(
    workspace,
    ({ tool, body }: { tool?: number; body: Schema['ToolRequest'] }) =>
      tool === undefined
        ? got(api.POST('/api/workspaces/{workspace}/tools', { params: { path: { workspace } }, body }))
        : got(
            api.PUT('/api/workspaces/{workspace}/tools/{tool}', {
              params: { path: { workspace, tool } },
              body,
            }),
          ),
    (made) => done(made.tool),
  )
}

export function useRemoveTool(workspace: number, done: () => void) {
  return useAct(
    workspace,
    (tool: number) =>
      got(api.DELETE('/api/workspaces/{workspace}/tools/{tool}', { params: { path: { workspace, tool } } })),
    done,
  )
}

/** Runs a tool; resolves when what it wrote is taken in and deployed. */
export function useRunTool(workspace: number) {
  const queries = useQueryClient()
  const { say, fail } = useNotices()
  return useMutation({
    mutationFn: async (tool: number) => {
      const job = await finished(
        got(
          api.POST('/api/workspaces/{workspace}/tools/{tool}/run', {
            params: { path: { workspace, tool } },
          }),
        ),
      )
      return got(
        api.GET('/api/workspaces/{workspace}/tools/runs/{run}', {
          params: { path: { workspace, run: job.result as number } },
        }),
      )
    },
    onSuccess: (run) => say(run.why || 'What it wrote is taken in and deployed.'),
    onError: (error) => (error instanceof Cancelled ? say('Stopped; nothing was taken in.') : fail(error)),
    onSettled: () => makeOld(queries, of(workspace)),
  })
}
