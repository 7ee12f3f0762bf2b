import clsx from 'clsx'
import { Play, Square, X } from 'lucide-react'
import { Link, useNavigate, useParams } from 'react-router'
import { useWorkspace } from '../frame/workspace'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Progress } from '../ui/Progress'
import { Screen, Waiting } from '../ui/Screen'
import { list } from '../ui/text'
import { Measured } from './Measured'
import { Outcome } from './Outcome'
import {
  type Answer,
  type Search,
  useAnswer,
  useGoesOn,
  useInside,
  useSearch,
  useSearchWork,
} from './queries'
import { Shrinking } from './Shrinking'
import { Tries } from './Tries'
import { LEVEL_NAMES, leftWords, oftenWords, partName, partsWords, reasonWords, whyWords } from './words'

/** A search as it goes on: what it tries, who is still under suspicion, what it has found. */
export function SearchScreen() {
  const workspace = useWorkspace()
  const id = Number(useParams().search)
  const query = useSearch(workspace, id)
  const s = query.data
  if (!s) return <Waiting title="Search" what="the search" queries={[query]} />
  const going = s.search.state === 'SEARCHING'
  const over = !going && s.search.state !== 'RESTING'
  return (
    <Screen
      title={s.measured ? 'What it costs' : 'Search'}
      says={s.measured ? s.measured.name : s.search.fault.says}
      actions={<Acts key={id} workspace={workspace} search={s} />}
      aside={s.measured ? <AboutMeasuring times={s.measured.times} /> : <Suspicion search={s} />}
    >
      <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-y-auto">
        {!s.measured && <Levels workspace={workspace} search={s} />}
        {s.updated.length > 0 && (
          <p className="shrink-0 rounded-lg border border-ochre/50 bg-ochre-soft px-3 py-2">
            <b className="font-semibold">Other versions are in use since the search began:</b>{' '}
            {list(s.updated)}. The search goes on with the versions that it began with.
          </p>
        )}
        {s.always.length > 0 && (
          <p className="shrink-0 text-ink-2">
            In play in every set, since the fault is about it: {list(s.always)}.
          </p>
        )}
        {s.measured && <Measured search={s} cost={s.measured} />}
        {over && s.measured ? null : over ? (
          <Outcome workspace={workspace} search={s} />
        ) : (
          <section aria-label="How far it is" className="card shrink-0 px-4 py-3">
            <p>{leftWords(s)}</p>
            <Progress
              label="Search"
              done={s.tries.length}
              total={s.tries.length + (s.asked?.atMostLeft ?? 0)}
              className="mt-1.5 h-1.5"
            />
            {oftenWords(s) && <p className="mt-1.5 text-ink-2">{oftenWords(s)}</p>}
            {!s.search.automatic && <ByHand workspace={workspace} search={s} />}
          </section>
        )}
        {!s.measured && <Shrinking search={s} />}
        <Tries workspace={workspace} search={s} />
      </div>
    </Screen>
  )
}

function Acts({ workspace, search: s }: { workspace: number; search: Search }) {
  const go = useNavigate()
  const work = useSearchWork(workspace, s.search.id)
  const inside = useInside(workspace, s.search.id, (made) =>
    go(`/workspaces/${workspace}/trouble/${made.search.id}`),
  )
  const state = s.search.state
  const busy = useGoesOn(workspace)
  if (busy && state !== 'SEARCHING' && state !== 'RESTING') return null
  if (state === 'FOUND' && s.inside === undefined && !['FIELDS', 'ORDER'].includes(s.search.level))
    return (
      <Button look="strong" disabled={inside.isPending} onClick={() => inside.mutate(undefined)}>
        Go on inside
      </Button>
    )
  if (!s.asked) return null
  return (
    <>
      {state === 'SEARCHING' ? (
        <Button disabled={work.rest.isPending} onClick={() => work.rest.mutate(undefined)}>
          <Square size={13} aria-hidden="true" /> Rest
        </Button>
      ) : (
        s.search.fault.kind !== 'WORDS' && (
          <Button look="strong" disabled={work.goOn.isPending} onClick={() => work.goOn.mutate(undefined)}>
            <Play size={14} aria-hidden="true" /> Go on by itself
          </Button>
        )
      )}
      <Button look="warning" disabled={work.leave.isPending} onClick={() => work.leave.mutate(undefined)}>
        <X size={14} aria-hidden="true" /> Give it up
      </Button>
    </>
  )
}

