import {
  type Announcements,
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  DragOverlay,
  type DragStartEvent,
  KeyboardCode,
  KeyboardSensor,
  PointerSensor,
  type UniqueIdentifier,
  useDraggable,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import {
  type KeyboardEvent,
  memo,
  type ReactNode,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react'

/**
 * A long list whose rows have an order of their own, shown from the top down. Only what is on the
 * screen is in the page. A row is carried by the pointer, or by the keyboard: Space takes it up, arrows
 * carry it, Space puts it down, Escape leaves it; Alt with an arrow moves it by one at once. Several are
 * chosen with Ctrl or Shift, by click or by arrow, and carried together.
 */
export interface OrderRow {
  id: string
  /** What typing finds, and what a screen reader says. */
  label: string
  /** Stands where it stands, and nothing goes past it. */
  fixed?: boolean
}

export interface OrderListProps<R extends OrderRow> {
  rows: readonly R[]
  rowHeight: number
  /** For the screen reader. */
  label: string
  head?: ReactNode
  renderRow: (row: R, state: { selected: boolean; active: boolean }) => ReactNode
  selected: string | null
  onSelect: (id: string) => void
  /** The rows that are chosen beside the selected one; without it there is only ever one. */
  chosen?: ReadonlySet<string>
  onChoose?: (ids: ReadonlySet<string>) => void
  /** Rows are over another place, or over none any more. */
  onCarry?: (carried: Carried | null) => void
  onPut: (carried: Carried) => void
  /** Nothing can be moved now: the rows are shown in another order than their own. */
  still?: boolean
  /** Keys of the list's own that it is to leave to whoever uses it. */
  onKey?: (e: KeyboardEvent, row: R) => boolean
  /** Drawn over the rows, as high as all of them. */
  overlay?: (height: number) => ReactNode
  foot?: ReactNode
}

/**
 * Rows on their way.
 *
 * @param to how many of the other rows stay above them
 */
export interface Carried {
  ids: readonly string[]
  to: number
}

const NONE: ReadonlySet<string> = new Set()

export function OrderList<R extends OrderRow>(props: OrderListProps<R>) {
  const { rows, rowHeight, onCarry, onPut, onSelect, onChoose, selected, chosen = NONE, still } = props
  const scroller = useRef<HTMLDivElement>(null)
  const [active, setActive] = useState<string | null>(null)
  const [carried, setCarried] = useState<{ id: string; from: number; to: number } | null>(null)
  const typed = useRef({ text: '', at: 0 })
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    // new rows are drawn in a task of their own, not within that of the scrolling: the rows around
    // are there already
    useFlushSync: false,
  })
  const activeId = active && rows.some((r) => r.id === active) ? active : (selected ?? rows[0]?.id ?? null)
  const activeIndex = rows.findIndex((r) => r.id === activeId)

  // fixed rows at both ends bound where the others may go
  const firstFree = rows.findIndex((r) => !r.fixed)
  const lastFree = rows.findLastIndex((r) => !r.fixed)
  const clamp = useCallback(
    (to: number) => Math.max(Math.max(0, firstFree), Math.min(to, lastFree)),
    [firstFree, lastFree],
  )

  /** What is moved with a row: all that are chosen, when it is one of them. */
  const together = (id: string): string[] =>
    chosen.has(id) ? rows.filter((r) => chosen.has(r.id) && !r.fixed).map((r) => r.id) : [id]
  /** The rows on their way when the one at an index is carried to another. */
  const carriedTo = (id: string, from: number, to: number): Carried => {
    const ids = together(id)
    const gap = to > from ? to + 1 : to
    const moving = new Set(ids)
    return { ids, to: rows.slice(0, gap).filter((r) => !moving.has(r.id)).length }
  }
  const choose = (ids: ReadonlySet<string>) => onChoose?.(ids)
  const anchor = useRef<string | null>(null)
  const range = (to: number): ReadonlySet<string> => {
    const start = rows.findIndex((r) => r.id === (anchor.current ?? activeId))
    const [low, high] = start < to ? [start, to] : [to, start]
    return new Set(
      rows
        .slice(Math.max(0, low), high + 1)
        .filter((r) => !r.fixed)
        .map((r) => r.id),
    )
  }

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

  const focusRow = useCallback(
    (index: number, keep = false) => {
      const row = rows[Math.max(0, Math.min(index, rows.length - 1))]
      if (!row) return
      setActive(row.id)
      onSelect(row.id)
      if (!keep) {
        anchor.current = row.id
        onChoose?.(NONE)
      }
      virtual.scrollToIndex(Math.max(0, Math.min(index, rows.length - 1)))
      awaited.current = row.id
      requestAnimationFrame(focusAwaited)
    },
    [rows, onSelect, onChoose, virtual, focusAwaited],
  )

  // what is selected stays in view when the order changes under it
  const selectedIndex = rows.findIndex((r) => r.id === selected)
  const virtualRef = useRef(virtual)
  virtualRef.current = virtual
  useEffect(() => {
    if (selectedIndex >= 0) virtualRef.current.scrollToIndex(selectedIndex, { align: 'auto' })
  }, [selectedIndex])

  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, {
      keyboardCodes: {
        start: [KeyboardCode.Space],
        cancel: [KeyboardCode.Esc],
        end: [KeyboardCode.Space, KeyboardCode.Enter],
      },
      coordinateGetter: (event, { currentCoordinates: c }) => {
        if (event.code === KeyboardCode.Down) return { ...c, y: c.y + rowHeight }
        if (event.code === KeyboardCode.Up) return { ...c, y: c.y - rowHeight }
        return undefined
      },
    }),
  )

  const placeOf = (e: DragMoveEvent | DragEndEvent) => {
    const from = rows.findIndex((r) => r.id === String(e.active.id))
    return { from, to: clamp(Math.round(from + e.delta.y / rowHeight)) }
  }
  const start = (e: DragStartEvent) => {
    const id = String(e.active.id)
    const from = rows.findIndex((r) => r.id === id)
    if (!chosen.has(id)) choose(NONE)
    setActive(id)
    setCarried({ id, from, to: from })
  }
  const move = (e: DragMoveEvent) => {
    const { from, to } = placeOf(e)
    if (carried && carried.to === to && carried.from === from) return
    setCarried({ id: String(e.active.id), from, to })
    onCarry?.(to === from ? null : carriedTo(String(e.active.id), from, to))
  }
  const end = (e: DragEndEvent) => {
    const { from, to } = placeOf(e)
    setCarried(null)
    onCarry?.(null)
    // not when it is taken up: what is shown of it would hold up the carrying
    onSelect(String(e.active.id))
    if (to !== from) onPut(carriedTo(String(e.active.id), from, to))
  }
  const cancel = () => {
    setCarried(null)
    onCarry?.(null)
  }

  const key = (e: KeyboardEvent) => {
    // inside a row's own control its keys are its own; and while a row is carried the arrows carry it
    if (carried || (e.target as HTMLElement).dataset.row === undefined) return
    const row = rows[activeIndex]
    if (!row || props.onKey?.(e, row)) return
    if (e.altKey && (e.key === 'ArrowUp' || e.key === 'ArrowDown')) {
      e.preventDefault()
      if (still || row.fixed) return
      const ids = together(row.id)
      const ends = ids.map((id) => rows.findIndex((r) => r.id === id))
      const edge = e.key === 'ArrowUp' ? Math.min(...ends) : Math.max(...ends)
      const to = clamp(edge + (e.key === 'ArrowUp' ? -1 : 1))
      if (to !== edge) onPut(carriedTo(row.id, edge, to))
      return
    }
    if (onChoose && (e.ctrlKey || e.metaKey) && !e.altKey) {
      if (e.key.toLowerCase() === 'a') {
        e.preventDefault()
        choose(new Set(rows.filter((r) => !r.fixed).map((r) => r.id)))
      } else if (e.key === ' ') {
        e.preventDefault()
        turnChosen(row)
      }
      return
    }
    if (e.altKey || e.ctrlKey || e.metaKey) return
    if (e.key === 'Escape' && chosen.size > 0) return choose(NONE)
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 0) / rowHeight) - 1)
    const steps: Record<string, number> = {
      ArrowDown: activeIndex + 1,
      ArrowUp: activeIndex - 1,
      PageDown: activeIndex + page,
      PageUp: activeIndex - page,
      Home: 0,
      End: rows.length - 1,
    }
    const to = steps[e.key]
    if (to !== undefined) {
      e.preventDefault()
      if (onChoose && e.shiftKey) {
        const end = Math.max(0, Math.min(to, rows.length - 1))
        choose(range(end))
        focusRow(end, true)
      } else focusRow(to)
    } else if (e.key === 'Enter') {
      onSelect(row.id)
    } else if (e.key.length === 1 && e.key !== ' ') {
      findByTyping(e.key)
    }
  }

  const turnChosen = (row: R) => {
    if (row.fixed) return
    const next = new Set(chosen.size > 0 ? chosen : selected ? [selected] : [])
    if (!next.delete(row.id)) next.add(row.id)
    anchor.current = row.id
    choose(next)
  }
  const pick = (row: R, index: number, e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    setActive(row.id)
    if (onChoose && e.shiftKey) choose(range(index))
    else if (onChoose && (e.ctrlKey || e.metaKey)) turnChosen(row)
    else {
      anchor.current = row.id
      choose(NONE)
    }
    onSelect(row.id)
  }

  // the rows are given the same function always, so that scrolling draws only those that come in
  const pickRef = useRef(pick)
  pickRef.current = pick
  const pickLatest = useCallback(
    (row: OrderRow, index: number, e: React.MouseEvent) => pickRef.current(row as R, index, e),
    [],
  )

  const findByTyping = (letter: string) => {
    const now = Date.now()
    const text = (now - typed.current.at < 900 ? typed.current.text : '') + letter.toLowerCase()
    typed.current = { text, at: now }
    // one letter again goes on to the next that begins with it
    const from = text.length === 1 ? activeIndex + 1 : activeIndex
    for (let i = 0; i < rows.length; i++) {
      const index = (from + i) % rows.length
      if (rows[index]?.label.toLowerCase().startsWith(text)) return focusRow(index)
    }
  }

  const height = virtual.getTotalSize()
  const carriedIds = carried ? new Set(together(carried.id)) : NONE
  const carriedRow = carried && rows.find((r) => r.id === carried.id)
  return (
    <div className="card relative flex min-h-0 flex-1 flex-col overflow-hidden">
      <DndContext
        sensors={sensors}
        onDragStart={start}
        onDragMove={move}
        onDragEnd={end}
        onDragCancel={cancel}
        accessibility={{
          announcements: announcements(rows),
          screenReaderInstructions: {
            draggable:
              'Space takes the row up, arrows carry it, Space puts it down, Escape leaves it. Alt with an arrow moves it by one.',
          },
        }}
      >
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
                    height={rowHeight}
                    selected={row.id === selected || chosen.has(row.id)}
                    active={row.id === activeId}
                    carried={carriedIds.has(row.id)}
                    still={still}
                    onFocus={setActive}
                    onPick={pickLatest}
                    render={props.renderRow}
                  />
                )
              })}
              {props.overlay?.(height)}
              {carried && carried.to !== carried.from && (
                <span
                  aria-hidden="true"
                  className="pointer-events-none absolute right-2 left-2 z-10 border-woad border-t-2"
                  style={{ top: (carried.to > carried.from ? carried.to + 1 : carried.to) * rowHeight - 1 }}
                />
              )}
            </div>
          </div>
        </div>
        <DragOverlay dropAnimation={null}>
          {carriedRow && (
            <span className="ml-28 inline-flex h-[30px] cursor-grabbing items-center rounded-lg bg-strong px-3 text-on-strong shadow-lift">
              {carriedIds.size > 1 ? `${carriedIds.size} together` : carriedRow.label}
            </span>
          )}
        </DragOverlay>
      </DndContext>
      {props.foot}
    </div>
  )
}

