import clsx from 'clsx'
import { CircleCheck } from 'lucide-react'
import { type ReactNode, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useGameVersion, useTakeGameVersion } from '../deploy/queries'
import { useNotices } from '../frame/Notices'
import { useDeployStatus, useRunningJob } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { PathText } from '../ui/PathText'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { bytes, count, number, when } from '../ui/text'
import { Standings } from './Standings'
import { headline } from './words'

type GameVersion = Schema['GameVersionView']
type Kind = Schema['UpdateFile']['kind']

const KINDS: readonly { kind: Kind; says: string; look: string }[] = [
  { kind: 'CHANGED', says: 'changed', look: 'bg-woad' },
  { kind: 'ADDED', says: 'new', look: 'bg-moss' },
  { kind: 'GONE', says: 'gone', look: 'bg-madder' },
]

type Answer = 'removed' | 'kept'
type Answers = Readonly<Record<string, Answer>>

const ANSWERS: readonly { value: Answer; says: string }[] = [
  { value: 'removed', says: 'the update removed it' },
  { value: 'kept', says: 'the game has it still' },
]

/** What an update of the game has done and means for the mods, and taking it in. */
export function GameVersionView() {
  const workspace = useWorkspace()
  const version = useGameVersion(workspace)
  const { say } = useNotices()
  const take = useTakeGameVersion(workspace, () =>
    say('The game is taken in as it is now. Deploy to have your mods over it again.'),
  )
  const busy = useRunningJob(workspace, ['game-version', 'deploy', 'undeploy']) !== undefined
  const v = version.data
  const [answers, setAnswers] = useState<Answers>({})
  const unsaid = v?.unsure.filter((path) => !answers[path]).length ?? 0
  const said = (answer: Answer) => v?.unsure.filter((path) => answers[path] === answer) ?? []
  return (
    <Screen
      title="Game version"
      says={v && headline(v)}
      actions={
        <>
          <Button disabled={version.isFetching} onClick={() => version.refetch()}>
            {version.isFetching ? 'Looking …' : 'Look again'}
          </Button>
          {v?.noticed && (
            <Button
              look="strong"
              disabled={take.isPending || busy || unsaid > 0}
              title={unsaid > 0 ? `Say first what became of ${count(unsaid, 'file')}.` : undefined}
              onClick={() => take.mutate({ removed: said('removed'), kept: said('kept') })}
            >
              {take.isPending ? 'Taking it in …' : v.found ? `Take ${v.found} in` : 'Take it in'}
            </Button>
          )}
        </>
      }
      aside={v && <Earlier workspace={workspace} version={v} />}
    >
      {version.isPending ? (
        <div className="card flex-1">
          <Loading what="the game" />
        </div>
      ) : !v ? (
        <div className="card flex-1">
          <Failed error={version.error} retry={() => version.refetch()} />
        </div>
      ) : !v.noticed ? (
        <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto">
          <div className="card shrink-0">
            <Empty icon={CircleCheck} title="The game is as it was taken in">
              When the game is updated, this page tells what the update did and which mods it may break,
              before anything is deployed over it.
            </Empty>
          </div>
          <Standings workspace={workspace} />
          <Unlike version={v} />
        </div>
      ) : (
        <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto">
          <Unsure version={v} answers={answers} onAnswer={setAnswers} />
          <Changed version={v} />
          <div className="grid items-start gap-3 lg:grid-cols-2">
            <Uncovered workspace={workspace} version={v} />
            <Covering workspace={workspace} version={v} />
            <Touched workspace={workspace} version={v} />
            <Behind version={v} />
            <Unlike version={v} />
          </div>
        </div>
      )}
    </Screen>
  )
}

/** What the update did, as a strip and file by file. */
function Changed({ version: v }: { version: GameVersion }) {
  const counts: Record<Kind, number> = { CHANGED: v.changed, ADDED: v.added, GONE: v.gone }
  const all = v.changed + v.added + v.gone
  return (
    <section aria-label="What the update did" className="card px-4 py-3">
      <h2>What the update did</h2>
      {all === 0 ? (
        <p className="mt-1 text-ink-2">No file of the game is another; only the version is.</p>
      ) : (
        <>
          <p className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
            {KINDS.filter((k) => counts[k.kind] > 0).map((k) => (
              <span key={k.kind} className="flex items-center gap-1.5">
                <span aria-hidden="true" className={clsx('h-2.5 w-2.5 rounded-[3px]', k.look)} />
                {count(counts[k.kind], 'file')} {k.says}
              </span>
            ))}
          </p>
          <span aria-hidden="true" className="mt-2 flex h-2 gap-[2px] overflow-hidden rounded-[3px]">
            {KINDS.map((k) => (
              <span key={k.kind} className={k.look} style={{ width: `${(100 * counts[k.kind]) / all}%` }} />
            ))}
          </span>
          <ul className="mt-2.5 max-h-56 overflow-y-auto">
            {v.files.map((f) => (
              <li key={`${f.pack}:${f.path}`} className="flex items-baseline gap-3 border-line border-t py-1">
                <span className="w-16 shrink-0 text-ink-2">{KINDS.find((k) => k.kind === f.kind)?.says}</span>
                <PathText path={f.path} most={72} className="min-w-0 truncate" />
                {f.pack && <Tag>{`in ${f.pack.slice(f.pack.lastIndexOf('/') + 1)}`}</Tag>}
                {f.overDeployed && <Tag>written over a mod’s file</Tag>}
                <span className="num ml-auto shrink-0 text-ink-2">
                  {f.sizeBytes > 0 ? bytes(f.sizeBytes) : ''}
                </span>
              </li>
            ))}
            <More all={v.filesInAll} shown={v.files.length} />
          </ul>
          <p className="mt-2 text-ink-2">
            {v.byManifest
              ? 'The game’s manifest says which files are its own.'
              : 'The game brings no manifest: files that nobody knows are counted as its own. Take strays into the inbox first, or leave them so, under Check the folder.'}
          </p>
        </>
      )}
    </section>
  )
}

