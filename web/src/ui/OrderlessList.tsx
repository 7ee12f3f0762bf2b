import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { type KeyboardEvent, type ReactNode, useCallback, useRef } from 'react'

interface OrderlessListProps<R extends { id: string; label: string }> {
  rows: readonly R[]
  rowHeight: number | ((row: R) => number)
  label: string
  selected: string | null
  onSelect: (id: string) => void
  head?: ReactNode
  renderRow: (row: R) => ReactNode
}

/** A long list to choose from, with arrows and Home and End; nothing in it is moved. */
export function OrderlessList<R extends { id: string; label: string }>(props: OrderlessListProps<R>) {
  const { rows, rowHeight, selected, onSelect } = props
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => {
      const row = rows[i]
      return typeof rowHeight === 'number' ? rowHeight : row ? rowHeight(row) : 0
    },
    overscan: 12,
    // another list of rows has other heights: a key function of its own makes them be asked again
    getItemKey: useCallback((i: number) => rows[i]?.id ?? i, [rows]),
  })
  const at = rows.findIndex((r) => r.id === selected)
  const key = (e: KeyboardEvent) => {
    const steps: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      Home: 0,
      End: rows.length - 1,
    }
    const to = steps[e.key]
    if (to === undefined || e.altKey || e.ctrlKey || e.metaKey) return
    e.preventDefault()
    const index = Math.max(0, Math.min(to, rows.length - 1))
    const row = rows[index]
    if (!row) return
    onSelect(row.id)
    virtual.scrollToIndex(index)
    requestAnimationFrame(() =>
      scroller.current
        ?.querySelector<HTMLElement>(`[data-row="${CSS.escape(row.id)}"]`)
        ?.focus({ preventScroll: true }),
    )
  }
  return (
    <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
      {props.head}
      <div
        ref={scroller}
        role="listbox"
        tabIndex={-1}
        aria-label={props.label}
        onKeyDown={key}
        className="relative min-h-0 flex-1 overflow-y-auto"
      >
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => {
            const row = rows[item.index]
            if (!row) return null
            const reachable = row.id === selected || (at < 0 && item.index === 0)
            return (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the list above has the keys
              <div
                key={row.id}
                data-row={row.id}
                role="option"
                aria-selected={row.id === selected}
                aria-label={row.label}
                tabIndex={reachable ? 0 : -1}
                onClick={() => onSelect(row.id)}
                onFocus={() => row.id !== selected && at < 0 && onSelect(row.id)}
                className={clsx(
                  'absolute right-0 left-0 border-line border-b outline-offset-[-2px]',
                  row.id === selected ? 'bg-woad-soft' : 'hover:bg-sunk/60',
                )}
                style={{ top: item.start, height: item.size }}
              >
                {props.renderRow(row)}
              </div>
            )
          })}
        </div>
      </div>
    </div>
  )
}
