import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useProfiles } from '../profiles/queries'
import { Button } from '../ui/Button'
import { Dialog } from '../ui/Dialog'
import { bytes, count, list, number } from '../ui/text'
import { useAct } from './queries'

/** How many of them are named. */
const NAMED = 12

/** Asks whether several mods are to go. */
export function RemoveModsDialog({
  workspace,
  mods,
  onClose,
  search,
}: {
  workspace: number
  mods: readonly Schema['ModView'][]
  onClose: () => void
  /** What the address of the library is to say behind its question mark. */
  search: string
}) {
  const [withArchive, setWithArchive] = useState(false)
  const profiles = useProfiles(workspace).data?.length ?? 1
  const { say } = useNotices()
  const go = useNavigate()
  const giveBack = useAct(workspace, async () => {
    // the last that went is the first to come: each finds its neighbours
    for (const m of [...mods].reverse()) {
      const params = { path: { workspace, mod: m.id } }
      await got(api.POST('/api/workspaces/{workspace}/bin/mods/{mod}/return', { params }))
    }
  })
  const remove = useAct(
    workspace,
    async () => {
      onClose()
      await go({ pathname: `/workspaces/${workspace}/library`, search }, { flushSync: true })
      return got(
        api.POST('/api/workspaces/{workspace}/library/remove', {
          params: { path: { workspace } },
          body: { mods: mods.map((m) => m.id), withArchive },
        }),
      )
    },
    () =>
      say(`${count(mods.length, 'mod')} in the bin.`, {
        label: 'Bring them back',
        run: () => giveBack.mutate(undefined),
      }),
  )
  const rest = mods.length - NAMED
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`Remove ${count(mods.length, 'mod')}`}
      says={`They go to the bin${profiles > 1 ? `, for all ${profiles} profiles,` : ''} and come back to their layers until the bin is emptied.`}
    >
      <div className="flex flex-col gap-2.5">
        <p className="max-h-40 overflow-y-auto break-words">
          {list([...mods.slice(0, NAMED).map((m) => m.name), ...(rest > 0 ? [`${number(rest)} more`] : [])])}.
        </p>
        <label className="flex items-baseline gap-2">
          <input type="checkbox" checked={withArchive} onChange={(e) => setWithArchive(e.target.checked)} />
          Their archives go too, where nothing else is made of them
        </label>
        <p className="text-ink-2">
          They take {bytes(mods.reduce((n, m) => n + m.sizeBytes, 0))} in the library, which emptying the bin
          frees.
        </p>
        <Button
          look="warning"
          className="self-start"
          disabled={remove.isPending}
          onClick={() => remove.mutate(undefined)}
        >
          Remove them
        </Button>
      </div>
    </Dialog>
  )
}
