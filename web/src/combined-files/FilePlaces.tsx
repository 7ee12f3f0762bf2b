import clsx from 'clsx'
import { diffWordsWithSpace } from 'diff'
import { useId, useState } from 'react'
import type { Schema } from '../api/client'
import type { FileChoice } from '../mends/queries'
import { Button } from '../ui/Button'
import { kept, useKept } from '../ui/kept'
import { walkAnswers } from '../ui/radios'
import { list } from '../ui/text'
import { type Around, bothChanges } from './around'

type Place = Schema['FilePlace']

/** Letters up to which the words that differ are looked for. */
const LONG = 6_000

/** A name that may stand only once, and that several bring in. */
export function Twice({
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
      tabIndex={-1}
      data-question={p.how === 'ASKED' ? '' : undefined}
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
export function OpenPlace({
  place: p,
  nameOf,
  settle,
  text,
  around,
  keep,
}: {
  place: Place
  nameOf: (id: string) => string
  settle: (c: FileChoice) => void
  text: boolean
  /** What lies around it in the file. */
  around: Around | null
  /** Under which name what is half typed is kept. */
  keep: string
}) {
  const group = useId()
  const [typing, setTyping] = useState(() => kept<string>(keep) !== undefined)
  const [typed, setTyped, drop] = useKept(keep, p.outcome ?? '')
  const asked = p.how === 'ASKED'
  const both = text && p.sides.length === 2
  const options: { label: string; shown: string; take: string[]; on: boolean }[] = p.sides.map((s) => ({
    label: list(s.of.map(nameOf)),
    shown: s.text ?? '',
    take: [s.of[0] ?? ''],
    on: !asked && same(p.from, s.of),
  }))
  const [first, second] = p.sides
  const together =
    both && first && second ? bothChanges(p.base ?? '', first.text ?? '', second.text ?? '') : null
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
  const why =
    p.sides.length === 1
      ? 'is alike in all of them, and not as the game has it: they may be from before an update of the game'
      : 'is changed in different ways'
  const own = !asked && p.from.length === 0 && p.outcome !== p.base
  return (
    <fieldset
      className={clsx('mt-3 rounded-lg border px-3 pt-1 pb-2.5', asked ? 'border-ochre' : 'border-line')}
      aria-label={p.where}
      tabIndex={-1}
      onKeyDown={walkAnswers}
      data-question={asked ? '' : undefined}
    >
      <legend className="px-1">
        <b className="font-semibold">{p.where}</b>{' '}
        <span className="text-ink-2">{asked ? why : 'you have settled this'}</span>
      </legend>
      {options.map((o) => (
        <label key={o.label} className="flex min-h-6 cursor-pointer items-baseline gap-2 py-[3px]">
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
      {around && <Neighbours around={around} />}
      {together !== null && (
        <Button
          className="mt-1 mr-1.5 h-7"
          disabled={!asked && p.outcome === together}
          onClick={() => settle({ place: p.key, text: together })}
        >
          Keep both: they change lines beside one another
        </Button>
      )}
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
            onClick={() => {
              drop()
              settle({ place: p.key, text: typed })
            }}
          >
            Take what I typed
          </Button>
        </div>
      ) : (
        <Button look="quiet" className="mt-1 h-7" onClick={() => setTyping(true)}>
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

/** The lines on either side of a question; they can be folded away. */
function Neighbours({ around: { before, behind } }: { around: Around }) {
  return (
    <details open className="mt-1">
      <summary className="w-fit cursor-pointer text-[11.5px] text-ink-2">What lies around it</summary>
      <pre className="mt-1 whitespace-pre-wrap rounded-md bg-sunk px-2 py-1 font-mono text-[12px] text-ink-2">
        {before}
        <span className="my-0.5 block border-ochre border-l-2 pl-1.5 font-sans text-ochre">this place</span>
        {behind}
      </pre>
    </details>
  )
}
