import clsx from 'clsx'
import { NavLink } from 'react-router'
import { useOverview } from './queries'
import { viewsOf } from './views'

const PLACES_OF: Record<string, readonly string[]> = {
  library: ['LIBRARY'],
  catalogue: ['MISSING'],
  layers: ['LAYERS'],
  'load-order': ['LOAD_ORDER'],
  records: ['RECORDS'],
  mends: ['MENDS', 'COMBINE_FILES'],
  deploy: ['DEPLOY', 'GAME_VERSION'],
  tools: ['TOOLS'],
}

/** The screens of a workspace, each with the number of wrinkles that wait there. */
export function Rail({ workspace }: { workspace: number }) {
  const overview = useOverview(workspace).data
  const wrinkles = overview?.wrinkles ?? []
  return (
    <nav
      aria-label="Screens"
      className="flex w-[84px] shrink-0 max-lg:w-14 flex-col gap-[3px] overflow-y-auto border-line border-r bg-card px-2 py-2.5"
    >
      {viewsOf(overview?.steps).map((v) => {
        const here = wrinkles.filter(
          (w) => PLACES_OF[v.path]?.includes(w.place) && w.weight !== 'HINT',
        ).length
        return (
          <NavLink
            key={v.path}
            to={v.path ? `/workspaces/${workspace}/${v.path}` : `/workspaces/${workspace}`}
            end={v.path === ''}
            title={v.about}
            className={({ isActive }) =>
              clsx(
                'relative flex flex-col items-center gap-1 rounded-[9px] px-0.5 pt-2 pb-1.5 text-center text-[11px] leading-tight',
                isActive ? 'bg-woad-soft font-semibold text-woad' : 'text-ink-2 hover:bg-sunk hover:text-ink',
              )
            }
          >
            <v.icon size={20} strokeWidth={1.6} aria-hidden="true" />
            <span className="max-lg:sr-only">{v.name}</span>
            {here > 0 && (
              <span className="absolute top-1 right-2 rounded-lg bg-ochre px-[5px] font-semibold text-[10px] text-card leading-[15px]">
                {here}
                <span className="sr-only">{here === 1 ? ' wrinkle' : ' wrinkles'}</span>
              </span>
            )}
          </NavLink>
        )
      })}
    </nav>
  )
}
