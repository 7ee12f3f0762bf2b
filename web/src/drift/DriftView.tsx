import { FolderCheck } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { type DriftAct, useDrift, useDriftAct } from '../deploy/queries'
import { useAddress } from '../frame/address'
import { useNotices } from '../frame/Notices'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { PathText } from '../ui/PathText'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { bytes, count, number } from '../ui/text'
import { says } from './words'

type Group = Schema['DriftGroup']
type Cause = Group['cause']

interface Words {
  /** What has happened, as a sentence about so many files. */
  says: (files: string, n: number) => string
  /** Why that is so, and what helps. */
  about: string
  acts: readonly DriftAct[]
}

const WORDS: Record<Cause, Words> = {
  THROUGH_LINK: {
    says: (files, n) => `${files} ${n === 1 ? 'was' : 'were'} written to through the link to the mod`,
    about:
      'The mod’s own file in the library has changed with it. Putting back installs the mod again from its archive, and sets aside what was written.',
    acts: ['put-back', 'own', 'take', 'left'],
  },
  CHANGED: {
    says: (files, n) =>
      `${files} that ${n === 1 ? 'was' : 'were'} deployed ${n === 1 ? 'is' : 'are'} another now`,
    about: 'A tool, or somebody by hand, has put something else there. Putting back sets that aside.',
    acts: ['put-back', 'own', 'take', 'left'],
  },
  MISSING: {
    says: (files, n) => `${files} that ${n === 1 ? 'was' : 'were'} deployed ${n === 1 ? 'is' : 'are'} gone`,
    about: 'The library has what was deployed, and can put it back.',
    acts: ['put-back', 'left'],
  },
  PUT_BACK: {
    says: (files) => `${files} of the game’s own came back in the place of mods’ files`,
    about:
      'An update or a repair of the game does that. Putting back lets the mods’ files stand there again.',
    acts: ['put-back', 'left'],
  },
  KEPT_LOST: {
    says: (files, n) =>
      `${files} of the game’s own that ${n === 1 ? 'was' : 'were'} kept ${n === 1 ? 'is' : 'are'} lost`,
    about:
      'Kept to come back when you undeploy. Only a repair or a fresh copy of the game can bring that: put it into .ironing/kept.',
    acts: ['left'],
  },
  GAME_CHANGED: {
    says: (files, n) =>
      `${files} of the game’s own ${n === 1 ? 'is no longer what it was' : 'are no longer what they were'}`,
    about: 'Changed since the game was taken in. If it was updated, take the new version in.',
    acts: ['left', 'take'],
  },
  GAME_MISSING: {
    says: (files, n) => `${files} of the game’s own ${n === 1 ? 'is' : 'are'} gone`,
    about: 'Only a repair or a fresh copy of the game brings them back.',
    acts: ['left'],
  },
  NEW: {
    says: (files, n) =>
      `${files} ${n === 1 ? 'is' : 'are'} new, and nobody deployed ${n === 1 ? 'it' : 'them'}`,
    about:
      'What the game or a tool wrote, or left-overs of hand-installed mods. Taken into the inbox they can become a mod, and go out of the way here.',
    acts: ['take', 'left'],
  },
  SET_ASIDE: {
    says: (files, n) => `${files} ${n === 1 ? 'was' : 'were'} set aside`,
    about:
      'Changed while deployed, in the way, or of the game before an update. Nothing of it was thrown away.',
    acts: ['take', 'left'],
  },
}

const ACTS: Record<DriftAct, string> = {
  'put-back': 'Put back',
  own: 'Take into its mod',
  take: 'Take into the inbox',
  left: 'Leave so',
}

