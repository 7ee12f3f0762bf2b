import clsx from 'clsx'
import type { Schema } from '../api/client'
import { Failed, Loading } from '../ui/States'
import { count } from '../ui/text'
import { useBoard, useDecide } from './queries'

type PlaceView = Schema['PlaceView']
type RecordChange = Schema['RecordChange']

/** The choice of what was there before anybody changed it. */
const AS_BEFORE = '/before'

/** One record laid open: what was before any mod, who changed what, and the outcome. */
export function Board({ workspace, owner, id }: { workspace: number; owner: string; id: number }) {
  const board = useBoard(workspace, owner, id)
  const decide = useDecide(workspace, owner, id)
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
  const lost = b.places.filter((p) => p.lost).length
  return (
    <section aria-label={b.label} className="card flex min-w-0 flex-1 flex-col overflow-hidden">
      <header className="shrink-0 border-line border-b px-4 py-2.5">
        <h2>
          {b.title} “{b.label}”
        </h2>
        <p className="text-ink-2">
          First defined in {b.definedBy}
          {b.base !== b.definedBy && `, measured against ${b.base}`} · today the game reads{' '}
          <b className="font-semibold text-ink">{b.usedBy}</b>
          {lost > 0 ? ` and loses ${count(lost, 'change')} of others` : ', and nothing is lost'}
        </p>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <div className="min-w-[640px]">
          <div className="sticky top-0 z-10 grid grid-cols-[110px_130px_minmax(0,1fr)_minmax(190px,0.62fr)] max-lg:grid-cols-[72px_80px_minmax(0,1fr)_minmax(0,1fr)] border-line border-b bg-card text-[11px] text-ink-3">
            <span className="px-3.5 py-1.5">field</span>
            <span className="py-1.5">before any mod</span>
            <span className="py-1.5">changed by</span>
            <span className="border-line-2 border-l-2 border-dashed px-3 py-1.5">outcome</span>
          </div>
          {b.places.map((p) => (
            <Place
              key={p.place}
              place={p}
              pending={
                decide.isPending && decide.variables.place === p.place ? decide.variables.choice : undefined
              }
              onChoose={(choice) => decide.mutate({ place: p.place, choice })}
            />
          ))}
          {b.same > 0 && (
            <p className="px-3.5 py-2.5 text-ink-2">
              {count(b.same, 'more field')} {b.same === 1 ? 'is' : 'are'} the same everywhere.
            </p>
          )}
        </div>
      </div>
    </section>
  )
}

interface PlaceProps {
  place: PlaceView
  /** A choice that is on its way to the server; undefined when none is. */
  pending: string | null | undefined
  onChoose: (choice: string | null) => void
}

function Place({ place: p, pending, onChoose }: PlaceProps) {
  const open = p.how === 'ASKED' || p.how === 'DECIDED' || p.choice !== undefined
  return (
    <div className="grid grid-cols-[110px_130px_minmax(0,1fr)_minmax(190px,0.62fr)] max-lg:grid-cols-[72px_80px_minmax(0,1fr)_minmax(0,1fr)] border-line border-b">
      <span className="break-words px-3.5 py-2.5 text-ink-2">
        {p.title}
        {p.pair && <small className="block text-ink-3">goes with {p.pair}</small>}
      </span>
      <span className="break-words py-2.5 pr-3 text-ink-3">{p.before.text}</span>
      <ul className="flex flex-wrap content-start items-start gap-1.5 py-2 pr-3">
        {p.changes.map((c) => (
          <li key={c.plugin}>
            <Change change={c} before={p.before} />
          </li>
        ))}
      </ul>
      <div
        className={clsx(
          'border-line-2 border-l-2 border-dashed px-3 py-2',
          p.how === 'ASKED' ? 'bg-ochre-soft' : 'bg-paper',
        )}
      >
        {open ? (
          <Choices place={p} pending={pending} onChoose={onChoose} />
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
      </div>
    </div>
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
        </p>
      ) : (
        <p className="break-words font-medium">{c.value.text}</p>
      )}
    </div>
  )
}

/** The question, as a set of answers of which one is taken. */
function Choices({ place: p, pending, onChoose }: PlaceProps) {
  const answers = [
    ...p.changes.map((c) => ({ choice: c.plugin, text: c.value.text, from: c.modName })),
    { choice: AS_BEFORE, text: p.before.text, from: 'as before any mod' },
  ]
  const taken = (pending === undefined ? p.choice : pending)?.toLowerCase()
  return (
    <fieldset className="flex flex-col gap-1">
      <legend className="mb-1 font-semibold text-[11.5px]">
        {p.how === 'ASKED' ? 'Which one?' : 'You took'}
      </legend>
      {answers.map((a) => (
        <label
          key={a.choice}
          className={clsx(
            'flex cursor-pointer items-baseline gap-2 rounded-lg border bg-card px-2 py-1 has-focus-visible:outline-2 has-focus-visible:outline-woad',
            taken === a.choice.toLowerCase() ? 'border-woad border-l-4' : 'border-line-2 hover:border-ink-3',
          )}
        >
          <input
            type="radio"
            name={p.place}
            checked={taken === a.choice.toLowerCase()}
            onChange={() => onChoose(a.choice)}
            className="shrink-0 translate-y-[2px] accent-(--woad)"
          />
          <span className="min-w-0 break-words">
            <b className="font-medium">{a.text}</b> <small className="text-ink-2">{a.from}</small>
          </span>
        </label>
      ))}
      {p.choice !== undefined && (
        <button
          type="button"
          onClick={() => onChoose(null)}
          className="self-start text-[11.5px] text-woad underline"
        >
          Take the decision back
        </button>
      )}
    </fieldset>
  )
}
