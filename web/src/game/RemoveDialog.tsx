import { useState } from 'react'
import type { Schema } from '../api/client'
import { UndeployingRefused } from '../deploy/UndeployingRefused'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { Failed, Loading } from '../ui/States'
import { bytes, count } from '../ui/text'
import { useRemoval, useRemoveWorkspace } from './queries'

/** Deleting a workspace: what becomes of the game, of the library and of its archives. */
export function RemoveDialog({
  workspace,
  title,
  onClose,
}: {
  workspace: number
  title: string
  onClose: () => void
}) {
  const removal = useRemoval(workspace)
  const remove = useRemoveWorkspace(onClose)
  return (
    <Dialog open onOpenChange={(open) => !open && !remove.isPending && onClose()} title={`Delete “${title}”`}>
      {removal.isPending ? (
        <Loading what="what it would do" />
      ) : removal.data ? (
        <Removal
          view={removal.data}
          busy={remove.isPending}
          onRemove={(keepArchives) =>
            remove.mutate({
              workspace,
              keepArchives,
              leaveFolder: !removal.data.folderThere,
              bringBack: false,
            })
          }
        />
      ) : (
        <Failed error={removal.error} retry={() => removal.refetch()} />
      )}
      {remove.error && (
        <UndeployingRefused
          workspace={workspace}
          error={remove.error}
          act="Bring them back, and delete it"
          busy={remove.isPending}
          onBringBack={() => remove.variables && remove.mutate({ ...remove.variables, bringBack: true })}
        />
      )}
    </Dialog>
  )
}

function Removal(props: {
  view: Schema['RemovalView']
  busy: boolean
  onRemove: (keepArchives: boolean) => void
}) {
  const { view: v, busy } = props
  const [keep, setKeep] = useState(true)
  return (
    <>
      <ul className="flex list-disc flex-col gap-1.5 pl-5">
        <li>
          {!v.folderThere ? (
            <span className="text-ochre">
              The game folder is not there: what is deployed in it stays. Connect its drive first to have it
              taken out.
            </span>
          ) : v.deployed > 0 ? (
            `${count(v.deployed, 'deployed file')} ${v.deployed === 1 ? 'is' : 'are'} taken out of the game folder first; the game is as it was then.`
          ) : (
            'Nothing is deployed: the game folder is left alone.'
          )}
          <span className="mono block break-all text-ink-2">{v.folder}</span>
        </li>
        <li>
          Its library goes: {count(v.mods, 'mod')}, with {count(v.profiles, 'profile')}, rules and the
          timeline.
          <span className="mono block break-all text-ink-2">{v.libraryFolder}</span>
        </li>
        {v.settings > 0 && (
          <li>
            {count(v.settings, 'copy', 'copies')} of settings of its profiles{' '}
            {v.settings === 1 ? 'is' : 'are'} written to .ironing/settings of the game folder. Saves of
            profiles stay there too.
          </li>
        )}
      </ul>
      {v.archivesTo !== undefined && (
        <label className="mt-3 flex items-baseline gap-2">
          <input
            type="checkbox"
            className="translate-y-[1px] accent-(--woad)"
            checked={keep}
            onChange={(e) => setKeep(e.target.checked)}
          />
          <span>
            Keep its {count(v.archives, 'archive')} ({bytes(v.archiveBytes)}), under their names, in
            <span className="mono block break-all text-ink-2">{v.archivesTo}</span>
          </span>
        </label>
      )}
      <p className="mt-4 flex items-center gap-3">
        <Button
          look="strong"
          disabled={busy}
          onClick={() => props.onRemove(v.archivesTo !== undefined && keep)}
        >
          {busy ? 'Deleting …' : 'Delete it'}
        </Button>
        <span className="text-ink-2">This cannot be undone.</span>
      </p>
    </>
  )
}
