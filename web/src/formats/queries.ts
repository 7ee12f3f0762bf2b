import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { api, got } from '../api/client'
import { useNotices } from '../frame/Notices'
import { makeOld } from '../frame/old'

/** The jars in the folder of formats. */
export function useFormats() {
  return useQuery({
    queryKey: ['formats'],
    queryFn: ({ signal }) => got(api.GET('/api/formats', { signal })),
  })
}

/** Takes a jar into use. */
export function useConfirmFormat() {
  const queries = useQueryClient()
  const { say } = useNotices()
  return useMutation({
    mutationFn: (sha256: string) => got(api.POST('/api/formats/confirm', { body: { sha256 } })),
    onSuccess: (jar) => say(`${jar.name} is in use: ${jar.formats.join(', ')}.`),
    onSettled: () => makeOld(queries, ['formats']),
  })
}

/** Takes a jar out of use. */
export function useForgetFormat() {
  const queries = useQueryClient()
  const { fail } = useNotices()
  return useMutation({
    mutationFn: (sha256: string) =>
      got(api.DELETE('/api/formats/{sha256}', { params: { path: { sha256 } } })),
    onError: fail,
    onSettled: () => makeOld(queries, ['formats']),
  })
}
