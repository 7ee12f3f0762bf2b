import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { count, list, number, when } from '../ui/text'
import { useAllSaves, useCopySaves, useSavesOfProfiles } from './queries'

type Save = Schema['Save']

const MOST = 6
const NAMED = 3

/** The saves there are, and what the profile as it is arranged now would take away from each. */
export function SavesPart({ workspace }: { workspace: number }) {
  const saves = useAllSaves(workspace).data
  const whose = useSavesOfProfiles(workspace).data
  if (!saves || (saves.length === 0 && !whose?.own)) return null
  return (
    <AsidePart title="Saves">
      {whose?.own && <Whose workspace={workspace} profiles={whose.profiles} />}
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

/** Whose these are, where the others are, and how to have them too. */
function Whose({ workspace, profiles }: { workspace: number; profiles: Schema['SavesOfProfile'][] }) {
  const { say } = useNotices()
  const copy = useCopySaves(workspace, (copied) =>
    say(
      copied === 0
        ? 'Nothing was copied: this profile has a save by each of these names.'
        : `${count(copied, 'save')} copied. What had the same name stays as it is.`,
    ),
  )
  const own = profiles.find((p) => p.inUse)
  const there = profiles.find((p) => p.inFolder)
  const others = profiles.filter((p) => !p.inUse && p.count > 0)
  if (!own) return null
  return (
    <div className="mb-1.5 text-ink-2">
      <p>
        {own.count === 0 ? (
          <>
            <b className="text-ink">{own.name}</b> has no saves yet.
          </>
        ) : (
          <>
            Those of <b className="text-ink">{own.name}</b>.
          </>
        )}
        {own.inFolder || !there
          ? ' Each profile has its own.'
          : ` In the folder lie those of ${there.name}: they make room when the game is started from here.`}
      </p>
      {others.map((p) => (
        <p key={p.profile} className="mt-1 flex items-center gap-2">
          <span className="min-w-0 flex-1">
            {p.name}
            {p.deleted && ', deleted,'} has {number(p.count)}.
          </span>
          <Button disabled={copy.isPending} onClick={() => copy.mutate(p.profile)}>
            Copy {p.count === 1 ? 'it' : 'them'} here
          </Button>
        </p>
      ))}
    </div>
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
