import clsx from 'clsx'
import type { Schema } from '../api/client'
import { count, list, number } from '../ui/text'

type Board = Schema['FileBoard']

/** The outcome of a text, stretch by stretch, with whose each is. */
export function Outcome({ board: b, nameOf }: { board: Board; nameOf: (id: string) => string }) {
  let line = 1
  return (
    <section aria-label="What comes out" className="mt-3">
      <h3 className="font-semibold">What comes out</h3>
      <div className="mt-1 overflow-x-auto rounded-lg border border-line py-1 font-mono text-[12px]">
        {b.pieces.map((p) => {
          const from = line
          line += p.text.split('\n').length - 1
          const place = p.place >= 0 ? b.places[p.place] : undefined
          const whose =
            place?.how === 'ASKED'
              ? 'still to settle'
              : p.of.length > 0
                ? list(p.of.map(nameOf))
                : place
                  ? 'you'
                  : ''
          return (
            <div key={from} className={clsx('flex', whose && 'bg-sunk')}>
              <span className="num w-10 shrink-0 select-none pr-2 text-right text-ink-2">{from}</span>
              <pre className="min-w-0 flex-1 whitespace-pre-wrap">{fold(p.text, whose !== '')}</pre>
              <span
                className={clsx(
                  'w-44 shrink-0 truncate px-2 font-sans',
                  place?.how === 'ASKED' ? 'text-ochre' : 'text-ink-2',
                )}
                title={whose}
              >
                {whose}
              </span>
            </div>
          )
        })}
      </div>
    </section>
  )
}

/** Of a long stretch that nobody changed, its ends. */
function fold(text: string, whole: boolean): string {
  const lines = text.endsWith('\n') ? text.slice(0, -1).split('\n') : text.split('\n')
  if (whole || lines.length <= 9) return lines.join('\n')
  const gone = lines.length - 8
  return [...lines.slice(0, 4), `… ${count(gone, 'line')} as they were …`, ...lines.slice(-4)].join('\n')
}

/** What was changed where there are keys, one line each. */
export function Changes({ board: b, nameOf }: { board: Board; nameOf: (id: string) => string }) {
  const taken = b.places.filter((p) => p.how === 'TAKEN')
  const alike = taken.filter((p) => p.base === undefined && p.from.length > 1)
  return (
    <section aria-label="What comes out" className="mt-3">
      <h3 className="font-semibold">
        {taken.length === 0
          ? 'Nothing else is changed'
          : `${count(taken.length, 'change')} without a question`}
      </h3>
      {alike.length > 0 && (
        <p className="mt-1 text-ink-2">
          {list(alike.slice(0, 5).map((p) => p.where))}
          {alike.length > 5 && ` and ${number(alike.length - 5)} more`} {alike.length === 1 ? 'was' : 'were'}{' '}
          added by several alike, and {alike.length === 1 ? 'stands' : 'stand'} once.
        </p>
      )}
      <ul className="mt-1 rounded-lg border border-line">
        {taken.map((p) => (
          <li key={p.key} className="flex gap-3 border-line border-b px-3 py-1 last:border-b-0">
            <span className="w-52 shrink-0 break-words">{p.where}</span>
            <span className="min-w-0 flex-1 font-mono text-[12px]">
              {p.base !== undefined && <span className="text-ink-2">{short(p.base)} → </span>}
              {p.outcome === undefined ? 'removed' : short(p.outcome)}
            </span>
            <span className="w-44 shrink-0 truncate text-ink-2">{list(p.from.map(nameOf))}</span>
          </li>
        ))}
      </ul>
      <details className="mt-2">
        <summary className="cursor-pointer text-ink-2">The whole file</summary>
        <pre className="mt-1 overflow-x-auto rounded-lg border border-line px-3 py-2 font-mono text-[12px]">
          {b.shown}
        </pre>
      </details>
    </section>
  )
}

function short(text: string): string {
  const one = text.replace(/\s+/g, ' ').trim()
  return one.length > 90 ? `${one.slice(0, 90)}…` : one
}
