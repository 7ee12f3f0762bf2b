import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react'
import { Button } from '../ui/Button'
import { SearchField } from '../ui/SearchField'
import { count, number } from '../ui/text'
import { type Folded, folded, hits, type Line, type Piece, rowWith, sideBySide } from './compare'

/** How high a line is that is not wrapped, in pixels. */
const LINE = 19

interface ComparedTextsProps {
  left: string
  right: string
  /** About each of them, such as its encoding. */
  notes: [string, string]
}

/**
 * Two texts line by line. It opens at the first difference, folds what is equal, goes from difference to difference by
 * n and p, and is searched.
 */
export function ComparedTexts({ left, right, notes }: ComparedTextsProps) {
  const lines = useMemo(() => sideBySide(left, right), [left, right])
  const [open, setOpen] = useState<ReadonlySet<number>>(new Set())
  const [wrap, setWrap] = useState(true)
  const [find, setFind] = useState('')
  const rows = useMemo(() => folded(lines, open), [lines, open])
  const found = useMemo(() => hits(lines, find), [lines, find])
  const changes = useMemo(
    () => lines.flatMap((l, i) => (!l.same && lines[i - 1]?.same !== false ? [i] : [])),
    [lines],
  )
  // the line that was gone to last: a difference, or a hit
  const [at, setAt] = useState<number | null>(null)
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => LINE,
    overscan: 20,
  })
  const scrollTo = useRef<number | null>(null)
  const goTo = (line: number) => {
    setAt(line)
    scrollTo.current = line
    const row = rows[rowWith(rows, line)]
    if (row && 'fold' in row) setOpen(new Set(open).add(row.from))
    else show(line)
  }
  const show = (line: number) => {
    scrollTo.current = null
    const row = rowWith(rows, line)
    if (row >= 0) virtual.scrollToIndex(row, { align: 'center' })
  }
  // what was folded is drawn first
  // biome-ignore lint/correctness/useExhaustiveDependencies: once the rows are others
  useEffect(() => {
    if (scrollTo.current !== null) show(scrollTo.current)
  }, [rows])
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for two texts
  useEffect(() => {
    const first = changes[0]
    if (first !== undefined) show(first)
  }, [lines])
  /** To the next of some lines behind where one is, or the one before; round at the ends. */
  const step = (among: readonly number[], by: 1 | -1) => {
    if (among.length === 0) return
    const here = at ?? (by > 0 ? -1 : lines.length)
    const next =
      by > 0 ? (among.find((l) => l > here) ?? among[0]) : (among.findLast((l) => l < here) ?? among.at(-1))
    if (next !== undefined) goTo(next)
  }
  const key = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey || (e.target as HTMLElement).closest('input')) return
    if (e.key === 'n' || e.key === 'p') {
      e.preventDefault()
      step(changes, e.key === 'n' ? 1 : -1)
    }
  }
  const place = at === null ? -1 : changes.indexOf(at)
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: the buttons in it do the same
    <div onKeyDown={key} className="card mt-2 flex min-h-0 flex-1 flex-col overflow-hidden">
      <div className="flex min-h-9 shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-line border-b px-3 py-1 text-[12px] text-ink-2">
        <form
          onSubmit={(e) => {
            e.preventDefault()
            step(found, 1)
          }}
          className="flex items-center gap-2"
        >
          <SearchField label="Find in both texts" value={find} onChange={setFind} className="w-[190px]" />
          {find.trim() !== '' && (
            <span role="status" className="num whitespace-nowrap">
              {found.length === 0 ? 'in no line' : `in ${count(found.length, 'line')}; Enter: next`}
            </span>
          )}
        </form>
        <label className="flex min-h-6 items-center gap-1.5">
          <input
            type="checkbox"
            checked={wrap}
            onChange={(e) => setWrap(e.target.checked)}
            className="accent-(--woad)"
          />
          wrap long lines
        </label>
        {open.size > 0 && (
          <Button look="quiet" className="h-6" onClick={() => setOpen(new Set())}>
            Fold what is equal
          </Button>
        )}
        <span className="ml-auto flex items-center gap-1.5">
          <span role="status">
            {changes.length === 0
              ? 'Only line ends or encoding differ.'
              : place < 0
                ? count(changes.length, 'difference')
                : `difference ${number(place + 1)} of ${number(changes.length)}`}
          </span>
          {changes.length > 0 && (
            <>
              <Button look="quiet" className="h-6" title="p" onClick={() => step(changes, -1)}>
                Previous
              </Button>
              <Button look="quiet" className="h-6" title="n" onClick={() => step(changes, 1)}>
                Next
              </Button>
            </>
          )}
        </span>
      </div>
      <div className="flex shrink-0 border-line border-b px-3 py-1 text-[11.5px] text-ink-2">
        <span className="flex-1">{notes[0]}</span>
        <span className="flex-1">{notes[1]}</span>
      </div>
      <div
        ref={scroller}
        tabIndex={0}
        role="region"
        aria-label="The two texts, line by line"
        className="min-h-0 flex-1 overflow-auto"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]
            if (!row) return null
            return (
              <div
                key={item.key}
                ref={virtual.measureElement}
                data-index={item.index}
                className="absolute right-0 left-0"
                style={{ top: item.start }}
              >
                {'fold' in row ? (
                  <Fold row={row} onOpen={() => setOpen(new Set(open).add(row.from))} />
                ) : (
                  <Both
                    line={row.line}
                    wrap={wrap}
                    here={row.index === at}
                    find={find.trim() !== '' && found.includes(row.index) ? find : ''}
                  />
                )}
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}