/** Where the game folder is not as it was deployed to, by what has happened. */
export function DriftView() {
  const workspace = useWorkspace()
  const [query, put] = useAddress()
  const thorough = query.has('thorough')
  const drift = useDrift(workspace, thorough)
  const again = useDriftAct(workspace, () => {})
  const d = drift.data
  return (
    <Screen
      title="Check the folder"
      says={d && says(d)}
      actions={
        <>
          <Button disabled={drift.isFetching} onClick={() => drift.refetch()}>
            {drift.isFetching ? 'Looking …' : 'Look again'}
          </Button>
          {!thorough && (
            <Button disabled={drift.isFetching} onClick={() => put((q) => q.set('thorough', ''))}>
              Read every byte
            </Button>
          )}
        </>
      }
    >
      {drift.isPending ? (
        <div className="card flex-1">
          <Loading what="the folder" />
        </div>
      ) : !d ? (
        <div className="card flex-1">
          <Failed error={drift.error} retry={() => drift.refetch()} />
        </div>
      ) : d.groups.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={FolderCheck} title="The folder is as it should be">
            {d.deployed > 0
              ? `All ${count(d.deployed, 'deployed file')} and all of the game’s own are there and unchanged.`
              : 'Nothing is deployed, and the game is as it was.'}
          </Empty>
        </div>
      ) : (
        <div className="min-h-0 flex-1 overflow-y-auto">
          {d.groups.map((g) => (
            <GroupCard key={g.cause} workspace={workspace} group={g} thorough={thorough} />
          ))}
        </div>
      )}
      {d && d.left > 0 && (
        <p className="mt-2 text-ink-2">
          {count(d.left, 'file')} {d.left === 1 ? 'is' : 'are'} left as you wanted.{' '}
          <button
            type="button"
            className="min-h-6 text-woad underline"
            onClick={() => again.mutate({ act: 'tell-again' })}
          >
            Tell me of {d.left === 1 ? 'it' : 'them'} again
          </button>
        </p>
      )}
    </Screen>
  )
}

function GroupCard({
  workspace,
  group: g,
  thorough,
}: {
  workspace: number
  group: Group
  thorough: boolean
}) {
  const words = WORDS[g.cause]
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const navigate = useNavigate()
  const { say } = useNotices()
  const act = useDriftAct(workspace, (done) => {
    setChosen(new Set())
    if (done.archive) {
      say('Taken into the inbox.')
      navigate(`/workspaces/${workspace}/library/inbox/${done.archive}`)
    } else if (done.act === 'put-back') say('Put back as it was deployed.')
    else if (done.act === 'own') say('Taken into the mods, and deployed so.')
  })
  const turn = (path: string) =>
    setChosen((c) => {
      const next = new Set(c)
      if (!next.delete(path)) next.add(path)
      return next
    })
  const sentence = words.says(count(g.inAll, 'file'), g.inAll)
  const paths = chosen.size > 0 ? [...chosen] : undefined
  // the plugin list is nobody's: it can be put back, and goes into no mod
  const meant = chosen.size > 0 ? g.files.filter((f) => chosen.has(f.path)) : g.files
  const acts = words.acts.filter((a) => a !== 'own' || meant.every((f) => f.mod > 0))
  return (
    <section aria-label={sentence} className="card mb-3 px-4 py-3">
      <h2>{sentence}.</h2>
      <p className="mt-0.5 max-w-[90ch] text-ink-2">{words.about}</p>
      <p className="mt-2 flex flex-wrap gap-1.5">
        {(g.cause === 'GAME_CHANGED' || g.cause === 'GAME_MISSING') && (
          <Link
            to={`/workspaces/${workspace}/deploy/game-version`}
            className="mr-1.5 self-center text-woad underline"
          >
            See what an update did
          </Link>
        )}
        {acts.map((a) => (
          <Button
            key={a}
            className="h-7"
            disabled={act.isPending}
            onClick={() => act.mutate({ act: a, cause: g.cause, paths, thorough })}
          >
            {ACTS[a]}
            {chosen.size > 0
              ? ` (${number(chosen.size)} chosen)`
              : g.inAll > 1
                ? ` (all ${number(g.inAll)})`
                : ''}
          </Button>
        ))}
      </p>
      <ul className="mt-2 max-h-72 overflow-y-auto">
        {g.files.map((f) => (
          <li key={f.path} className="flex items-baseline gap-2 border-line border-t py-1">
            <label className="flex min-w-0 flex-1 items-baseline gap-2">
              <input
                type="checkbox"
                checked={chosen.has(f.path)}
                onChange={() => turn(f.path)}
                className="translate-y-[1px] accent-(--woad)"
              />
              <PathText path={f.path} most={90} className="min-w-0 truncate" />
              {g.cause === 'NEW' && f.from && (
                <span className="text-ink-2">goes to the output of {f.from} when you deploy</span>
              )}
            </label>
            {f.mod > 0 && (
              <Link
                to={`/workspaces/${workspace}/library/${f.mod}`}
                className="shrink-0 text-ink-2 hover:underline"
              >
                {f.from}
              </Link>
            )}
            <span className="num w-20 shrink-0 text-right text-ink-2">
              {f.sizeBytes > 0 ? bytes(f.sizeBytes) : ''}
            </span>
          </li>
        ))}
        {g.inAll > g.files.length && (
          <li className="border-line border-t py-1 text-ink-2">
            and {number(g.inAll - g.files.length)} more
          </li>
        )}
      </ul>
    </section>
  )
}
