import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { AsidePart } from '../ui/Aside'
import { list, number, when } from '../ui/text'
import { useAllSaves } from './queries'

type Save = Schema['Save']

const MOST = 6
const NAMED = 3

/** The saves there are, and what the profile as it is arranged now would take away from each. */
export function SavesPart({ workspace }: { workspace: number }) {
  const saves = useAllSaves(workspace).data
  if (!saves || saves.length === 0) return null
  return (
    <AsidePart title="Saves">
      <ul>
        {saves.slice(0, MOST).map((s) => (
          <li key={s.path} className="border-line border-t py-1.5">
            <p className="flex items-baseline gap-2">
              <span className="mono min-w-0 flex-1 truncate" title={s.path}>
                {s.path.slice(s.path.lastIndexOf('/') + 1)}
              </span>
              {s.run > 0 ? (
                <Link
                  to={`/workspaces/${workspace}/test-run/${s.run}`}
                  className="shrink-0 text-ink-2 underline"
                  title="The run during which it was written"
                >
                  {when(s.at)}
                </Link>
              ) : (
                <span className="shrink-0 text-ink-2">{when(s.at)}</span>
              )}
            </p>
            <p className={s.lost.length > 0 ? 'text-ochre' : 'text-ink-2'}>{words(s)}</p>
          </li>
        ))}
        {saves.length > MOST && (
          <li className="border-line border-t py-1.5 text-ink-2">and {number(saves.length - MOST)} older</li>
        )}
      </ul>
    </AsidePart>
  )
}

function words(s: Save): string {
  if (s.run === 0) return 'No run from here wrote it: with what it was made cannot be told.'
  if (s.lost.length > 0) {
    const names = s.lost
      .slice(0, NAMED)
      .map((l) => `${l.plugin} (${l.loss === 'OFF' ? 'off' : 'no mod brings it'})`)
    if (s.lost.length > NAMED) names.push(`${number(s.lost.length - NAMED)} more`)
    return `As things are arranged now it loses what came of ${list(names)}.`
  }
  if (s.fresh.length > 0)
    return `Nothing is taken away from it; ${s.fresh.length === 1 ? `${s.fresh[0]} is` : `${number(s.fresh.length)} plugins are`} new to it.`
  return 'Made with the plugins that are on now.'
}