/** What a screen reader says while a row is carried; where it would land, each list says itself. */
function announcements(rows: readonly OrderRow[]): Announcements {
  const name = (id: UniqueIdentifier) => rows.find((r) => r.id === String(id))?.label ?? 'The row'
  return {
    onDragStart: ({ active }) => `${name(active.id)} is taken up.`,
    onDragOver: () => undefined,
    onDragEnd: ({ active }) => `${name(active.id)} is put down.`,
    onDragCancel: ({ active }) => `${name(active.id)} is left where it was.`,
  }
}

interface RowProps<R extends OrderRow> {
  row: R
  index: number
  top: number
  height: number
  selected: boolean
  active: boolean
  carried: boolean
  still: boolean | undefined
  onFocus: (id: string) => void
  onPick: (row: OrderRow, index: number, e: React.MouseEvent) => void
  render: (row: R, state: { selected: boolean; active: boolean }) => ReactNode
}

const Row = memo(PlainRow) as typeof PlainRow

function PlainRow<R extends OrderRow>(props: RowProps<R>) {
  const { row, index, selected, active, still, render } = props
  const drag = useDraggable({ id: row.id, disabled: row.fixed || still })
  // while another row is carried this one is asked again and again; what is in it stays
  const content = useMemo(() => render(row, { selected, active }), [render, row, selected, active])
  return (
    <div
      ref={drag.setNodeRef}
      data-row={row.id}
      role="row"
      aria-rowindex={index + 2}
      aria-selected={selected}
      aria-label={row.label}
      tabIndex={active ? 0 : -1}
      onFocus={() => props.onFocus(row.id)}
      onClick={(e) => props.onPick(row, index, e)}
      onPointerDown={(e) => {
        // with Shift or Ctrl it is a choice, and no text is marked by it
        if (e.shiftKey || e.ctrlKey || e.metaKey) e.preventDefault()
        else drag.listeners?.onPointerDown?.(e)
      }}
      onKeyDown={(e) => {
        if (e.target === e.currentTarget) drag.listeners?.onKeyDown?.(e)
      }}
      className={clsx(
        'absolute right-0 left-0 border-line border-b outline-offset-[-2px]',
        selected ? 'bg-woad-soft' : 'hover:bg-sunk/60',
        props.carried && 'opacity-40',
      )}
      style={{ top: props.top, height: props.height }}
    >
      {content}
    </div>
  )
}
