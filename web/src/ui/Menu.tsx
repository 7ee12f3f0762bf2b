import { Ellipsis } from 'lucide-react'
import { ContextMenu as AtPointer, DropdownMenu } from 'radix-ui'
import { type ReactElement, useState } from 'react'
import { Button } from './Button'

/** One act of a menu; null is a line between two. */
export type MenuAct = { label: string; run: () => void } | null

/** What a menu offers; as a function it is asked when the menu opens, so that a long list costs nothing. */
export type MenuActs = readonly MenuAct[] | (() => readonly MenuAct[])

const CONTENT = 'z-50 min-w-44 rounded-lg border border-line bg-card p-1 shadow-lift'
const ITEM = 'cursor-pointer rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-woad-soft'
const LINE = 'my-1 h-px bg-line'

/** A button with three dots that opens a list of acts. */
export function Menu({ label, acts }: { label: string; acts: MenuActs }) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button look="quiet" icon aria-label={label} className="h-6 w-6 shrink-0">
          <Ellipsis size={15} aria-hidden="true" />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className={CONTENT}>
          <Acts acts={acts} as={DropdownMenu} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

/**
 * Opens a list of acts at the pointer, with the second button of the mouse or the menu key, over what is in it.
 *
 * @param acts for what was pointed at; where there are none the browser's own menu comes, and so it does for links
 *   and fields, which have acts of the browser's
 */
export function ContextMenu({
  acts,
  children,
}: {
  acts: (target: Element) => readonly MenuAct[]
  children: ReactElement
}) {
  const [offered, setOffered] = useState<readonly MenuAct[]>([])
  return (
    <AtPointer.Root modal={false}>
      <AtPointer.Trigger
        asChild
        onContextMenuCapture={(e) => {
          const target = e.target as Element
          const next = target.closest('a[href], input, textarea') ? [] : acts(target)
          if (next.length === 0) e.stopPropagation()
          setOffered(next)
        }}
      >
        {children}
      </AtPointer.Trigger>
      <AtPointer.Portal>
        <AtPointer.Content className={CONTENT}>
          <Acts acts={offered} as={AtPointer} />
        </AtPointer.Content>
      </AtPointer.Portal>
    </AtPointer.Root>
  )
}

/** The acts, as items of the one kind of menu or the other. */
function Acts({ acts, as: Kind }: { acts: MenuActs; as: typeof DropdownMenu | typeof AtPointer }) {
  return (
    <>
      {(typeof acts === 'function' ? acts() : acts).map((act, i) =>
        act ? (
          <Kind.Item key={act.label} onSelect={act.run} className={ITEM}>
            {act.label}
          </Kind.Item>
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line has nothing else to be known by
          <Kind.Separator key={`line-${i}`} className={LINE} />
        ),
      )}
    </>
  )
}
