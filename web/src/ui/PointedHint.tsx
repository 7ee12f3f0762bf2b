import { Tooltip } from 'radix-ui'
import { useEffect, useState } from 'react'
import { HINT_DELAY, HINT_LOOK } from './Hint'

interface Pointed {
  thing: Element
  text: string
}

/**
 * One hint for all things of long lists that say in `data-hint` what they are: a hint of its own for
 * each would cost more than the rows themselves. Such things cannot have the focus; what they say is
 * their label too.
 */
export function PointedHint() {
  const [pointed, setPointed] = useState<Pointed | null>(null)
  useEffect(() => {
    let over: Element | null = null
    let waiting: ReturnType<typeof setTimeout> | undefined
    const leave = () => {
      clearTimeout(waiting)
      over = null
      setPointed(null)
    }
    const enter = (e: PointerEvent) => {
      const thing = e.target instanceof Element ? e.target.closest('[data-hint]') : null
      if (thing === over) return
      leave()
      if (!thing || e.pointerType === 'touch') return
      over = thing
      waiting = setTimeout(() => {
        // a list may have let go of its row meanwhile
        if (thing.isConnected) setPointed({ thing, text: thing.getAttribute('data-hint') ?? '' })
      }, HINT_DELAY)
    }
    document.addEventListener('pointerover', enter)
    document.documentElement.addEventListener('pointerleave', leave)
    for (const end of ['pointerdown', 'keydown', 'wheel', 'scroll'])
      document.addEventListener(end, leave, { capture: true, passive: true })
    return () => {
      clearTimeout(waiting)
      document.removeEventListener('pointerover', enter)
      document.documentElement.removeEventListener('pointerleave', leave)
      for (const end of ['pointerdown', 'keydown', 'wheel', 'scroll'])
        document.removeEventListener(end, leave, { capture: true })
    }
  }, [])
  if (!pointed) return null
  const { left, top, width, height } = pointed.thing.getBoundingClientRect()
  return (
    <Tooltip.Root open>
      <Tooltip.Trigger asChild>
        <span aria-hidden="true" className="pointer-events-none fixed" style={{ left, top, width, height }} />
      </Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content sideOffset={6} collisionPadding={8} className={HINT_LOOK}>
          {pointed.text}
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  )
}
