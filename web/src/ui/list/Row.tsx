import { useDraggable } from '@dnd-kit/core'
import clsx from 'clsx'
import { memo, type ReactNode, useMemo } from 'react'
import type { ListRow } from './rows'

interface RowProps<R extends ListRow> {
  row: R
  index: number
  top: number
  height: number
  selected: boolean
  /** Whether Tab comes to it. */
  active: boolean
  carried: boolean
  /** It cannot be carried. */
  still: boolean
  onFocus: (id: string) => void
  onPick: (row: ListRow, index: number, e: React.MouseEvent) => void
  onOpen: (row: ListRow) => void
  render: (row: R, state: { selected: boolean; active: boolean }) => ReactNode
}

/** One row of a list where it stands; drawn again only when something of it has changed. */
export const Row = memo(PlainRow) as typeof PlainRow

function PlainRow<R extends ListRow>(props: RowProps<R>) {
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
      onDoubleClick={(e) => {
        // two clicks on a switch turn it twice
        if (!(e.target as HTMLElement).closest('button, a, input')) props.onOpen(row)
      }}
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
