import { CircleCheck, OctagonX, Play, Square } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { distanceWords } from '../frame/Hem'
import { useNotices } from '../frame/Notices'
import { useDeployStatus, useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Screen, Waiting } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count, duration, when } from '../ui/text'
import { useLines } from './lines'
import { useReturnToRun, useRun, useRuns, useStartRun, useStopRun } from './queries'
import { groups, helpFor, isChanged, keyed, type ReportGroup, shortName } from './report'
import { SavesPart } from './SavesPart'
import { WhatItCost } from './WhatItCost'
import { WhatItRead } from './WhatItRead'

type RunDetail = Schema['RunDetail']

/** Starting the game and reading what it says of its day. */
export function TestRunView() {
  const workspace = useWorkspace()
  const runs = useRuns(workspace)
  const { run: address } = useParams()
  const go = useNavigate()
  const shown = address ? Number(address) : (runs.data?.runs[0]?.id ?? null)
  const detail = useRun(workspace, shown)
  const start = useStartRun(workspace, (run) => go(`/workspaces/${workspace}/test-run/${run}`))
  const stop = useStopRun(workspace)
  const running = runs.data?.runs.some((r) => r.state === 'RUNNING') ?? false
  if (!runs.data) return <Waiting title="Test run" what="the runs" queries={[runs]} />
  return (
    <Screen
      title="Test run"
      says={detail.data && runWords(detail.data)}
      actions={
        running ? (
          <Button look="warning" onClick={() => stop.mutate()} disabled={stop.isPending}>
            <Square size={13} aria-hidden="true" /> Stop the game
          </Button>
        ) : (
          <Button
            look="strong"
            onClick={() => start.mutate()}
            disabled={start.isPending || !runs.data.startable}
          >
            <Play size={14} aria-hidden="true" /> Start the game
          </Button>
        )
      }
      aside={<RunsAside workspace={workspace} runs={runs.data.runs} shown={shown} />}
    >
      <NotDeployed workspace={workspace} />
      {shown === null ? (
        <div className="card flex-1">
          <Empty
            icon={Play}
            title={runs.data.startable ? 'Not started yet' : 'This game cannot be started from here'}
          >
            {runs.data.startable
              ? 'The game runs on its own, on the folder as it is deployed. What it says appears here while it runs.'
              : 'Its definition has no run command. Add run: { command: [ … ] } to its game.yaml.'}
          </Empty>
        </div>
      ) : detail.isPending ? (
        <div className="card flex-1">
          <Loading what="the run" />
        </div>
      ) : detail.data ? (
        <Detail workspace={workspace} run={detail.data} />
      ) : (
        <Failed error={detail.error} retry={() => detail.refetch()} />
      )}
    </Screen>
  )
}

const RUN_STATES: Record<RunDetail['state'], string> = {
  RUNNING: 'running',
  PLAYED: 'played to its end',
  ENDED: 'ended with code 0',
  STOPPED: 'stopped',
}

function runWords(r: RunDetail): string {
  if (r.state === 'RUNNING') return `Running since ${when(r.startedAt)}.`
  const took = r.endedAt ? `, ${duration(r.startedAt, r.endedAt)}` : ''
  const how = {
    PLAYED: 'played to its end',
    ENDED: 'ended with code 0; what it read cannot be told',
    STOPPED: `stopped with exit code ${r.exitCode ?? 'unknown'}`,
  }[r.state]
  return `${when(r.startedAt)}${took}: ${how}.`
}

/** The game sees the folder, not the plan: say so when the two differ. */
function NotDeployed({ workspace }: { workspace: number }) {
  const status = useDeployStatus(workspace).data
  const waits = status ? status.add + status.replace + status.takeOut : 0
  if (!status || waits === 0) return null
  return (
    <p className="mb-3 rounded-lg border border-ochre/50 bg-ochre-soft px-3 py-2">
      <b className="font-semibold">The game does not see all that you arranged:</b> {distanceWords(status)}.{' '}
      <Link to={`/workspaces/${workspace}/deploy`} className="text-woad underline">
        Deploy first
      </Link>
    </p>
  )
}

