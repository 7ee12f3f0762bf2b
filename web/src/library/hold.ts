import { api, got } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { differenceWords } from '../layers/sentence'
import { useArrange } from './queries'

/** Holds files of a mod back from the game, or lets them in again. */
export function useHold(workspace: number, mod: number) {
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  return useArrange(
    workspace,
    (body: { paths: string[]; hold: boolean }, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/mods/{mod}/held-back', {
          params: { path: { workspace, mod }, header },
          body,
        }),
      ),
    (d) => d.revision,
    (d, { hold }) =>
      say(`${hold ? 'Held back, in this profile.' : 'Let in again.'} ${differenceWords(d, 'does')}`, {
        label: 'Undo',
        run: undo,
      }),
  )
}
