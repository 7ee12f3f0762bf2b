import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { finished } from '../frame/jobs'
import { useNotices } from '../frame/Notices'
import { useJobs } from '../frame/queries'
import { of } from '../frame/workspace'

export type FaultRequest = Schema['FaultRequest']
export type Search = Schema['SearchView']
export type SearchLine = Schema['SearchLine']
export type Part = Schema['PartView']
export type Try = Schema['TryView']
export type Answer = Try['answer']
export type Suspects = Schema['SuspectsView']
export type Reason = Schema['SuspectView']['reasons'][number]

export function useSearches(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'searches'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/searches', { params: { path: { workspace } }, signal })),
  })
}

export function useSearch(workspace: number, search: number) {
  return useQuery({
    queryKey: of(workspace, 'search', search),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/searches/{search}', {
          params: { path: { workspace, search } },
          signal,
        }),
      ),
  })
}

/**
 * Whether a search tries sets by itself now, this one or one inside of it, or the game folder is made as it was
 * before one.
 */
export function useGoesOn(workspace: number): boolean {
  const jobs = useJobs(workspace).data ?? []
  return jobs.some((j) => (j.kind === 'search' || j.kind === 'search-end') && j.state === 'RUNNING')
}

/** Who is suspected of a fault; nothing is asked while none is named. */
export function useSuspects(workspace: number, fault: FaultRequest | null) {
  return useQuery({
    enabled: fault !== null,
    queryKey: of(workspace, 'suspects', fault),
    queryFn: ({ signal }) =>
      got(
        api.POST('/api/workspaces/{workspace}/suspects', {
          params: { path: { workspace } },
          body: fault as FaultRequest,
          signal,
        }),
      ),
  })
}

/** Whatever is done to a search; what it shows is asked for anew. */
function useSearchAct<A, R>(workspace: number, act: (a: A) => Promise<R>, done?: (r: R) => void) {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: act,
    onSuccess: done,
    onError: fail,
    onSettled: () => {
      queries.invalidateQueries({ queryKey: of(workspace, 'searches') })
      queries.invalidateQueries({ queryKey: of(workspace, 'search') })
    },
  })
}

export function useBegin(workspace: number, done: (s: Search) => void) {
  return useSearchAct(
    workspace,
    (body: Schema['SearchRequest']) =>
      got(api.POST('/api/workspaces/{workspace}/searches', { params: { path: { workspace } }, body })),
    done,
  )
}

/** Begins to measure what a mod costs. */
export function useMeasure(workspace: number, done: (s: Search) => void) {
  return useSearchAct(
    workspace,
    (body: Schema['MeasureRequest']) =>
      got(api.POST('/api/workspaces/{workspace}/measurements', { params: { path: { workspace } }, body })),
    done,
  )
}

export function useAnswer(workspace: number, search: number) {
  return useSearchAct(workspace, (answer: Answer) =>
    got(
      api.POST('/api/workspaces/{workspace}/searches/{search}/answers', {
        params: { path: { workspace, search } },
        body: { answer },
      }),
    ),
  )
}

export function useTakeBack(workspace: number, search: number) {
  return useSearchAct(workspace, (answer: number) =>
    got(
      api.DELETE('/api/workspaces/{workspace}/searches/{search}/answers/{answer}', {
        params: { path: { workspace, search, answer } },
      }),
    ),
  )
}

export function useInside(workspace: number, search: number, done: (s: Search) => void) {
  return useSearchAct(
    workspace,
    () =>
      got(
        api.POST('/api/workspaces/{workspace}/searches/{search}/inside', {
          params: { path: { workspace, search } },
        }),
      ),
    done,
  )
}

/** Writes what was found down as a finding of the user's. */
export function useWriteFinding(workspace: number, search: number, done: () => void) {
  return useSearchAct(
    workspace,
    () =>
      got(
        api.POST('/api/workspaces/{workspace}/searches/{search}/finding', {
          params: { path: { workspace, search } },
        }),
      ),
    done,
  )
}

/** What a mod's author has to know, asked for once it is to be shown. */
export function useQuestion(workspace: number, search: number, asked: boolean) {
  return useQuery({
    enabled: asked,
    queryKey: of(workspace, 'search', search, 'question'),
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/searches/{search}/question', {
          params: { path: { workspace, search } },
          signal,
        }),
      ),
  })
}

/** Work on a search that goes on after its request: its end is heard. */
export function useSearchWork(workspace: number, search: number) {
  const path = { params: { path: { workspace, search } } }
  return {
    play: useSearchAct(workspace, () =>
      finished(got(api.POST('/api/workspaces/{workspace}/searches/{search}/play', path))),
    ),
    // it ends when the search does: nobody waits for that
    goOn: useSearchAct(workspace, () =>
      got(api.POST('/api/workspaces/{workspace}/searches/{search}/go-on', path)),
    ),
    rest: useSearchAct(workspace, () =>
      got(api.POST('/api/workspaces/{workspace}/searches/{search}/rest', path)),
    ),
    leave: useSearchAct(workspace, () =>
      got(api.DELETE('/api/workspaces/{workspace}/searches/{search}', path)),
    ),
  }
}
