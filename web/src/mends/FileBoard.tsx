import clsx from 'clsx'
import { diffWordsWithSpace } from 'diff'
import { useId, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { Button } from '../ui/Button'
import { Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count, list } from '../ui/text'
import { type FileChoice, useCombine, useFileBoard, useSettle } from './queries'

type Board = Schema['FileBoard']
type Place = Schema['FilePlace']

/** Letters up to which the words that differ are looked for. */
const LONG = 6_000

/** One file on the board: what is asked, what comes out, and from whom. */
export function FileBoard({ workspace, path, carry }: { workspace: number; path: string; carry?: string }) {
  const board = useFileBoard(workspace, path, carry)
  const settle = useSettle(workspace, path, carry)
  const { say } = useNotices()
  const name = path.slice(path.lastIndexOf('/') + 1)
  const combine = useCombine(workspace, () => say(`${name} is in the mend.`))
  const b = board.data
  if (!b)
    return (
      <div className="card flex-1">
        {board.isError ? (
          <Failed error={board.error} retry={() => board.refetch()} />
        ) : (
          <Loading what="the file" />
        )}
      </div>
    )
  const nameOf = names(b)
  const open = b.places.filter((p) => p.how === 'ASKED' || p.how === 'DECIDED')
  const settled = b.file.state === 'COMBINES' || b.file.state === 'PROPOSED'
  return (
    <section aria-label={path} className="card flex min-w-0 flex-1 flex-col overflow-hidden">
      <header className="flex flex-wrap items-start gap-3 border-line border-b px-4 py-2.5">
        <div className="min-w-0 flex-1">
          <h2 className="break-all">{path}</h2>
          <p className="text-ink-2">
            {list(b.file.contenders.map((c) => c.name))} · combined as {WAYS[b.as] ?? b.as}
          </p>
          <label className="mt-1 flex items-baseline gap-2 text-ink-2">
            each against what
            <select
              value={b.file.base.id}
              onChange={(e) => settle.mutate({ place: '/base', take: [e.target.value] })}
              className="h-7 max-w-64 rounded-md border border-line-2 bg-card px-1.5 text-ink"
            >
              {b.file.bases.map((v) => (
                <option key={v.id} value={v.id}>
                  {v.mod === 0 ? 'the unmodded game' : v.name}
                </option>
              ))}
            </select>
            has
          </label>
        </div>
        {settled && !b.file.written && (
          <Button
            look="strong"
            disabled={combine.isPending}
            onClick={() => combine.mutate({ paths: [path], carry })}
          >
            {combine.isPending ? 'Combining …' : 'Put it into the mend'}
          </Button>
        )}
        {b.file.written && <Tag>in the mend</Tag>}
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {b.remarks.map((r) => (
          <p key={r} className="mt-2 text-ink-2">
            {r}
          </p>
        ))}
        {b.file.state === 'PROPOSED' && (
          <p className="mt-2 text-ink-2">
            The game has no such file, so that of {b.file.base.name}, the lowest layer, is the base. See
            whether the outcome is what you want.
          </p>
        )}
        {open.map((p) =>
          p.once ? (
            <Twice key={p.key} place={p} nameOf={nameOf} settle={(c) => settle.mutate(c)} />
          ) : (
            <OpenPlace
              key={p.key}
              place={p}
              nameOf={nameOf}
              settle={(c) => settle.mutate(c)}
              text={b.as === 'text'}
            />
          ),
        )}
        {b.pieces.length > 0 ? <Outcome board={b} nameOf={nameOf} /> : <Changes board={b} nameOf={nameOf} />}
        <p className="mt-3">
          <Link
            to={`/workspaces/${workspace}/overlaps/path?at=${encodeURIComponent(path)}`}
            className="text-woad underline"
          >
            Whose file is in play without combining
          </Link>
        </p>
      </div>
    </section>
  )
}

const WAYS: Record<string, string> = {
  text: 'lines of text',
  json: 'JSON, key by key',
  yaml: 'YAML, key by key',
  xml: 'XML, element by element',
  ini: 'settings, key by key',
  properties: 'properties, key by key',
  table: 'a table, cell by cell',
  list: 'a list, line by line',
}

function names(b: Board): (id: string) => string {
  const all = new Map(b.file.contenders.map((c) => [c.id, c.name]))
  return (id) => all.get(id) ?? id
}

/** A name that may stand only once, and that several bring in. */
function Twice({
  place: p,
  nameOf,
  settle,
}: {
  place: Place
  nameOf: (id: string) => string
  settle: (c: FileChoice) => void
}) {
  const all = p.sides.flatMap((s) => s.of)
  return (
    <section
      aria-label={p.where}
      className={clsx('mt-3 rounded-lg border px-3 py-2', p.how === 'ASKED' ? 'border-ochre' : 'border-line')}
    >
      <p>
        <b className="font-semibold">{p.where}</b>, and the game wants it once. {list(all.map(nameOf))} bring
        it in. Edit the file in one of these mods, or leave it so.
      </p>
      {p.how === 'ASKED' ? (
        <Button className="mt-1.5 h-7" onClick={() => settle({ place: p.key, take: all })}>
          Leave it so
        </Button>
      ) : (
        <Button look="quiet" className="mt-1 h-7" onClick={() => settle({ place: p.key, forget: true })}>
          Ask me again
        </Button>
      )}
    </section>
  )
}

/** A place that two change differently: the sides, both in either order, what was there, or typed. */
function OpenPlace({
  place: p,
  nameOf,
  settle,
  text,
}: {
  place: Place
  nameOf: (id: string) => string
  settle: (c: FileChoice) => void
  text: boolean
}) {
  const group = useId()
  const [typing, setTyping] = useState(false)
  const [typed, setTyped] = useState(p.outcome ?? '')
  const asked = p.how === 'ASKED'
  const both = text && p.sides.length === 2
  const options: { label: string; shown: string; take: string[]; on: boolean }[] = p.sides.map((s) => ({
    label: list(s.of.map(nameOf)),
    shown: s.text ?? '',
    take: [s.of[0] ?? ''],
    on: !asked && same(p.from, s.of),
  }))
  const [first, second] = p.sides
  if (both && first && second)
    for (const [one, two] of [
      [first, second],
      [second, first],
    ] as const)
      options.push({
        label: `${list(one.of.map(nameOf))}, then ${list(two.of.map(nameOf))}`,
        shown: '',
        take: [one.of[0] ?? '', two.of[0] ?? ''],
        on: !asked && same(p.from, [...one.of, ...two.of]),
      })
  options.push({
    label: 'As it was',
    shown: p.base ?? '',
    take: [],
    on: !asked && p.from.length === 0 && p.outcome === p.base,
  })
  const own = !asked && p.from.length === 0 && p.outcome !== p.base
  return (
    <fieldset
      className={clsx('mt-3 rounded-lg border px-3 pt-1 pb-2.5', asked ? 'border-ochre' : 'border-line')}
      aria-label={p.where}
    >
      <legend className="px-1">
        <b className="font-semibold">{p.where}</b>{' '}
        <span className="text-ink-2">{asked ? 'is changed in different ways' : 'you have settled this'}</span>
      </legend>
      {options.map((o) => (
        <label key={o.label} className="flex cursor-pointer items-baseline gap-2 py-0.5">
          <input
            type="radio"
            name={group}
            checked={o.on}
            onChange={() => settle({ place: p.key, take: o.take })}
            className="translate-y-[1px] accent-(--woad)"
          />
          {o.take.length > 1 ? (
            <span className="min-w-0 flex-1">{o.label}</span>
          ) : (
            <>
              <span className="w-44 shrink-0 truncate" title={o.label}>
                {o.label}
              </span>
              <Words text={o.shown} base={o.take.length > 0 ? p.base : undefined} />
            </>
          )}
        </label>
      ))}
      {typing || own ? (
        <div className="mt-1.5">
          <textarea
            aria-label={`What is to stand there: ${p.where}`}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            rows={Math.min(12, typed.split('\n').length + 1)}
            className="w-full rounded-md border border-line-2 bg-card px-2 py-1 font-mono text-[12px] outline-offset-1"
          />
          <Button
            className="h-7"
            disabled={own && typed === p.outcome}
            onClick={() => settle({ place: p.key, text: typed })}
          >
            Take what I typed
          </Button>
        </div>
      ) : (
        <Button
          look="quiet"
          className="mt-1 h-7"
          onClick={() => {
            setTyped(p.outcome ?? '')
            setTyping(true)
          }}
        >
          Type it
        </Button>
      )}
      {!asked && (
        <Button look="quiet" className="mt-1 h-7" onClick={() => settle({ place: p.key, forget: true })}>
          Ask me again
        </Button>
      )}
    </fieldset>
  )
}

function same(a: readonly string[], b: readonly string[]): boolean {
  return a.length === b.length && a.every((x, i) => x === b[i])
}

/** What stands there, with the words that are others than before set off. */
function Words({ text, base }: { text: string; base?: string }) {
  if (text === '') return <span className="text-ink-2">nothing</span>
  const parts =
    base === undefined || base.length + text.length > LONG
      ? [{ value: text, added: false, removed: false }]
      : diffWordsWithSpace(base, text)
  const shown = parts.filter((p) => !p.removed)
  return (
    <span className="min-w-0 flex-1 whitespace-pre-wrap break-words font-mono text-[12px]">
      {shown.map((p, i) => {
        const value = i === shown.length - 1 && p.value.endsWith('\n') ? p.value.slice(0, -1) : p.value
        return p.added ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text have no name but their place
          <mark key={i} className="rounded-sm bg-ochre-soft text-ink">
            {value}
          </mark>
        ) : (
          value
        )
      })}
    </span>
  )
}

/** The outcome of a text, stretch by stretch, with whose each is. */
function Outcome({ board: b, nameOf }: { board: Board; nameOf: (id: string) => string }) {
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
function Changes({ board: b, nameOf }: { board: Board; nameOf: (id: string) => string }) {
  const taken = b.places.filter((p) => p.how === 'TAKEN')
  return (
    <section aria-label="What comes out" className="mt-3">
      <h3 className="font-semibold">
        {taken.length === 0
          ? 'Nothing else is changed'
          : `${count(taken.length, 'change')} without a question`}
      </h3>
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
