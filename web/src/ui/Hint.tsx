import { Tooltip } from 'radix-ui'
import type { ReactElement, ReactNode } from 'react'

/** How long the pointer rests on a thing before it says what it is, in milliseconds. */
export const HINT_DELAY = 350
export const HINT_LOOK =
  'z-50 max-w-[340px] rounded-lg bg-strong px-3 py-2 text-[12.5px] text-on-strong leading-snug shadow-lift'

interface HintProps {
  /** What it says; nothing means no hint. */
  text: ReactNode
  children: ReactElement
  side?: 'top' | 'bottom' | 'left' | 'right'
  onOpenChange?: (open: boolean) => void
}

/** A word of explanation at a thing, by mouse and by keyboard. */
export function Hint({ text, children, side = 'top', onOpenChange }: HintProps) {
  if (!text) return children
  return (
    <Tooltip.Root onOpenChange={onOpenChange}>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content side={side} sideOffset={6} collisionPadding={8} className={HINT_LOOK}>
          {text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  )
}