function Detail({ workspace, run }: { workspace: number; run: RunDetail }) {
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3">
      {run.fault && <Fault workspace={workspace} run={run.id} fault={run.fault} />}
      <PlayedWith workspace={workspace} run={run} />
      {run.state === 'STOPPED' && !run.fault && (
        <p className="rounded-lg border border-madder/40 bg-madder-soft px-3 py-2.5">
          <b className="font-semibold">
            The game ended with exit code {run.exitCode ?? 'unknown'} and named no fault.
          </b>{' '}
          Its output below is all that it said.{' '}
          <Link to={`/workspaces/${workspace}/trouble?run=${run.id}`} className="text-woad underline">
            Search for what causes it
          </Link>
        </p>
      )}
      {run.state !== 'RUNNING' && run.told && (
        <section aria-label="The day’s report" className="card min-h-0 flex-[3] overflow-y-auto px-4 py-3">
          <h2 className="flex items-center gap-2">
            {run.state === 'PLAYED' && <CircleCheck size={16} className="text-moss" aria-hidden="true" />}
            The day’s report
          </h2>
          <p className="text-ink-2">
            It read {count(run.filesRead, 'file')} and {count(run.pluginsRead, 'plugin')}
            {run.comparedWith !== undefined && `; values in bold are others than in the run before`}.
          </p>
          {run.warnings.length > 0 && (
            <ul className="mt-1.5">
              {run.warnings.map((w) => (
                <li key={w.code + w.text} className="text-ochre">
                  {w.text} {w.modName && `(${w.modName})`}
                </li>
              ))}
            </ul>
          )}
          <WhatItRead workspace={workspace} run={run} />
          <WhatItCost workspace={workspace} run={run.id} />
          <div className="mt-2 gap-x-8 xl:columns-2">
            {groups(run.reports).map((g) => (
              <Group key={g.title} group={g} />
            ))}
          </div>
        </section>
      )}
      {run.state !== 'RUNNING' && !run.told && (
        <div>
          <p className="text-ink-2">The game wrote no log, so what it read cannot be told.</p>
          <WhatItCost workspace={workspace} run={run.id} />
        </div>
      )}
      <Output workspace={workspace} run={run} />
    </div>
  )
}

/** With what it was played, and the way back there. */
function PlayedWith({ workspace, run }: { workspace: number; run: RunDetail }) {
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const back = useReturnToRun(workspace, () =>
    say('Arranged as it was in this run; deploy to play with it again.', { label: 'Undo', run: undo }),
  )
  if (run.sameSet) return <p className="text-ink-2">Played with what you have arranged now.</p>
  if (!run.arrangeable) return null
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1 text-ink-2">
      <span>
        {run.picture ? (
          <>
            Played with another set than you have now{' '}
            <code className="mono text-[11px] text-ink-3" title={run.picture}>
              {run.picture.slice(0, 12)}
            </code>
            .
          </>
        ) : (
          'The folder was not as arranged when it was played.'
        )}
      </span>
      <Button className="h-7" disabled={back.isPending} onClick={() => back.mutate(run.id)}>
        {back.isPending ? 'Going back …' : 'Arrange it as it was then'}
      </Button>
    </p>
  )
}

function Fault(props: { workspace: number; run: number; fault: Schema['RunFault'] }) {
  const { workspace, fault: f } = props
  const help = helpFor(f.code)
  return (
    <section
      aria-label="Why it stopped"
      role="alert"
      className="flex shrink-0 gap-3 rounded-[10px] border border-madder/50 bg-madder-soft px-4 py-3"
    >
      <OctagonX size={20} className="mt-0.5 shrink-0 text-madder" aria-hidden="true" />
      <div className="min-w-0">
        <h2 className="break-words">The game stopped: {f.text}</h2>
        <p>
          {f.modName ? (
            <>
              It comes from{' '}
              {f.mod === undefined ? (
                <b>{f.modName}</b>
              ) : (
                <Link to={`/workspaces/${workspace}/layers/${f.mod}`} className="font-semibold underline">
                  {f.modName}
                </Link>
              )}
              .{' '}
            </>
          ) : (
            'No deployed mod brings this file. '
          )}
          {help.says}{' '}
          <Link to={`/workspaces/${workspace}/${help.path}`} className="text-woad underline">
            Go there
          </Link>
          , or{' '}
          <Link to={`/workspaces/${workspace}/trouble?run=${props.run}`} className="text-woad underline">
            search for what causes it
          </Link>
          .
        </p>
        <p className="mono mt-1 break-all text-ink-2">
          {[f.code, f.path, f.plugin, f.record].filter(Boolean).join(' · ')}
        </p>
      </div>
    </section>
  )
}

