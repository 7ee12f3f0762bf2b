import { useEffect, useState } from 'react'
import { Outlet, useParams } from 'react-router'
import { Refused } from '../api/client'
import { Dropping } from '../library/Dropping'
import { Waiting } from '../ui/Screen'
import { focusMain, MAIN } from './focus'
import { Hem } from './Hem'
import { KeysDialog } from './KeysDialog'
import { useLive } from './live'
import { Palette } from './Palette'
import { useOverview, useUndo } from './queries'
import { Rail } from './Rail'
import { TopBar } from './TopBar'
import { useWorkspaceTitle } from './title'
import { WorkspaceContext } from './workspace'

/** What every screen of a workspace shares: the bar, the rail, the hem, and the keys that work everywhere. */
export function Shell() {
  const { workspace: address } = useParams()
  const workspace = Number(address)
  return (
    <WorkspaceContext value={workspace}>
      <div className="flex h-full flex-col">
        <Frame key={workspace} workspace={workspace} />
      </div>
    </WorkspaceContext>
  )
}

function Frame({ workspace }: { workspace: number }) {
  const heard = useLive(workspace)
  const overview = useOverview(workspace)
  const [palette, setPalette] = useState(false)
  const [keys, setKeys] = useState(false)
  useKeys(
    workspace,
    () => setPalette(true),
    () => setKeys(true),
  )
  useWorkspaceTitle(overview.data?.title)
  // whatever else fails is told by the screen that needs it
  const missing = overview.error instanceof Refused && overview.error.status === 404 && !overview.data
  return (
    <>
      <SkipLink />
      <TopBar workspace={workspace} onFind={() => setPalette(true)} />
      <div className="flex min-h-0 flex-1">
        <Rail workspace={workspace} />
        {missing ? (
          <Waiting title="Workspace" what="the workspace" queries={[overview]} />
        ) : (
          <Dropping workspace={workspace}>
            <Outlet />
          </Dropping>
        )}
      </div>
      <Hem workspace={workspace} heard={heard} />
      <Palette workspace={workspace} open={palette} onOpenChange={setPalette} onKeys={() => setKeys(true)} />
      {keys && <KeysDialog onClose={() => setKeys(false)} />}
    </>
  )
}

/** For the keyboard: past the bar and the rail. */
function SkipLink() {
  return (
    <button
      type="button"
      onClick={focusMain}
      className="sr-only focus-visible:not-sr-only focus-visible:absolute focus-visible:top-2 focus-visible:left-2 focus-visible:z-50 focus-visible:rounded-[7px] focus-visible:bg-strong focus-visible:px-3 focus-visible:py-1.5 focus-visible:text-on-strong"
    >
      To the content
    </button>
  )
}

/** Ctrl K finds, Ctrl Z undoes, Ctrl Shift Z redoes, / searches, ? tells the keys; in a field they are the field's. */
function useKeys(workspace: number, find: () => void, tell: () => void) {
  const { undo, redo, redoes } = useUndo(workspace)
  useEffect(() => {
    const key = (e: KeyboardEvent) => {
      const field = (e.target as HTMLElement).closest('input, textarea, select, [contenteditable]')
      if (e.key === '?' && !field && !e.ctrlKey && !e.metaKey && !e.altKey) {
        e.preventDefault()
        tell()
        return
      }
      if (e.key === '/' && !field && !e.ctrlKey && !e.metaKey && !e.altKey) {
        const search = document.querySelector<HTMLInputElement>(`#${MAIN} input[type=search]`)
        if (!search) return
        e.preventDefault()
        search.focus()
        search.select()
        return
      }
      if (!(e.ctrlKey || e.metaKey) || e.altKey) return
      const letter = e.key.toLowerCase()
      if (letter === 'k') {
        e.preventDefault()
        find()
        return
      }
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
