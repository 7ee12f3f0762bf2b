import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { count, when } from '../ui/text'
import { useRun, useRuns } from './queries'
import { isChanged } from './report'

/** The last run in a few lines: how it ended, and what it read differently from the one before. */
export function LastRun({ workspace }: { workspace: number }) {
  const runs = useRuns(workspace).data
  const last = runs?.runs.find((r) => r.state !== 'RUNNING')
  const run = useRun(workspace, last?.id ?? null).data
  if (!runs) return null
  if (!last) {
    return (
      <>
        <h2>Last test run</h2>
        <p className="py-2 text-ink-2">
          {runs.startable
            ? 'The game has not been started from here yet.'
            : 'This game is not started from here.'}
        </p>
      </>
    )
  }
  const changed = run?.reports.filter(isChanged) ?? []
  return (
    <>
      <h2>
        Last test run <span className="font-normal text-ink-2">· {when(last.startedAt)}</span>
      </h2>
      {run?.fault ? (
        <p className="py-1.5">
          It stopped: {run.fault.text}{' '}
          {run.fault.modName && <b className="font-semibold">({run.fault.modName})</b>}
        </p>
      ) : (
        <p className="py-1.5 text-ink-2">
          {last.state === 'PLAYED'
            ? 'Played to its end.'
            : last.state === 'ENDED'
              ? 'It ended with code 0; what it read cannot be told.'
              : 'It stopped.'}{' '}
          {run?.comparedWith !== undefined && comparedWords(run.reports)}
        </p>
      )}
      {changed.length > 0 && (
        <table className="w-full">
          <thead>
            <tr className="text-left text-[11px] text-ink-3">
              <th className="font-normal">what the game saw</th>
              <th className="text-right font-normal">before</th>
              <th className="text-right font-normal">now</th>
            </tr>
          </thead>
          <tbody>
            {changed.slice(0, 6).map((r) => (
              <tr key={r.name} className="border-line border-t border-dotted align-baseline">
                <td className="max-w-0 truncate py-1 pr-2" style={{ width: '55%' }} title={r.name}>
                  {r.name}
                </td>
                <td className="num max-w-[90px] truncate py-1 text-right text-ink-2">{r.before}</td>
                <td className="num max-w-[110px] truncate py-1 pl-2 text-right font-semibold text-woad">
                  {r.value}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="pt-1.5">
        <Link to={`/workspaces/${workspace}/test-run/${last.id}`} className="text-woad underline">
          {changed.length > 6 ? `See all ${changed.length} changes` : 'See the whole report'}
        </Link>
      </p>
    </>
  )
}

function comparedWords(reports: readonly Schema['RunReport'][]): string {
  const fresh = reports.filter((r) => r.before === undefined).length
  if (fresh > 0) return `${count(fresh, 'value')} ${fresh === 1 ? 'is' : 'are'} new since the run before.`
  return reports.some(isChanged) ? '' : 'It read the same as the run before.'
}