function More({ all, shown }: { all: number; shown: number }) {
  if (all <= shown) return null
  return <li className="border-line border-t py-1 text-ink-2">and {number(all - shown)} more</li>
}

function Part({ title, about, children }: { title: string; about: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="card px-4 py-3">
      <h2>{title}</h2>
      <p className="mt-0.5 text-ink-2">{about}</p>
      <ul className="mt-2 max-h-56 overflow-y-auto">{children}</ul>
    </section>
  )
}

const ROW = 'flex items-baseline gap-2 border-line border-t py-1'

/** Mods that are on and whose card does not cover the version. */
function Uncovered({ workspace, version: v }: { workspace: number; version: GameVersion }) {
  const breakable = v.uncovered.filter((m) => !m.harmless)
  const harmless = v.uncovered.length - breakable.length
  if (v.uncovered.length === 0) return null
  return (
    <Part
      title={
        breakable.length === 0
          ? 'No mod that could break'
          : `${count(breakable.length, 'mod')} may not be made for it`
      }
      about={
        harmless === 0
          ? `The card of ${breakable.length === 1 ? 'this one does' : 'these does'} not cover ${v.found}.`
          : `${count(harmless, 'mod')} more ${harmless === 1 ? 'is' : 'are'} for other versions too, but ${
              harmless === 1 ? 'holds' : 'hold'
            } only files that cannot break.`
      }
    >
      {breakable.map((m) => (
        <li key={m.mod} className={ROW}>
          <Link
            to={`/workspaces/${workspace}/library/${m.mod}`}
            className="min-w-0 flex-1 truncate py-[3px] hover:underline"
          >
            {m.name}
          </Link>
          <span className="num text-ink-2">for {m.range}</span>
        </li>
      ))}
      {v.uncovered
        .filter((m) => m.harmless)
        .map((m) => (
          <li key={m.mod} className={ROW}>
            <Link
              to={`/workspaces/${workspace}/library/${m.mod}`}
              className="min-w-0 flex-1 truncate text-ink-2 hover:underline"
            >
              {m.name}
            </Link>
            <Tag>cannot break</Tag>
          </li>
        ))}
    </Part>
  )
}

function Covering({ workspace, version: v }: { workspace: number; version: GameVersion }) {
  if (v.covering.length === 0) return null
  return (
    <Part
      title={`${count(v.coveringInAll, 'file')} of mods ${v.coveringInAll === 1 ? 'covers' : 'cover'} a changed file`}
      about="They were made from the game’s file of before. What the update changed in it does not reach the game."
    >
      {v.covering.map((c) => (
        <li key={c.path} className={ROW}>
          <Link
            to={`/workspaces/${workspace}/overlaps/path?at=${encodeURIComponent(c.path)}`}
            className="min-w-0 flex-1 truncate py-[3px] hover:underline"
          >
            <PathText path={c.path} most={44} />
          </Link>
          <span className="max-w-[45%] shrink-0 truncate text-ink-2">{c.name}</span>
        </li>
      ))}
      <More all={v.coveringInAll} shown={v.covering.length} />
    </Part>
  )
}

function Touched({ workspace, version: v }: { workspace: number; version: GameVersion }) {
  if (v.mends.length === 0) return null
  return (
    <Part
      title={`${count(v.mends.length, 'mend')} ${v.mends.length === 1 ? 'is' : 'are'} made of changed files`}
      about="Once the version is taken in, each that would come out differently is stale, and can be rebuilt."
    >
      {v.mends.map((m) => (
        <li key={m.mod} className={ROW}>
          <Link
            to={`/workspaces/${workspace}/mends`}
            className="min-w-0 flex-1 truncate py-[3px] hover:underline"
          >
            {m.name}
          </Link>
          <span className="max-w-[55%] truncate text-ink-2">
            {m.of[0]}
            {m.of.length > 1 && ` and ${m.of.length - 1} more`}
          </span>
        </li>
      ))}
    </Part>
  )
}

