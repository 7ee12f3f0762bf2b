import { useVirtualizer } from '@tanstack/react-virtual'
import {
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
  useCallback,
  useEffect,
  useRef,
  useState,
} from 'react'
import { ContextMenu, type MenuAct } from '../Menu'
import { Carrying, type OnItsWay } from './Carrying'
import { between, ids, together, turned } from './choosing'
import { type Carried, stepped } from './places'
import { Row } from './Row'
import { type ListRow, NONE } from './rows'
import { found, stepOf } from './walking'

export interface ListProps<R extends ListRow> {
  rows: readonly R[]
  /** In pixels; rows that can be carried are all of one height. */
  rowHeight: number | ((row: R) => number)
  /** For the screen reader. */
  label: string
  head?: ReactNode
  /** Its cells. */
  renderRow: (row: R, state: { selected: boolean; active: boolean }) => ReactNode
  selected: string | null
  onSelect: (id: string) => void
  /** The rows that are chosen beside the selected one; without it there is only ever one. */
  chosen?: ReadonlySet<string>
  onChoose?: (ids: ReadonlySet<string>) => void
  /** Looks closer at a row: by a double click, and by Enter. */
  onOpen?: ((row: R) => void) | undefined
  /** What can be done with some rows: the ones that are chosen, where the menu opens at one of them. */
  acts?: (ids: readonly string[]) => readonly MenuAct[]
  /** Rows come to another place. Without it nothing is ever carried. */
  onPut?: (carried: Carried) => void
  /** Rows are over another place, or over none any more. */
  onCarry?: (carried: Carried | null) => void
  /** Nothing can be moved now: the rows are shown in another order than their own. */
  still?: boolean
  /** Keys of the list's own that it is to leave to whoever uses it. */
  onKey?: (e: KeyboardEvent, row: R) => boolean
  /** The end of the rows comes near: whoever has more of them fetches some. */
  onNearEnd?: () => void
  /** Drawn over the rows, as high as all of them. */
  overlay?: (height: number) => ReactNode
  foot?: ReactNode
}

/** How many rows before the last the end counts as near. */
const NEAR_END = 40

const NO_KEYS = { shiftKey: false, ctrlKey: false, metaKey: false }

/**
 * A long list; only what is on the screen is in the page. Arrows, Home, End and the page keys walk it, letters
 * find a row by its beginning, Enter and a double click look closer. Several rows are chosen with Ctrl or Shift, by
 * click or by arrow. Where its rows have an order of their own, shown from the top down, they are carried by the
 * pointer or after Space by arrows, and Alt with an arrow moves by one.
 */
