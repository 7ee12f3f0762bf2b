import { FolderOpen } from 'lucide-react'
import { useEffect, useState } from 'react'
import { Formats } from '../formats/Formats'
import { MAIN, screenDrawn } from '../frame/focus'
import { Mark, ThemeButton } from '../frame/TopBar'
import { useScreenTitle } from '../frame/title'
import { Empty, Failed, Loading } from '../ui/States'
import { FindGames } from './FindGames'
import { NewWorkspace } from './NewWorkspace'
import { useWorkspaces } from './queries'
import { SampleGame } from './SampleGame'
import { SixSteps } from './SixSteps'
import { WorkspaceList } from './WorkspaceList'

/** All workspaces, and the ways to one more; where there is none yet, what there is to do. */
export function WorkspacesView() {
  const workspaces = useWorkspaces()
  const [chosen, choose] = useState('')
  useEffect(screenDrawn, [])
  useScreenTitle('Workspaces')
  const none = workspaces.data?.length === 0
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-12 shrink-0 items-center border-line border-b bg-card px-4">
        <Mark />
        <span className="ml-auto">
          <ThemeButton />
        </span>
      </header>
      <main
        id={MAIN}
        tabIndex={-1}
        className="mx-auto grid w-full max-w-[1120px] flex-1 content-start gap-4 overflow-y-auto px-6 py-8 outline-none lg:grid-cols-2"
      >
        <div className="flex flex-col gap-4">
          <section className="card flex flex-col">
            <h1 className="px-5 pt-4">Workspaces</h1>
            <p className="px-5 pb-2 text-ink-2">
              One game on this machine, with everything that belongs to it.
            </p>
            {workspaces.isPending && <Loading what="workspaces" />}
            {workspaces.isError && <Failed error={workspaces.error} retry={() => workspaces.refetch()} />}
            {none && (
              <Empty icon={FolderOpen} title="No game yet">
                Look for your games, or name the folder of one. Nothing in it is changed before you deploy.
              </Empty>
            )}
            {workspaces.data && workspaces.data.length > 0 && <WorkspaceList workspaces={workspaces.data} />}
          </section>
          {workspaces.data && <SampleGame />}
          <Formats />
          {none && <SixSteps />}
        </div>
        <div className="flex flex-col gap-4 self-start">
          <FindGames onChoose={choose} />
          <NewWorkspace key={chosen} chosen={chosen} />
        </div>
      </main>
    </div>
  )
}