/** Files that somebody had changed before Ironing knew the game. */
function Unlike({ version: v }: { version: GameVersion }) {
  if (v.unlike.length === 0) return null
  return (
    <Part
      title={`${count(v.unlikeInAll, 'file')} of the game ${v.unlikeInAll === 1 ? 'is' : 'are'} not as its manifest says`}
      about="They were so when the game was taken in: a mod was put in by hand, or a download broke. Undeploying brings back these, not the game’s own. Undeploy, have the game repaired by what installed it, and look again."
    >
      {v.unlike.map((u) => (
        <li key={u.path} className={ROW}>
          <PathText path={u.path} most={72} className="min-w-0 flex-1 truncate" />
          <span className="shrink-0 text-ink-2">{u.gone ? 'gone' : 'other content'}</span>
        </li>
      ))}
      <More all={v.unlikeInAll} shown={v.unlike.length} />
    </Part>
  )
}

/** Files of the game of which only the user knows who took them. */
function Unsure(props: { version: GameVersion; answers: Answers; onAnswer: (a: Answers) => void }) {
  const { version: v, answers, onAnswer } = props
  if (v.unsure.length === 0) return null
  const all = (answer: Answer) => onAnswer(Object.fromEntries(v.unsure.map((path) => [path, answer])))
  return (
    <section aria-label="Who removed these?" className="card border-ochre px-4 py-3">
      <h2>Did the update remove {v.unsure.length === 1 ? 'this file' : `these ${v.unsure.length} files`}?</h2>
      <p className="mt-0.5 max-w-[720px] text-ink-2">
        A mod’s file lay over the game’s, and nothing lies there now. If the update removed it, the game has
        it no more; if somebody else did, undeploying brings the game’s own back.
      </p>
      <ul className="mt-2 max-h-56 overflow-y-auto">
        {v.unsure.map((path) => (
          <li key={path} className={ROW}>
            <PathText path={path} most={64} className="min-w-0 flex-1 truncate" />
            {ANSWERS.map((a) => (
              <label key={a.value} className="flex items-center gap-1.5 whitespace-nowrap">
                <input
                  type="radio"
                  name={path}
                  className="accent-(--woad)"
                  checked={answers[path] === a.value}
                  onChange={() => onAnswer({ ...answers, [path]: a.value })}
                />
                {a.says}
              </label>
            ))}
          </li>
        ))}
      </ul>
      {v.unsure.length > 1 && (
        <p className="mt-2 flex gap-2">
          <Button onClick={() => all('removed')}>The update removed all</Button>
          <Button onClick={() => all('kept')}>The game has all still</Button>
        </p>
      )}
    </section>
  )
}

function Behind({ version: v }: { version: GameVersion }) {
  if (v.behind.length === 0) return null
  return (
    <Part
      title={`${count(v.behindInAll, 'file')} of the update ${v.behindInAll === 1 ? 'is' : 'are'} missing`}
      about="A mod’s file stood there, and the update let it be. Undeploy, have the game repaired by what installed it, and look again."
    >
      {v.behind.map((path) => (
        <li key={path} className={ROW}>
          <PathText path={path} most={64} className="min-w-0 truncate" />
        </li>
      ))}
      <More all={v.behindInAll} shown={v.behind.length} />
    </Part>
  )
}

/** What taking it in does, and the versions of before. */
function Earlier({ workspace, version: v }: { workspace: number; version: GameVersion }) {
  const deployed = useDeployStatus(workspace).data?.files ?? 0
  return (
    <Aside label="Taking a version in">
      <h2>Taking a version in</h2>
      <p className="mt-2 text-[13.5px] leading-snug">
        The game as it lies there becomes the unmodded game: what undeploying goes back to, and what patches
        and combined files begin from.
      </p>
      <p className="mt-2 text-[13.5px] leading-snug">
        {deployed > 0
          ? 'Where the update wrote over a deployed file, the new one is kept as the game’s, and the mod’s lies over it again with the next deployment.'
          : 'Nothing is deployed, so no file is touched.'}{' '}
        Every profile gets a restore point.
      </p>
      <AsidePart title="Earlier versions">
        {v.earlier.length === 0 ? (
          <p className="text-ink-2">None yet. The list of its files is kept for each.</p>
        ) : (
          <ul>
            {v.earlier.map((e) => (
              <li key={e.id} className="border-line border-t py-1.5">
                <p className="flex items-baseline gap-2">
                  <span className="num font-semibold">{e.version || 'no version told'}</span>
                  <span className="ml-auto text-ink-2">until {when(e.until)}</span>
                </p>
                <p className="text-ink-2">
                  {number(e.changed)} changed, {number(e.added)} new, {number(e.gone)} gone after it
                </p>
              </li>
            ))}
          </ul>
        )}
        {v.earlier.length > 0 && (
          <p className="mt-1.5">
            <Link to={`/workspaces/${workspace}/timeline`} className="text-woad underline">
              Go back to an arrangement of before
            </Link>
          </p>
        )}
      </AsidePart>
    </Aside>
  )
}