export function List<R extends ListRow>(props: ListProps<R>) {
  const { rows, rowHeight, onSelect, onChoose, onPut, onOpen, selected, chosen = NONE } = props
  const still = props.still ?? onPut === undefined
  const scroller = useRef<HTMLDivElement>(null)
  const [active, setActive] = useState<string | null>(null)
  const [carried, setCarried] = useState<OnItsWay | null>(null)
  const typed = useRef({ text: '', at: 0 })
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => {
      const row = rows[i]
      return typeof rowHeight === 'number' ? rowHeight : row ? rowHeight(row) : 0
    },
    overscan: 12,
    // other rows have other heights: a key function of its own makes them be asked again
    getItemKey: useCallback((i: number) => rows[i]?.id ?? i, [rows]),
    // new rows are drawn in a task of their own, not within that of the scrolling: the rows around
    // are there already
    useFlushSync: false,
  })
  const activeId = active && rows.some((r) => r.id === active) ? active : (selected ?? rows[0]?.id ?? null)
  const activeIndex = rows.findIndex((r) => r.id === activeId)

  // a row is not in the page before the list has scrolled to it and drawn it
  const awaited = useRef<string | null>(null)
  const focusAwaited = useCallback(() => {
    if (awaited.current === null) return
    const row = scroller.current?.querySelector<HTMLElement>(`[data-row="${CSS.escape(awaited.current)}"]`)
    if (!row) return
    awaited.current = null
    row.focus({ preventScroll: true })
  }, [])
  useEffect(focusAwaited)

  const anchor = useRef<string | null>(null)
  const anchorIndex = () => rows.findIndex((r) => r.id === (anchor.current ?? activeId))
  const go = (to: number, keep = false) => {
    const index = Math.max(0, Math.min(to, rows.length - 1))
    const row = rows[index]
    if (!row) return
    setActive(row.id)
    onSelect(row.id)
    if (!keep) {
      anchor.current = row.id
      onChoose?.(NONE)
    }
    virtual.scrollToIndex(index)
    awaited.current = row.id
    requestAnimationFrame(focusAwaited)
  }

  // what is selected stays in view when the order changes under it
  const selectedIndex = rows.findIndex((r) => r.id === selected)
  const virtualRef = useRef(virtual)
  virtualRef.current = virtual
  useEffect(() => {
    if (selectedIndex >= 0) virtualRef.current.scrollToIndex(selectedIndex, { align: 'auto' })
  }, [selectedIndex])

  const nearEnd = (virtual.getVirtualItems().at(-1)?.index ?? 0) >= rows.length - NEAR_END
  const nearRef = useRef(props.onNearEnd)
  nearRef.current = props.onNearEnd
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for each length of the list
  useEffect(() => {
    if (nearEnd) nearRef.current?.()
  }, [nearEnd, rows.length])

  const choose = (e: KeyboardEvent, row: R) => {
    if (e.key.toLowerCase() === 'a') onChoose?.(ids(rows))
    else if (e.key === ' ') turn(row)
    else return
    e.preventDefault()
  }
  const turn = (row: R) => {
    anchor.current = row.id
    onChoose?.(turned(chosen, selected, row))
  }
  const key = (e: KeyboardEvent) => {
    // inside a row's own control its keys are its own; and while a row is carried the arrows carry it
    if (carried || (e.target as HTMLElement).dataset.row === undefined) return
    const row = rows[activeIndex]
    if (!row || props.onKey?.(e, row)) return
    if (e.altKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
      e.preventDefault()
      if (still || row.fixed) return
      const put = stepped(rows, chosen, row.id, e.key === 'ArrowDown')
      if (put) onPut?.(put)
      return
    }
    if (onChoose && (e.ctrlKey || e.metaKey) && !e.altKey) return choose(e, row)
    if (e.altKey || e.ctrlKey || e.metaKey) return
    if (e.key === 'Escape' && chosen.size > 0) return onChoose?.(NONE)
    const page = Math.floor(
      ((scroller.current?.clientHeight ?? 0) * rows.length) / Math.max(1, virtual.getTotalSize()),
    )
    const to = stepOf(e.key, activeIndex, rows.length, Math.max(1, page - 1))
    if (to !== undefined) {
      e.preventDefault()
      if (onChoose && e.shiftKey)
        onChoose(between(rows, anchorIndex(), Math.max(0, Math.min(to, rows.length - 1))))
      go(to, onChoose && e.shiftKey)
    } else if (e.key === 'Enter') {
      if (onOpen) onOpen(row)
      else onSelect(row.id)
    } else if (e.key.length === 1 && e.key !== ' ') {
      const next = found(rows, activeIndex, typed.current, e.key, Date.now())
      typed.current = next.typed
      if (next.index >= 0) go(next.index)
    }
  }
  const pick = (row: R, index: number, e: Pick<MouseEvent, 'shiftKey' | 'ctrlKey' | 'metaKey'>) => {
    setActive(row.id)
    if (onChoose && e.shiftKey) onChoose(between(rows, anchorIndex(), index))
    else if (onChoose && (e.ctrlKey || e.metaKey)) turn(row)
    else {
      anchor.current = row.id
      onChoose?.(NONE)
    }
    onSelect(row.id)
  }

  // the rows are given the same functions always, so that scrolling draws only those that come in
  const latest = useRef({ pick, onOpen })
  latest.current = { pick, onOpen }
  const pickLatest = useCallback(
    (row: ListRow, index: number, e: MouseEvent) => latest.current.pick(row as R, index, e),
    [],
  )
  const openLatest = useCallback((row: ListRow) => latest.current.onOpen?.(row as R), [])

  const height = virtual.getTotalSize()
  const carriedIds = carried ? new Set(together(rows, chosen, carried.id)) : NONE
  const body = (
    <div ref={scroller} role="rowgroup" className="relative min-h-0 flex-1 overflow-y-auto">
      <div className="relative" style={{ height }}>
        {virtual.getVirtualItems().map((item) => {
          const row = rows[item.index]
          if (!row) return null
          return (
            <Row
              key={row.id}
              row={row}
              index={item.index}
              top={item.start}
              height={item.size}
              selected={row.id === selected || chosen.has(row.id)}
              active={row.id === activeId}
              carried={carriedIds.has(row.id)}
              still={still}
              onFocus={setActive}
              onPick={pickLatest}
              onOpen={openLatest}
              render={props.renderRow}
            />
          )
        })}
        {props.overlay?.(height)}
        {carried && carried.to !== carried.from && typeof rowHeight === 'number' && (
          <span
            aria-hidden="true"
            className="pointer-events-none absolute right-2 left-2 z-10 border-woad border-t-2"
            style={{ top: (carried.to > carried.from ? carried.to + 1 : carried.to) * rowHeight - 1 }}
          />
        )}
      </div>
    </div>
  )
  const { acts } = props
  const listed = acts ? (
    <ContextMenu
      acts={(target) => {
        const at = rows.findIndex((r) => r.id === target.closest<HTMLElement>('[data-row]')?.dataset.row)
        const row = rows[at]
        if (!row) return []
        const several = together(rows, chosen, row.id)
        // what the acts are for is what is seen to be chosen; the row has the focus already, and a menu closes once
        // something else gets it
        if (several.length === 1) pick(row, at, NO_KEYS)
        return acts(several)
      }}
    >
      {body}
    </ContextMenu>
  ) : (
    body
  )
  const grid = (
    <div
      role="grid"
      aria-label={props.label}
      aria-rowcount={rows.length + 1}
      aria-multiselectable={onChoose ? true : undefined}
      tabIndex={-1}
      onKeyDown={key}
      className="flex min-h-0 flex-1 flex-col outline-none"
    >
      {props.head && <div role="rowgroup">{props.head}</div>}
      {listed}
    </div>
  )
  return (
    <div className="card relative flex min-h-0 flex-1 flex-col overflow-hidden">
      {onPut && typeof rowHeight === 'number' ? (
        <Carrying
          rows={rows}
          rowHeight={rowHeight}
          chosen={chosen}
          carried={carried}
          onCarried={setCarried}
          onTake={(id) => {
            if (!chosen.has(id)) onChoose?.(NONE)
            setActive(id)
          }}
          onCarry={props.onCarry}
          onPut={onPut}
          // not when it is taken up: what is shown of it would hold up the carrying
          onEnd={onSelect}
        >
          {grid}
        </Carrying>
      ) : (
        grid
      )}
      {props.foot}
    </div>
  )
}