/** A group of more values than this is shown in part at first, or by its first ones where none is new. */
const LONG = 12
const FIRST = 6

function Group({ group }: { group: ReportGroup }) {
  const [open, setOpen] = useState(group.reports.length <= LONG)
  const changed = group.reports.filter(isChanged)
  const few = changed.length > 0 ? changed : group.reports.slice(0, FIRST)
  const shown = open ? group.reports : few
  return (
    <section className="mb-3 break-inside-avoid">
      <h3 className="border-line border-b pb-0.5">
        {group.title}
        {group.reports.length > LONG && (
          <button
            type="button"
            onClick={() => setOpen(!open)}
            className="ml-2 font-normal min-h-6 text-woad underline"
          >
            {open
              ? changed.length > 0
                ? 'only what changed'
                : `the first ${FIRST}`
              : `all ${group.reports.length}`}
          </button>
        )}
      </h3>
      <dl>
        {keyed(shown).map(({ key, report: r }) => (
          <div key={key} className="flex items-baseline gap-3 border-line border-b border-dotted py-[3px]">
            <dt className="min-w-0 flex-1 break-words" title={r.from}>
              {shortName(r, group)}
            </dt>
            <dd className="num flex max-w-[68%] flex-wrap justify-end gap-x-3 text-right">
              {isChanged(r) && (
                <s className="text-ink-3">
                  <span className="sr-only">before: </span>
                  {r.before}
                </s>
              )}
              <span className={isChanged(r) ? 'font-bold text-woad' : undefined}>
                {r.value}
                {r.unit && <span className="ml-1 font-normal text-ink-2">{r.unit}</span>}
              </span>
            </dd>
          </div>
        ))}
      </dl>
    </section>
  )
}

function Output({ workspace, run }: { workspace: number; run: RunDetail }) {
  const live = useLines(workspace, run.id)
  const text = run.state === 'RUNNING' ? live.join('\n') : run.output
  const box = useRef<HTMLPreElement>(null)
  const running = run.state === 'RUNNING'
  // biome-ignore lint/correctness/useExhaustiveDependencies: every new line scrolls the box to its end
  useEffect(() => {
    if (running && box.current) box.current.scrollTop = box.current.scrollHeight
  }, [text, running])
  return (
    <details open={running || !run.told} className="card shrink-0 overflow-hidden">
      <summary className="cursor-pointer px-4 py-2 font-semibold">
        What it printed{running && ', live'}
      </summary>
      <pre
        ref={box}
        tabIndex={0}
        role="log"
        aria-label="Output of the game"
        className="mono max-h-[260px] overflow-auto whitespace-pre-wrap break-all border-line border-t px-4 py-2 leading-relaxed"
      >
        {text || (running ? '…' : 'nothing')}
      </pre>
    </details>
  )
}

function RunsAside({
  workspace,
  runs,
  shown,
}: {
  workspace: number
  runs: readonly Schema['RunView'][]
  shown: number | null
}) {
  return (
    <Aside label="Earlier runs">
      <h2>Runs</h2>
      <p className="mt-1 text-ink-2">
        The game is started as it is deployed, by the command of its definition and never by a shell.
      </p>
      <p className="mt-1.5">
        <Link to={`/workspaces/${workspace}/test-run/signs`} className="text-woad underline">
          Signs: does each mod work?
        </Link>
      </p>
      <AsidePart title={runs.length === 0 ? 'None yet' : 'The last ones'}>
        <ul>
          {runs.map((r) => (
            <li key={r.id}>
              <Link
                to={`/workspaces/${workspace}/test-run/${r.id}`}
                aria-current={r.id === shown}
                className="flex items-baseline justify-between gap-2 rounded px-2 py-1 hover:bg-sunk aria-[current=true]:bg-woad-soft"
              >
                <span>
                  {when(r.startedAt)}
                  {r.sameSet && <span className="ml-1.5 text-[11.5px] text-ink-3">as it is now</span>}
                </span>
                <span className={r.state === 'STOPPED' ? 'text-madder' : 'text-ink-2'}>
                  {RUN_STATES[r.state]}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </AsidePart>
      <SavesPart workspace={workspace} />
    </Aside>
  )
}
