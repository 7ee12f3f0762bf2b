import { Stethoscope } from 'lucide-react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { useWorkspace } from '../frame/workspace'
import { useRun, useRuns } from '../test-run/queries'
import { Aside, AsidePart } from '../ui/Aside'
import { Screen, Waiting } from '../ui/Screen'
import { Empty } from '../ui/States'
import { when } from '../ui/text'
import { namedIn } from './faults'
import { NameFault } from './NameFault'
import { type SearchLine, useSearches } from './queries'
import { LEVEL_NAMES, STATES } from './words'

/** Naming what is wrong, seeing who is suspected, and beginning a search for what causes it. */
export function TroubleView() {
  const workspace = useWorkspace()
  const [at] = useSearchParams()
  const go = useNavigate()
  const searches = useSearches(workspace)
  const runs = useRuns(workspace)
  const asked = Number(at.get('run'))
  const shown = asked > 0 ? asked : (runs.data?.runs.find((r) => r.state !== 'RUNNING')?.id ?? null)
  const run = useRun(workspace, shown)
  const all = searches.data ?? []
  const open = all.find((s) => s.state === 'SEARCHING' || s.state === 'RESTING')
  if (!searches.data || !runs.data || (shown !== null && run.isPending))
    return <Waiting title="Trouble" what="what is known of the fault" queries={[searches, runs, run]} />
  return (
    <Screen
      title="Trouble"
      says="From a fault in the game to the mods, the file and the record that cause it"
      aside={<Searches workspace={workspace} searches={all} />}
    >
      {open ? (
        <div className="card flex-1">
          <Empty icon={Stethoscope} title="A search is not over yet">
            {open.fault.says.replace(/([^.!?])$/, '$1.')}{' '}
            <Link to={`/workspaces/${workspace}/trouble/${open.id}`} className="text-woad underline">
              Go to it
            </Link>
            . The game folder has one search at a time.
          </Empty>
        </div>
      ) : (
        <NameFault
          key={`${shown} ${at.get('named') ?? ''}`}
          workspace={workspace}
          run={run.data}
          startable={runs.data.startable}
          named={namedIn(at)}
          onBegun={(s) => go(`/workspaces/${workspace}/trouble/${s.search.id}`)}
        />
      )}
    </Screen>
  )
}

function Searches({ workspace, searches }: { workspace: number; searches: readonly SearchLine[] }) {
  return (
    <Aside label="Searches">
      <h2>Searches</h2>
      <p className="mt-1 text-ink-2">
        Sets of your mods are tried on a profile of their own. Yours, and the game folder, are afterwards as
        they were.
      </p>
      <AsidePart title={searches.length === 0 ? 'None yet' : 'The newest first'}>
        <ul>
          {searches.map((s) => (
            <li key={s.id}>
              <Link
                to={`/workspaces/${workspace}/trouble/${s.id}`}
                className="block rounded px-2 py-1 hover:bg-sunk"
              >
                <span className="block break-words">{s.fault.says}</span>
                <span className="block text-[11.5px] text-ink-2">
                  {s.fault.kind !== 'COSTS' && `${LEVEL_NAMES[s.level]}: `}
                  {STATES[s.state]}, {when(s.begunAt)}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </AsidePart>
    </Aside>
  )
}
