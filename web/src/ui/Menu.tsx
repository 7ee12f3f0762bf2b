import { Ellipsis } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { Button } from './Button'

/** One act of a menu; null is a line between two. */
export type MenuAct = { label: string; run: () => void } | null

/** What a menu offers; as a function it is asked when the menu opens, so that a long list costs nothing. */
export type MenuActs = readonly MenuAct[] | (() => readonly MenuAct[])

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
        <DropdownMenu.Content
          align="end"
          className="z-50 min-w-44 rounded-lg border border-line bg-card p-1 shadow-lift"
        >
          <Acts acts={acts} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

function Acts({ acts }: { acts: MenuActs }) {
  return (
    <>
      {(typeof acts === 'function' ? acts() : acts).map((act, i) =>
        act ? (
          <DropdownMenu.Item
            key={act.label}
            onSelect={act.run}
            className="cursor-pointer rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-woad-soft"
          >
            {act.label}
          </DropdownMenu.Item>
        ) : (
          // biome-ignore lint/suspicious/noArrayIndexKey: a line has nothing else to be known by
          <DropdownMenu.Separator key={`line-${i}`} className="my-1 h-px bg-line" />
        ),
      )}
    </>
  )
}
