import { type KeyboardEvent, type PointerEvent, useRef } from 'react'

/** By how much an arrow key changes a width, in pixels. */
const STEP = 8

interface ResizeHandleProps {
  label: string
  /** In pixels. */
  width: number
  narrowest: number
  widest: number
  onWidth: (width: number) => void
  /** Alt with an arrow: the column goes past its neighbour. */
  onNudge: (by: -1 | 1) => void
}

/**
 * The left edge of a column, by which it is made wider: the columns end at the right side of the list, so that a wider
 * one grows to the left. By the keyboard: arrows, and with Alt the whole column.
 */
export function ResizeHandle({ label, width, narrowest, widest, onWidth, onNudge }: ResizeHandleProps) {
  const from = useRef<{ x: number; width: number } | null>(null)
  const bounded = (w: number) => Math.round(Math.max(narrowest, Math.min(widest, w)))
  const key = (e: KeyboardEvent) => {
    const step = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : undefined
    if (step === undefined) return
    e.preventDefault()
    if (e.altKey) onNudge(step)
    else onWidth(bounded(width - step * STEP))
  }
  const move = (e: PointerEvent) => {
    if (!from.current) return
    const next = bounded(from.current.width + from.current.x - e.clientX)
    if (next !== width) onWidth(next)
  }
  return (
    <span
      role="separator"
      aria-orientation="vertical"
      aria-label={label}
      aria-valuenow={width}
      aria-valuemin={narrowest}
      aria-valuemax={widest}
      tabIndex={0}
      onKeyDown={key}
      onPointerDown={(e) => {
        if (e.button !== 0) return
        from.current = { x: e.clientX, width }
        e.currentTarget.setPointerCapture(e.pointerId)
      }}
      onPointerMove={move}
      onPointerUp={() => {
        from.current = null
      }}
      className="absolute inset-y-0 left-0 w-1.5 cursor-col-resize touch-none rounded-sm outline-offset-[-1px] hover:bg-line-2"
    />
  )
}