function Fold({ row, onOpen }: { row: Folded; onOpen: () => void }) {
  return (
    <button
      type="button"
      onClick={onOpen}
      className="block h-6 w-full border-line border-y border-dotted bg-paper px-3 text-left text-[11.5px] text-ink-2 -outline-offset-2 hover:bg-sunk"
    >
      {count(row.fold, 'equal line')}
    </button>
  )
}

function Both({ line, wrap, here, find }: { line: Line; wrap: boolean; here: boolean; find: string }) {
  return (
    <div
      className={clsx(
        'mono flex text-[12px] leading-[19px]',
        !line.same && 'bg-sunk',
        here && 'shadow-[inset_3px_0_0_var(--color-woad)]',
      )}
    >
      <Side side={line.left} mark="−" same={line.same} wrap={wrap} find={find} />
      <Side side={line.right} mark="+" same={line.same} wrap={wrap} find={find} />
    </div>
  )
}

function Side({
  side,
  mark,
  same,
  wrap,
  find,
}: {
  side: Line['left']
  mark: string
  same: boolean
  wrap: boolean
  find: string
}) {
  const hit = find !== '' && textOf(side).toLowerCase().includes(find.trim().toLowerCase())
  return (
    <span className="flex min-h-[19px] min-w-0 flex-1 overflow-hidden border-line border-r">
      <span className={clsx('num w-11 shrink-0 pr-2 text-right', hit ? 'bg-ochre text-card' : 'text-ink-3')}>
        {side?.number ?? ''}
      </span>
      <span className="w-3 shrink-0 text-ink-3" aria-hidden="true">
        {side && !same ? mark : ''}
      </span>
      <span
        className={clsx(
          'min-w-0 flex-1',
          wrap ? 'whitespace-pre-wrap break-all' : 'overflow-hidden text-ellipsis whitespace-pre',
        )}
        title={wrap ? undefined : textOf(side)}
      >
        {side?.pieces.map((p: Piece, i) =>
          p.marked ? (
            <mark
              // biome-ignore lint/suspicious/noArrayIndexKey: pieces have nothing else to be known by
              key={i}
              className="rounded-[2px] bg-ochre-soft font-semibold text-ink underline decoration-ochre"
            >
              {p.text}
            </mark>
          ) : (
            // biome-ignore lint/suspicious/noArrayIndexKey: pieces have nothing else to be known by
            <span key={i}>{p.text}</span>
          ),
        )}
      </span>
    </span>
  )
}

function textOf(side: Line['left']): string {
  return side?.pieces.map((p) => p.text).join('') ?? ''
}
