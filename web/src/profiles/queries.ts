import { useQuery } from '@tanstack/react-query'
import { api, got, type Schema } from '../api/client'
import { of } from '../frame/workspace'
import { useAct, useArrange } from '../library/queries'

export function useProfiles(workspace: number) {
  return useQuery({
    queryKey: of(workspace, 'profiles'),
    queryFn: ({ signal }) =>
      got(api.GET('/api/workspaces/{workspace}/profiles', { params: { path: { workspace } }, signal })),
  })
}

export function useProfileComparison(workspace: number, profile: number | null) {
  return useQuery({
    queryKey: of(workspace, 'profile-comparison', profile),
    enabled: profile !== null,
    queryFn: ({ signal }) =>
      got(
        api.GET('/api/workspaces/{workspace}/profiles/{profile}/comparison', {
          params: { path: { workspace, profile: profile as number } },
          signal,
        }),
      ),
  })
}

type Part = NonNullable<Schema['CarryRequest']['parts']>[number]

export interface Carry {
  from: number
  mods: number[]
  parts: Part[]
}

/** Taking over from another profile what was ticked. */
export function useCarryOver(workspace: number, done: (d: Schema['DifferenceView']) => void) {
  return useArrange(
    workspace,
    (body: Carry, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/profiles/carry-over', {
          params: { path: { workspace }, query: {}, header },
          body,
        }),
      ),
    (d) => d.revision,
    done,
  )
}

/** Making, renaming, deleting and taking profiles into use. */
export function useProfileActs(workspace: number) {
  const path = { workspace }
  return {
    create: useAct(workspace, (body: Schema['NewProfile']) =>
      got(api.POST('/api/workspaces/{workspace}/profiles', { params: { path }, body })),
    ),
    rename: useAct(workspace, ({ id, name }: { id: number; name: string }) =>
      got(
        api.PUT('/api/workspaces/{workspace}/profiles/{profile}', {
          params: { path: { ...path, profile: id } },
          body: { name },
        }),
      ),
    ),
    bringBack: useAct(workspace, (id: number) =>
      got(
        api.POST('/api/workspaces/{workspace}/profiles/{profile}/bring-back', {
          params: { path: { ...path, profile: id } },
        }),
      ),
    ),
  }
}

export function useDeleteProfile(workspace: number, done: (id: number) => void) {
  return useAct(
    workspace,
    (id: number) =>
      got(
        api.DELETE('/api/workspaces/{workspace}/profiles/{profile}', {
          params: { path: { workspace, profile: id } },
        }),
      ),
    (_r, id) => done(id),
  )
}

export function useTakeProfile(workspace: number, done: (d: Schema['DifferenceView']) => void) {
  return useAct(
    workspace,
    (id: number) =>
      got(
        api.POST('/api/workspaces/{workspace}/profiles/{profile}/use', {
          params: { path: { workspace, profile: id }, query: {} },
        }),
      ),
    (d) => done(d),
  )
}
