import { ChevronDown, ChevronUp } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useCombine, useFileBoard, useSettle } from '../mends/queries'
import { Button } from '../ui/Button'
import { Failed, Loading } from '../ui/States'
import { Tag } from '../ui/Tag'
import { list } from '../ui/text'
import { around } from './around'
import { Changes, Outcome } from './FileOutcome'
import { OpenPlace, Twice } from './FilePlaces'
import { SweepDialog } from './SweepDialog'

type Board = Schema['FileBoard']

/** One file on the board: what is asked, what comes out, and from whom. */
export function FileBoard({
  workspace,
  path,
  carry,
  before,
  after,
  choose,
}: {
  workspace: number
  path: string
  carry?: string
  /** The files with questions on either side. */
  before?: string
  after?: string
  choose: (path: string) => void
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const question = useRef<Element | null>(null)
  useEffect(() => {
    const places = scroller.current
    const noted = (e: FocusEvent) => {
      if (e.target instanceof Element) question.current = e.target.closest('[data-question]')
    }
    places?.addEventListener('focusin', noted)
    return () => places?.removeEventListener('focusin', noted)
  })
  const board = useFileBoard(workspace, path, carry)
  const [sweeping, setSweeping] = useState(false)
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
              onChange={(e) => settle.mutate({ take: [e.target.value] })}
              className="h-7 max-w-64 rounded-md border border-line-2 bg-card px-1.5 text-ink"
            >
              {b.file.bases.map((v) => (
                <option key={v.id} value={v.id}>
                  {v.id === '' ? 'the unmodded game' : v.name}
                </option>
              ))}
            </select>
            has
          </label>
        </div>
        <span className="flex">
          <Button
            look="quiet"
            icon
            aria-label="The question before"
            onClick={() => toQuestion(scroller.current, question.current, -1) || (before && choose(before))}
          >
            <ChevronUp size={16} aria-hidden="true" />
          </Button>
          <Button
            look="quiet"
            icon
            aria-label="The next question"
            onClick={() => toQuestion(scroller.current, question.current, 1) || (after && choose(after))}
          >
            <ChevronDown size={16} aria-hidden="true" />
          </Button>
        </span>
        {b.file.asked > 1 && <Button onClick={() => setSweeping(true)}>One answer for the rest …</Button>}
        {sweeping && (
          <SweepDialog workspace={workspace} file={b.file} carry={carry} onClose={() => setSweeping(false)} />
        )}
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
      <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
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
        {b.file.madeFrom && (
          <p className="mt-2 text-ink-2">
            {b.file.base.name} is what one of the two was made from: its file is nearer to that than to any
            other, so each is measured against it.
          </p>
        )}
        {b.file.beforeUpdate && (
          <p className="mt-2 text-ink-2">
            {b.file.base.name} is the game’s file of before an update, which mods were made from. What the
            update has changed since is one more change beside theirs.
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
              around={around(b, p)}
              keep={`${workspace} ${path} ${carry ?? ''} ${p.key}`}
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

/** Puts the focus on the open question behind the one where one was, or before it; false if there is none. */
function toQuestion(board: HTMLElement | null, here: Element | null, step: 1 | -1): boolean {
  const all = [...(board?.querySelectorAll<HTMLElement>('[data-question]') ?? [])]
  const at = here instanceof HTMLElement ? all.indexOf(here) : -1
  const next = all[at < 0 ? (step > 0 ? 0 : -1) : at + step]
  if (!next) return false
  next.scrollIntoView({ block: 'nearest' })
  next.focus()
  return true
}
