import { Tooltip } from 'radix-ui'
import { cloneElement, type ReactElement, type ReactNode, useState } from 'react'

interface HintProps {
  /** What it says; nothing means no hint. */
  text: ReactNode
  children: ReactElement
  side?: 'top' | 'bottom' | 'left' | 'right'
  onOpenChange?: (open: boolean) => void
  /** The thing cannot have the focus: nothing is made for the hint before the pointer comes to it. */
  pointerOnly?: boolean
}

/** A word of explanation at a thing, by mouse and by keyboard. */
export function Hint({ text, children, side = 'top', onOpenChange, pointerOnly }: HintProps) {
  // of the thousands of a list few are ever pointed at
  const [met, setMet] = useState(!pointerOnly)
  if (!text) return children
  if (!met)
    return cloneElement<{ onPointerEnter?: () => void }>(children as ReactElement<object>, {
      onPointerEnter: () => setMet(true),
    })
  return (
    <Tooltip.Root onOpenChange={onOpenChange}>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          side={side}
          sideOffset={6}
          collisionPadding={8}
          className="z-50 max-w-[340px] rounded-lg bg-strong px-3 py-2 text-[12.5px] text-on-strong leading-snug shadow-lift"
        >
          {text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  )
}
