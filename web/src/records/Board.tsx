import clsx from 'clsx'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useSelectedTitle } from '../frame/title'
import { useAddPatch } from '../mends/queries'
import { kept } from '../ui/kept'
import { Menu } from '../ui/Menu'
import { walkAnswers } from '../ui/radios'
import { Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { AS_BEFORE, type Decision, isOwn, MERGED, REMOVED, same } from './decision'
import { useBoard, useBring, useDecide, useUndecide } from './queries'
import { STATES } from './states'
import { ValueEditor } from './ValueEditor'

type PlaceView = Schema['PlaceView']
type RecordChange = Schema['RecordChange']

const GRID =
  'grid grid-cols-[110px_130px_minmax(0,1fr)_minmax(190px,0.62fr)] max-lg:grid-cols-[72px_80px_minmax(0,1fr)_minmax(0,1fr)]'

/** One record laid open: what was before any mod, who changed what, and the outcome. */
export function Board({ workspace, owner, id }: { workspace: number; owner: string; id: number }) {
  const board = useBoard(workspace, owner, id)
  const decide = useDecide(workspace, owner, id)
  useSelectedTitle(board.data?.label)
  if (board.isPending) {
    return (
      <section className="card flex-1">
        <Loading what="the record" />
      </section>
    )
  }
  if (!board.data) {
    return (
      <section className="card flex-1">
        <Failed error={board.error} retry={() => board.refetch()} />
      </section>
    )
  }
  const b = board.data
  // under which what is half typed of its places is kept
  const name = `value ${workspace}/${owner}/${id}`
  const choose = (place: string, decision: Decision | null) => decide.mutate({ place, decision })
  return (
    <section aria-label={b.label} className="card flex min-w-0 flex-1 flex-col overflow-hidden">
      <Head workspace={workspace} board={b} />
      <div className="min-h-0 flex-1 overflow-y-auto">
        <div className="min-w-[640px]">
          {b.places.length > 0 && (
            <div
              className={clsx(GRID, 'sticky top-0 z-10 border-line border-b bg-card text-[11px] text-ink-3')}
            >
              <span className="px-3.5 py-1.5">field</span>
              <span className="py-1.5">before any mod</span>
              <span className="py-1.5">changed by</span>
              <span className="border-line-2 border-l-2 border-dashed px-3 py-1.5">outcome</span>
            </div>
          )}
          {b.places.map((p) => (
            <Place
              key={p.place}
              workspace={workspace}
              name={`${name} ${p.place}`}
              place={p}
              pair={b.places.find((x) => x.place === p.pair)}
              onPair={choose}
              pending={
                decide.isPending && decide.variables.place === p.place ? decide.variables.decision : undefined
              }
              onChoose={(decision) => choose(p.place, decision)}
            />
          ))}
          <Rest workspace={workspace} name={name} board={b} onChoose={choose} />
          <Relations workspace={workspace} board={b} />
        </div>
      </div>
    </section>
  )
}

function Head({ workspace, board: b }: { workspace: number; board: Schema['Board'] }) {
  const { say } = useNotices()
  const bring = useBring(workspace, (total) =>
    say(`Taken whole: ${count(total, 'record')}. A patch holds what loses today.`),
  )
  const undecide = useUndecide(workspace)
  const alone = useAddPatch(workspace, () => say(`A patch of “${b.label}” alone is made.`))
  const lost = b.places.filter((p) => p.lost).length
  const acts = b.versions
    .filter((v) => !v.patch && b.versions.length > 1)
    .flatMap((v) => [
      {
        label: `Take the whole record from ${v.plugin}`,
        run: () => bring.mutate({ plugin: v.plugin, keys: [b.key], withReferences: false }),
      },
      {
        label: `… with all that it refers to in ${v.plugin}`,
        run: () => bring.mutate({ plugin: v.plugin, keys: [b.key], withReferences: true }),
      },
    ])
  const patch = b.patched
    ? [
        {
          label: 'Make a patch of this record alone',
          run: () => alone.mutate({ name: `Patch of ${b.label}`, records: [b.key] }),
        },
      ]
    : []
  const back =
    b.decisions > 0
      ? [null, { label: `Take back ${count(b.decisions, 'decision')}`, run: () => undecide.mutate([b.key]) }]
      : []
  return (
    <header className="flex shrink-0 items-start gap-3 border-line border-b px-4 py-2.5">
      <div className="min-w-0 flex-1">
        <h2 className="flex flex-wrap items-baseline gap-x-2">
          <span className="break-words">
            {b.title} “{b.label}”
          </span>
          <span className="font-normal text-[12px] text-ink-2">{b.key}</span>
          {(b.versions.length > 1 || b.state === 'ODD') && <Tag>{STATES[b.state].word}</Tag>}
        </h2>
        <p className="text-ink-2">
          First defined in {b.definedBy}
          {b.base !== b.definedBy && `, measured against ${b.base}`} · today the game reads{' '}
          <b className="font-semibold text-ink">{b.usedBy}</b>
          {b.state !== 'ODD' &&
            (lost > 0 ? ` and loses ${count(lost, 'change')} of others` : ', and nothing is lost')}
        </p>
        {b.odd.map((why) => (
          <p key={why} className="text-ochre">
            {why}
          </p>
        ))}
      </div>
      {acts.length + patch.length + back.length > 0 && (
        <Menu label="More for this record" acts={[...acts, ...patch, ...back]} />
      )}
    </header>
  )
}

interface PlaceProps {
  workspace: number
  /** Under which name a value that is half typed is kept. */
  name: string
  place: PlaceView
  /** The field that is usually changed together with this one, where somebody changed that too. */
  pair: PlaceView | undefined
  onPair: (place: string, decision: Decision) => void
  /** A decision that is on its way to the server; undefined when none is. */
  pending: Decision | null | undefined
  onChoose: (decision: Decision | null) => void
}

function Place({ workspace, name, place: p, pair, pending, onChoose, onPair }: PlaceProps) {
  const [open, setOpen] = useState(() => kept<string>(name) !== undefined)
  const question = p.how === 'ASKED' || p.how === 'DECIDED' || p.decision !== undefined
  const decision = pending === undefined ? p.decision : (pending ?? undefined)
  // what was taken without a question can be chosen otherwise
  const [asks, setAsks] = useState(false)
  return (
    <div className={clsx(GRID, 'border-line border-b')}>
      <span className="break-words px-3.5 py-2.5 text-ink-2">
        {p.title}
        {p.pair && <small className="block text-ink-3">goes with {p.pair}</small>}
      </span>
      <span className="break-words py-2.5 pr-3 text-ink-3">{p.before.text}</span>
      <ul className="flex flex-wrap content-start items-start gap-1.5 py-2 pr-3">
        {p.changes.map((c) => (
          <li key={c.plugin} className="max-w-full">
            <Change change={c} before={p.before} />
          </li>
        ))}
        {p.changes.length === 0 && <li className="py-1 text-ink-3">nobody</li>}
      </ul>
      <div
        className={clsx(
          'min-w-0 border-line-2 border-l-2 border-dashed px-3 py-2',
          p.how === 'ASKED' ? 'bg-ochre-soft' : 'bg-paper',
        )}
      >
        {question || asks ? (
          <>
            <Choices place={p} taken={decision} onChoose={onChoose} />
            <PairOffer pair={pair} decision={decision} onPair={onPair} />
          </>
        ) : (
          <p
            className={clsx(
              'inline-block max-w-full break-words rounded-lg border border-l-4 bg-card px-2 py-0.5',
              p.lost ? 'border-ochre' : 'border-woad',
            )}
          >
            {p.outcome?.text ?? '…'}
          </p>
        )}
        <p className="mt-1 text-[11.5px] text-ink-2 leading-snug">
          {p.why}
          {p.lost && p.how !== 'ASKED' && <>; the game reads “{p.used.text}” now</>}
        </p>
        {open ? (
          <ValueEditor
            workspace={workspace}
            name={name}
            title={p.title}
            kind={p.kind}
            text={p.text}
            onWrite={(text) => {
              onChoose({ own: text })
              setOpen(false)
            }}
            onRemove={
              p.place.includes('[')
                ? undefined
                : () => {
                    onChoose(REMOVED)
                    setOpen(false)
                  }
            }
            onClose={() => setOpen(false)}
          />
        ) : (
          p.place !== '(record)' && (
            <p className="mt-1 flex flex-wrap gap-x-3 text-[11.5px]">
              {!question && !asks && p.changes.length > 0 && (
                <button type="button" onClick={() => setAsks(true)} className="min-h-6 text-woad underline">
                  Choose another
                </button>
              )}
              <button type="button" onClick={() => setOpen(true)} className="min-h-6 text-woad underline">
                Write another value
              </button>
            </p>
          )
        )}
      </div>
    </div>
  )
}

/** Offers the same word for the field that goes with this one. */
function PairOffer({
  pair,
  decision,
  onPair,
}: {
  pair: PlaceView | undefined
  decision: Decision | undefined
  onPair: (place: string, decision: Decision) => void
}) {
  const alike = pair?.changes.find((c) => same({ take: c.plugin }, decision))
  if (!pair || !decision || !(alike || same(decision, AS_BEFORE)) || same(pair.decision, decision))
    return null
  return (
    <button
      type="button"
      onClick={() => onPair(pair.place, decision)}
      className="mt-1 self-start text-left text-[11.5px] min-h-6 text-woad underline"
    >
      {alike
        ? `Take ${pair.title} from ${alike.modName} too: ${alike.value.text}`
        : `Take ${pair.title} as before too`}
    </button>
  )
}

/** What one plugin did: a value, or what it added to a list and took away. */
function Change({ change: c, before }: { change: RecordChange; before: Schema['Words'] }) {
  const byItem = before.items.length > 0 && c.value.items.length > 0
  return (
    <div className="rounded-lg border border-line-2 bg-card px-2 py-1">
      <p className="text-[11px] text-ink-2">{c.modName}</p>
      {byItem ? (
        <p className="flex flex-wrap gap-x-2">
          {c.added.map((a) => (
            <span key={a}>
              <b className="text-woad">added</b> {a}
            </span>
          ))}
          {c.altered.map((a) => (
            <span key={a.name}>
              {a.name} <span className="text-ink-3">{a.before}</span> → <b className="text-woad">{a.after}</b>
            </span>
          ))}
          {c.removed.map((r) => (
            <span key={r} className="text-ink-2">
              <b>without</b> <s>{r}</s>
            </span>
          ))}
          {c.added.length + c.altered.length + c.removed.length === 0 && (
            <span className="break-words font-medium">{c.value.text}</span>
          )}
        </p>
      ) : (
        <p className="break-words font-medium">{c.value.text}</p>
      )}
    </div>
  )
}

/** The question, as a set of answers of which one is taken. */
function Choices({
  place: p,
  taken,
  onChoose,
}: {
  place: PlaceView
  taken: Decision | undefined
  onChoose: (decision: Decision | null) => void
}) {
  const answers: { decision: Decision; text: string; from: string }[] = [
    ...p.changes.map((c) => ({ decision: { take: c.plugin }, text: c.value.text, from: c.modName })),
    ...(p.suggested
      ? [{ decision: MERGED, text: p.suggested.text, from: 'the changes laid into one another' }]
      : []),
    ...(p.changes.length > 0
      ? [{ decision: AS_BEFORE, text: p.before.text, from: 'as before any mod' }]
      : []),
    ...(isOwn(taken)
      ? [{ decision: taken, text: p.outcome?.text ?? taken.own ?? 'removed', from: 'your own' }]
      : []),
  ]
  return (
    <fieldset className="flex flex-col gap-1" onKeyDown={walkAnswers}>
      <legend className="mb-1 font-semibold text-[11.5px]">
        {p.how === 'DECIDED' ? 'You took' : p.how === 'ASKED' && taken ? 'Still this one?' : 'Which one?'}
      </legend>
      {answers.map((a) => (
        <label
          key={JSON.stringify(a.decision)}
          className={clsx(
            'flex cursor-pointer items-baseline gap-2 rounded-lg border bg-card px-2 py-1 has-focus-visible:outline-2 has-focus-visible:outline-woad',
            same(taken, a.decision) ? 'border-woad border-l-4' : 'border-line-2 hover:border-ink-3',
          )}
        >
          <input
            type="radio"
            name={p.place}
            checked={same(taken, a.decision)}
            onChange={() => onChoose(a.decision)}
            onClick={() => p.how === 'ASKED' && same(taken, a.decision) && onChoose(a.decision)}
            className="shrink-0 translate-y-[2px] accent-(--woad)"
          />
          <span className="min-w-0 break-words">
            <b className="font-medium">{a.text}</b> <small className="text-ink-2">{a.from}</small>
          </span>
        </label>
      ))}
      {p.decision !== undefined && (
        <button
          type="button"
          onClick={() => onChoose(null)}
          className="self-start text-[11.5px] min-h-6 text-woad underline"
        >
          Take the decision back
        </button>
      )}
    </fieldset>
  )
}

/** The fields that nobody changed: to look at, and to write another value into. */
function Rest({
  workspace,
  name,
  board: b,
  onChoose,
}: {
  workspace: number
  name: string
  board: Schema['Board']
  onChoose: (place: string, decision: Decision | null) => void
}) {
  const [edited, setEdited] = useState<string | null>(null)
  if (b.same.length === 0) return null
  return (
    <details className="border-line border-b px-3.5 py-2" open={b.places.length === 0}>
      <summary className="cursor-pointer text-ink-2">
        {count(b.same.length, b.places.length > 0 ? 'more field' : 'field')}{' '}
        {b.versions.length > 1 && b.state !== 'ODD'
          ? b.same.length === 1
            ? 'is the same everywhere'
            : 'are the same everywhere'
          : `as ${b.usedBy} has it`}
      </summary>
      <dl className="mt-1.5 grid grid-cols-[110px_minmax(0,1fr)] gap-x-3 gap-y-1">
        {b.same.map((f) => (
          <div key={f.place} className="contents">
            <dt className="break-words py-0.5 text-ink-2">{f.title}</dt>
            <dd className="min-w-0 py-0.5">
              <span className="break-words">{f.value.text}</span>{' '}
              {edited === f.place ? (
                <ValueEditor
                  workspace={workspace}
                  name={`${name} ${f.place}`}
                  title={f.title}
                  kind={f.kind}
                  text={f.text}
                  onWrite={(text) => {
                    onChoose(f.place, { own: text })
                    setEdited(null)
                  }}
                  onRemove={() => {
                    onChoose(f.place, REMOVED)
                    setEdited(null)
                  }}
                  onClose={() => setEdited(null)}
                />
              ) : (
                <button
                  type="button"
                  aria-label={`Write another ${f.title}`}
                  onClick={() => setEdited(f.place)}
                  className="text-[11.5px] min-h-6 text-woad underline"
                >
                  write another
                </button>
              )}
            </dd>
          </div>
        ))}
      </dl>
    </details>
  )
}

/** Which plugins have it, what it leads to and what leads to it. */
function Relations({ workspace, board: b }: { workspace: number; board: Schema['Board'] }) {
  const to = (key: string) => `/workspaces/${workspace}/records/${key}`
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3 px-3.5 py-3 max-lg:grid-cols-1">
      <section aria-label="Versions">
        <h3 className="mb-1">{count(b.versions.length, 'version')}, the last is read</h3>
        <ol>
          {b.versions.map((v) => (
            <li key={v.plugin} className="py-0.5 text-ink-2">
              <b className="font-medium text-ink">{v.plugin}</b>
              {v.sees && v.sees !== b.definedBy && ` on top of ${v.sees}`}
              {v.removed && ' removes it'}
              {!v.counts && !v.patch && v.sees && ', stood for by a later one'}
              {v.patch && ', combined from the others'}
            </li>
          ))}
        </ol>
      </section>
      <section aria-label="References">
        <h3 className="mb-1">
          {b.referredBy === 0 ? 'Nothing refers to it' : `${count(b.referredBy, 'version')} refer to it`}
        </h3>
        {b.referredBy > 0 && (
          <Link
            to={`${to(b.key)}?${new URLSearchParams([
              ['any', ''],
              ['refersTo', b.key],
            ])}`}
            className="text-woad underline"
          >
            Show them in the list
          </Link>
        )}
        <ul className="max-h-40 overflow-y-auto">
          {b.referrers.map((r) => (
            <li key={r.key + r.plugin} className="py-0.5 text-ink-2">
              <Link to={to(r.key)} className="text-woad underline">
                {r.label}
              </Link>{' '}
              in {r.plugin}
              {!r.used && ', which is not read'}
            </li>
          ))}
        </ul>
        {b.refersTo.length + b.nowhere > 0 && (
          <p className="mt-1.5 text-ink-2">
            It refers to{' '}
            {b.refersTo.map((r, i) => (
              <span key={r.key}>
                {i > 0 && ', '}
                <Link to={to(r.key)} className="text-woad underline">
                  {r.label}
                </Link>
              </span>
            ))}
            {b.nowhere > 0 && (
              <b className="font-medium text-madder">
                {b.refersTo.length > 0 && ' and '}
                {count(b.nowhere, 'record')} that {b.nowhere === 1 ? 'is' : 'are'} not there
              </b>
            )}
            .
          </p>
        )}
      </section>
    </div>
  )
}
