import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { Button } from '../ui/Button'
import { copyAct, useCopy } from '../ui/copy'
import { Dialog } from '../ui/Dialog'
import { ContextMenu, Menu, type MenuAct } from '../ui/Menu'
import { count } from '../ui/text'
import { useRemoveSample, useSample } from './queries'
import { RemoveDialog } from './RemoveDialog'

/** The workspaces that there are, and what can be done with each. */
export function WorkspaceList({ workspaces }: { workspaces: readonly Schema['WorkspaceView'][] }) {
  const [leaving, setLeaving] = useState<Schema['WorkspaceView'] | null>(null)
  const [asking, setAsking] = useState(false)
  const go = useNavigate()
  const copy = useCopy()
  const sample = useSample().data
  const removeSample = useRemoveSample()
  const actsOf = (w: Schema['WorkspaceView']): readonly MenuAct[] => [
    { label: 'Open it', run: () => go(`/workspaces/${w.id}`) },
    { label: 'Definition of the game', run: () => go(`/workspaces/${w.id}/definition`) },
    copyAct(copy, 'the folder', w.folder),
    null,
    sample?.workspace === w.id
      ? { label: 'Remove the sample game …', run: () => setAsking(true) }
      : { label: 'Delete it …', run: () => setLeaving(w) },
  ]
  return (
    <>
      <ul className="pb-2">
        {workspaces.map((w) => (
          <ContextMenu key={w.id} acts={() => actsOf(w)}>
            <li className="flex items-center border-line border-t pr-3 hover:bg-sunk">
              <Link to={`/workspaces/${w.id}`} className="flex min-w-0 flex-1 flex-col px-5 py-3">
                <span>
                  <b className="font-semibold text-[14px]">{w.title}</b>
                  {w.version && <small className="ml-2 text-ink-2">{w.version}</small>}
                  <small className="ml-2 text-ink-2">{count(w.mods, 'mod')}</small>
                  {sample?.workspace === w.id && (
                    <small className="ml-2 text-ink-2">a sample to try out</small>
                  )}
                </span>
                <span className="mono truncate text-ink-3" title={w.folder}>
                  {w.folder}
                </span>
              </Link>
              <Menu label={`More for ${w.title}`} acts={actsOf(w)} />
            </li>
          </ContextMenu>
        ))}
      </ul>
      <Dialog
        open={asking}
        onOpenChange={setAsking}
        title="Remove the sample game"
        says="Its workspace, its mods and its folder go, with all that you have done there. It can be brought in anew, as it was at first."
      >
        <Button
          look="warning"
          onClick={() => {
            setAsking(false)
            removeSample.mutate(undefined)
          }}
        >
          Remove it
        </Button>
      </Dialog>
      {leaving && (
        <RemoveDialog workspace={leaving.id} title={leaving.title} onClose={() => setLeaving(null)} />
      )}
    </>
  )
}
