import {
  DndContext,
  type DragEndEvent,
  type DragMoveEvent,
  DragOverlay,
  type DragStartEvent,
  KeyboardCode,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core'
import type { ReactNode } from 'react'
import { together } from './choosing'
import { announcements, type Carried, carriedTo, within } from './places'
import type { ListRow } from './rows'

/** A row that is carried, from one index to another. */
export interface OnItsWay {
  id: string
  from: number
  to: number
}

interface CarryingProps {
  rows: readonly ListRow[]
  rowHeight: number
  chosen: ReadonlySet<string>
  carried: OnItsWay | null
  onCarried: (carried: OnItsWay | null) => void
  /** A row is taken up. */
  onTake: (id: string) => void
  /** Rows are over another place, or over none any more. */
  onCarry: ((carried: Carried | null) => void) | undefined
  onPut: (carried: Carried) => void
  /** A row is put down, be it where it was. */
  onEnd: (id: string) => void
  children: ReactNode
}

/**
 * Makes the rows within it go by the pointer, or by the keyboard: Space takes a row up, arrows carry it, Space
 * puts it down, Escape leaves it.
 */
export function Carrying(props: CarryingProps) {
  const { rows, rowHeight, chosen, carried, onCarried, onCarry } = props
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
    return { from, to: within(rows, Math.round(from + e.delta.y / rowHeight)) }
  }
  const start = (e: DragStartEvent) => {
    const id = String(e.active.id)
    const from = rows.findIndex((r) => r.id === id)
    props.onTake(id)
    onCarried({ id, from, to: from })
  }
  const move = (e: DragMoveEvent) => {
    const { from, to } = placeOf(e)
    if (carried && carried.to === to && carried.from === from) return
    const id = String(e.active.id)
    onCarried({ id, from, to })
    onCarry?.(to === from ? null : carriedTo(rows, chosen, id, from, to))
  }
  const end = (e: DragEndEvent) => {
    const { from, to } = placeOf(e)
    const id = String(e.active.id)
    onCarried(null)
    onCarry?.(null)
    props.onEnd(id)
    if (to !== from) props.onPut(carriedTo(rows, chosen, id, from, to))
  }
  const cancel = () => {
    onCarried(null)
    onCarry?.(null)
  }
  const several = carried ? together(rows, chosen, carried.id).length : 0
  return (
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
      {props.children}
      <DragOverlay dropAnimation={null}>
        {carried && (
          <span className="ml-28 inline-flex h-[30px] cursor-grabbing items-center rounded-lg bg-strong px-3 text-on-strong shadow-lift">
            {several > 1 ? `${several} together` : rows.find((r) => r.id === carried.id)?.label}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  )
}
