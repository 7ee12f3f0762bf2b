import { useEffect, useState } from 'react'
import { Outlet, useParams } from 'react-router'
import { Failed } from '../ui/States'
import { Hem } from './Hem'
import { useLive } from './live'
import { Palette } from './Palette'
import { useOverview, useUndo } from './queries'
import { Rail } from './Rail'
import { TopBar } from './TopBar'
import { WorkspaceContext } from './workspace'

/** What every screen of a workspace shares: the bar, the rail, the hem, and the keys that work everywhere. */
export function Shell() {
  const { workspace: address } = useParams()
  const workspace = Number(address)
  return (
    <WorkspaceContext value={workspace}>
      <Frame key={workspace} workspace={workspace} />
    </WorkspaceContext>
  )
}

function Frame({ workspace }: { workspace: number }) {
  const heard = useLive(workspace)
  const overview = useOverview(workspace)
  const [palette, setPalette] = useState(false)
  useKeys(workspace, () => setPalette(true))
  const title = overview.data?.title
  useEffect(() => {
    document.title = title ? `${title} · Ironing` : 'Ironing'
  }, [title])
  return (
    <div className="flex h-full flex-col">
      <TopBar workspace={workspace} onFind={() => setPalette(true)} />
      <div className="flex min-h-0 flex-1">
        <Rail workspace={workspace} />
        {overview.isError && !overview.data ? (
          <main className="flex-1">
            <Failed error={overview.error} retry={() => overview.refetch()} />
          </main>
        ) : (
          <Outlet />
        )}
      </div>
      <Hem workspace={workspace} heard={heard} />
      <Palette workspace={workspace} open={palette} onOpenChange={setPalette} />
    </div>
  )
}

/** Ctrl K finds, Ctrl Z undoes, Ctrl Shift Z does again; in a field they are the field's. */
function useKeys(workspace: number, find: () => void) {
  const { undo, redo, redoes } = useUndo(workspace)
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey) return
      const letter = e.key.toLowerCase()
      if (letter === 'k') {
        e.preventDefault()
        find()
        return
      }
      const field = (e.target as HTMLElement).closest('input, textarea, [contenteditable]')
      if (letter !== 'z' || field) return
      e.preventDefault()
      if (e.shiftKey && redoes) redo()
      // asked for even where nothing is known to be undone: the page may not have heard of the last change yet
      if (!e.shiftKey) undo()
    }
    window.addEventListener('keydown', key)
    return () => window.removeEventListener('keydown', key)
  })
}
