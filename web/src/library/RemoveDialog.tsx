import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { differenceWords } from '../layers/sentence'
import { useMends } from '../mends/queries'
import { SavesNote } from '../mends/SavesNote'
import { useProfiles } from '../profiles/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Failed, Loading } from '../ui/States'
import { bytes, list } from '../ui/text'
import { useAct, useRemoval } from './queries'

interface RemoveDialogProps {
  workspace: number
  mod: Pick<Schema['ModView'], 'id' | 'name' | 'plugins'>
  onClose: () => void
  /** What the address of the library is to say behind its question mark. */
  search?: string
}

/** Asks whether a mod is to go, and says what that would mean. */
export function RemoveDialog({ workspace, mod: m, onClose, search = '' }: RemoveDialogProps) {
  const [archive, setArchive] = useState(false)
  const removal = useRemoval(workspace, m.id, true)
  const go = useNavigate()
  const { say } = useNotices()
  const path = { workspace, mod: m.id }
  const giveBack = useAct(workspace, () =>
    got(api.POST('/api/workspaces/{workspace}/bin/mods/{mod}/return', { params: { path } })),
  )
  const profiles = useProfiles(workspace).data?.length ?? 1
  const madeOfIt =
    useMends(workspace).data?.filter((x) => x.ingredients.some((i) => m.plugins.includes(i.plugin))) ?? []
  const remove = useAct(
    workspace,
    async () => {
      // away from it first: nobody asks for a mod that is gone
      onClose()
      await go({ pathname: `/workspaces/${workspace}/library`, search }, { flushSync: true })
      return got(
        api.DELETE('/api/workspaces/{workspace}/mods/{mod}', { params: { path, query: { archive } } }),
      )
    },
    () =>
      say(`“${m.name}” lies in the bin.`, { label: 'Bring it back', run: () => giveBack.mutate(undefined) }),
  )
  const r = removal.data
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Remove ${m.name}`}
      says={`It goes to the bin${profiles > 1 ? `, for all ${profiles} profiles,` : ''} and comes back to its layer until the bin is emptied.`}
    >
      {removal.isPending ? (
        <Loading what="what that would mean" />
      ) : removal.isError || !r ? (
        <Failed error={removal.error} retry={() => removal.refetch()} />
      ) : (
        <div className="flex flex-col gap-2.5">
          <p>{differenceWords(r.game, 'would')}</p>
          {r.neededBy.length > 0 && (
            <p className="text-ochre">
              {list(r.neededBy)} {r.neededBy.length === 1 ? 'needs' : 'need'} it.
            </p>
          )}
          {madeOfIt.length > 0 && (
            <p className="text-ochre">
              {list(madeOfIt.map((x) => x.name))} {madeOfIt.length === 1 ? 'is' : 'are'} made of it, and{' '}
              {madeOfIt.length === 1 ? 'becomes' : 'become'} stale.
            </p>
          )}
          {m.plugins.length > 0 && <SavesNote workspace={workspace} plugins={m.plugins} />}
          {r.archiveBytes > 0 &&
            (r.archiveShared ? (
              <p className="text-ink-2">Its archive stays: other mods are made of it.</p>
            ) : (
              <label className="flex items-baseline gap-2">
                <input type="checkbox" checked={archive} onChange={(e) => setArchive(e.target.checked)} />
                <span>
                  Its archive goes too <span className="num text-ink-2">({bytes(r.archiveBytes)})</span>
                </span>
              </label>
            ))}
          <p className="text-ink-2">
            Emptying the bin then frees{' '}
            {bytes(r.modBytes + (archive && !r.archiveShared ? r.archiveBytes : 0))}.
          </p>
          <Button
            look="warning"
            className="self-start"
            disabled={remove.isPending}
            onClick={() => remove.mutate(undefined)}
          >
            Remove it
          </Button>
        </div>
      )}
    </Dialog>
  )
}