/** The way from mods to a field: each a search of its own. */
function Levels({ workspace, search: s }: { workspace: number; search: Search }) {
  const to = (id: number) => `/workspaces/${workspace}/trouble/${id}`
  return (
    <nav aria-label="How deep" className="flex shrink-0 flex-wrap items-baseline gap-3">
      {s.search.parent !== undefined && (
        <Link to={to(s.search.parent)} className="text-woad underline">
          One level up
        </Link>
      )}
      <b className="font-semibold">{LEVEL_NAMES[s.search.level]}</b>
      {s.order !== undefined && (
        <Link to={to(s.order)} className="text-woad underline">
          Is it their order?
        </Link>
      )}
      {s.inside !== undefined && (
        <Link to={to(s.inside)} className="text-woad underline">
          What in them
        </Link>
      )}
    </nav>
  )
}

const TOLD: readonly { answer: Answer; label: string }[] = [
  { answer: 'FAILS', label: 'The fault shows' },
  { answer: 'WORKS', label: 'It works' },
  { answer: 'CANNOT_TELL', label: 'I cannot tell' },
  { answer: 'ANOTHER_FAULT', label: 'Something else is wrong' },
]

/** The user plays a set and says how it went. */
function ByHand({ workspace, search: s }: { workspace: number; search: Search }) {
  const { play } = useSearchWork(workspace, s.search.id)
  const answer = useAnswer(workspace, s.search.id)
  const asked = s.asked
  if (!asked) return null
  const without = s.parts.find((p) => p.number === asked.without)
  return (
    <div className="mt-3 border-line border-t pt-2.5">
      <p>
        <b className="font-semibold">Try {s.tries.length + 1}:</b>{' '}
        {whyWords(asked, s.search.level, without && partName(without), s.always)},{' '}
        {partsWords(asked.members.length, s.search.level)} in play.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          look="strong"
          disabled={play.isPending || asked.running}
          onClick={() => play.mutate(undefined)}
        >
          <Play size={14} aria-hidden="true" />
          {asked.running ? 'The game runs' : play.isPending ? 'Starting …' : 'Start the game with this set'}
        </Button>
        {TOLD.map((t) => (
          <Button key={t.answer} disabled={answer.isPending} onClick={() => answer.mutate(t.answer)}>
            {t.label}
          </Button>
        ))}
      </div>
      <p className="mt-1.5 text-ink-2">
        Answer when you have seen it; a game that still runs is ended. You may close Ironing and go on another
        day.
      </p>
    </div>
  )
}

const MOST = 60

/** Who is under suspicion, and why. */
function Suspicion({ search: s }: { search: Search }) {
  const open = s.parts.filter((p) => p.standing === 'SUSPECTED' || p.standing === 'CERTAIN')
  const shown = (open.length > 0 ? open : s.parts.filter((p) => p.standing === 'FOUND')).toSorted(
    (a, b) => b.suspicion - a.suspicion,
  )
  return (
    <Aside label="Under suspicion">
      <h2>{open.length > 0 ? 'Under suspicion' : 'Found'}</h2>
      <AsidePart title={partsWords(shown.length, s.search.level)}>
        <ul>
          {shown.slice(0, MOST).map((p) => (
            <li key={p.number} className="border-line border-t py-1 first:border-t-0">
              <span
                className={clsx('block truncate', p.standing === 'CERTAIN' && 'font-semibold text-madder')}
                title={partName(p)}
              >
                {partName(p)}
                {p.standing === 'CERTAIN' && <span className="font-normal"> (certain)</span>}
              </span>
              <span className="block text-[11.5px] text-ink-2">
                {[s.search.level !== 'MODS' && p.modName, reasonWords(p.reasons)].filter(Boolean).join(': ')}
              </span>
            </li>
          ))}
        </ul>
        {shown.length > MOST && <p className="text-ink-2">and {shown.length - MOST} more</p>}
      </AsidePart>
    </Aside>
  )
}

function AboutMeasuring({ times }: { times: number }) {
  return (
    <Aside label="How it is measured">
      <h2>How it is measured</h2>
      <p className="mt-1 text-ink-2">
        Everything that is on is run {times === 1 ? 'once' : `${times} times`} with the mod and as often
        without it and what needs it, in turns, so that a machine that becomes slower does so for both.
      </p>
      <p className="mt-1.5 text-ink-2">
        The memory is that of the game and of all that it starts, looked at many times a second. The time of
        loading is known where the game’s log says when it had loaded.
      </p>
    </Aside>
  )
}
