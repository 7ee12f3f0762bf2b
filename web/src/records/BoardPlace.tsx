import clsx from 'clsx'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { kept } from '../ui/kept'
import { walkAnswers } from '../ui/radios'
import { AS_BEFORE, type Decision, isOwn, MERGED, REMOVED, same } from './decision'
import { ValueEditor } from './ValueEditor'

type PlaceView = Schema['PlaceView']
type RecordChange = Schema['RecordChange']

/** The columns: field, before, changes, outcome. */
export const GRID =
  'grid grid-cols-[110px_130px_minmax(0,1fr)_minmax(190px,0.62fr)] max-lg:grid-cols-[72px_80px_minmax(0,1fr)_minmax(0,1fr)]'

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

/** One field of the record: what was there, who changed it, and the answer. */
export function BoardPlace({ workspace, name, place: p, pair, pending, onChoose, onPair }: PlaceProps) {
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
