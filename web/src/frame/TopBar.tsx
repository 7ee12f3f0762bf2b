import { BookOpen, History, Moon, Search, Sun, SunMoon, Undo2 } from 'lucide-react'
import { useSyncExternalStore } from 'react'
import { Link, useLocation } from 'react-router'
import { partFor } from '../guide/parts'
import { Button } from '../ui/Button'
import { Hint } from '../ui/Hint'
import { useOverview, useUndo } from './queries'
import { setTheme, type Theme, theme, watchTheme } from './theme'

export function Mark() {
  return (
    <Link
      to="/workspaces"
      className="flex items-center gap-2 font-bold tracking-[0.02em]"
      title="All workspaces"
    >
      <span className="size-3.5 rounded-[3px_12px_3px_3px] bg-woad" />
      Ironing
    </Link>
  )
}

function Key({ children }: { children: string }) {
  return (
    <kbd className="rounded border border-line border-b-2 bg-card px-1 font-mono text-[11px] text-ink-2">
      {children}
    </kbd>
  )
}

/** The bar at the top: where one is, finding anything, what would be undone. */
export function TopBar({ workspace, onFind }: { workspace: number; onFind: () => void }) {
  const overview = useOverview(workspace).data
  const { undoes, undo } = useUndo(workspace)
  const { pathname } = useLocation()
  return (
    <header className="flex h-12 shrink-0 items-center gap-3.5 border-line border-b bg-card px-4 max-lg:gap-2">
      <Mark />
      {overview && (
        <>
          <span
            className="min-w-16 max-w-[260px] truncate rounded-[7px] border border-line bg-paper px-2.5 py-1"
            title={overview.folder}
          >
            <b className="font-semibold">{overview.title}</b>
            {overview.version && <small className="ml-1.5 text-[11px] text-ink-2">{overview.version}</small>}
          </span>
          <Link
            to={`/workspaces/${workspace}/profiles`}
            title="Profiles: use another one, copy, compare"
            className="min-w-12 max-w-[220px] truncate rounded-[7px] border border-line bg-paper px-2.5 py-1 hover:border-line-2 max-lg:max-w-[130px] lg:shrink-0"
          >
            <small className="mr-1 text-[11px] text-ink-2 max-lg:sr-only">profile</small>{' '}
            <b className="font-semibold">{overview.profile}</b>
          </Link>
        </>
      )}
      <button
        type="button"
        onClick={onFind}
        className="ml-auto flex h-[30px] w-full min-w-[30px] max-w-[380px] items-center max-lg:w-[150px] gap-2 rounded-[7px] border border-line bg-card px-2.5 text-ink-3 hover:border-line-2"
      >
        <Search size={14} aria-hidden="true" />
        <span className="flex-1 truncate text-left max-sm:sr-only">Find a mod, plugin, record or action</span>
        <span className="max-lg:hidden">
          <Key>Ctrl K</Key>
        </span>
      </button>
      <Hint
        text={
          undoes ? 'Takes the last change back. Nothing is lost: it can be redone with Ctrl Shift Z.' : ''
        }
      >
        <Button onClick={undo} disabled={!undoes} className="min-w-0 max-w-[270px] bg-paper max-lg:shrink-0">
          <Undo2 size={14} className="shrink-0" aria-hidden="true" />
          <span className="truncate max-lg:sr-only">{undoes ?? 'Nothing to undo'}</span>
          {undoes && (
            <span className="max-lg:hidden">
              <Key>Ctrl Z</Key>
            </span>
          )}
        </Button>
      </Hint>
      <Hint text="Timeline: every change, and going back to any of them." side="bottom">
        <Link
          to={`/workspaces/${workspace}/timeline`}
          aria-label="Timeline"
          className="grid size-[30px] shrink-0 place-items-center rounded-[7px] text-ink-2 hover:bg-sunk hover:text-ink"
        >
          <History size={16} />
        </Link>
      </Hint>
      <Hint text="What the guide says about this screen." side="bottom">
        <Link
          to={`/workspaces/${workspace}/guide/${partFor(pathname)}`}
          aria-label="Guide to this screen"
          className="grid size-[30px] shrink-0 place-items-center rounded-[7px] text-ink-2 hover:bg-sunk hover:text-ink"
        >
          <BookOpen size={16} />
        </Link>
      </Hint>
      <ThemeButton />
    </header>
  )
}

const NEXT: Record<Theme, Theme> = { system: 'light', light: 'dark', dark: 'system' }
const SAYS: Record<Theme, string> = {
  system: 'Light or dark as this machine says',
  light: 'Light',
  dark: 'Dark',
}

export function ThemeButton() {
  const now = useSyncExternalStore(watchTheme, theme)
  const Icon = now === 'light' ? Sun : now === 'dark' ? Moon : SunMoon
  const change = () => setTheme(NEXT[now])
  return (
    <Hint text={`${SAYS[now]}. Click for: ${SAYS[NEXT[now]].toLowerCase()}.`} side="bottom">
      <Button look="quiet" onClick={change} aria-label={`Theme: ${SAYS[now]}`} icon>
        <Icon size={16} />
      </Button>
    </Hint>
  )
}
