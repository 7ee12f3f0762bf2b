import { ChevronDown } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { useState } from 'react'
import type { Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { Button } from '../ui/Button'
import { count, list, number } from '../ui/text'

type Version = Schema['FileVersion']

/** Which mods' files are reached: those named in the address, or all. */
export function useReached(): [ReadonlySet<string> | null, (ids: readonly string[] | null) => void] {
  const [query, put] = useAddress()
  const into = query.get('into')
  const reached = into === null ? null : new Set(into.split(' ').filter(Boolean))
  return [
    reached,
    (ids) =>
      put((q) => {
        if (ids) q.set('into', ids.join(' '))
        else q.delete('into')
      }),
  ]
}

/** Whose files a carried change is to reach. */
export function Reach({ mods }: { mods: readonly Version[] }) {
  const [reached, reach] = useReached()
  const on = mods.filter((m) => reached === null || reached.has(m.id))
  const turn = (id: string) => {
    const next = mods.filter((m) => (m.id === id) !== on.includes(m)).map((m) => m.id)
    reach(next.length === mods.length ? null : next)
  }
  return (
    <div className="flex items-center gap-2 border-line border-b px-3 py-1.5 text-ink-2">
      <span className="shrink-0">into the files of</span>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger asChild>
          <Button className="h-7 min-w-0 flex-1 justify-between">
            <span className="truncate">
              {on.length === mods.length
                ? `all ${mods.length}`
                : on.length === 0
                  ? 'nobody'
                  : list(on.map((m) => m.name))}
            </span>
            <ChevronDown size={14} className="shrink-0" aria-hidden="true" />
          </Button>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="start"
            className="z-50 max-h-80 min-w-56 overflow-y-auto rounded-lg border border-line bg-card p-1 shadow-lift"
          >
            {mods.map((m) => (
              <DropdownMenu.CheckboxItem
                key={m.id}
                checked={on.includes(m)}
                onCheckedChange={() => turn(m.id)}
                // several are chosen one after another
                onSelect={(e) => e.preventDefault()}
                className="flex cursor-pointer items-center gap-2 rounded-md px-2.5 py-1.5 outline-none data-[highlighted]:bg-woad-soft"
              >
                <span className="w-4 text-woad">
                  <DropdownMenu.ItemIndicator>✓</DropdownMenu.ItemIndicator>
                </span>
                {m.name}
              </DropdownMenu.CheckboxItem>
            ))}
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </div>
  )
}

/** What carrying over cannot do, with the reasons. */
export function LeftOut({ left, inAll }: { left: readonly Schema['FileLeft'][]; inAll: number }) {
  const [open, setOpen] = useState(false)
  if (inAll === 0) return null
  return (
    <section
      aria-label="Not carried over"
      className="max-h-[45%] shrink-0 overflow-y-auto border-line border-t"
    >
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="sticky top-0 w-full bg-card px-3 py-1.5 text-left text-[11.5px] text-ink-2 hover:bg-sunk"
      >
        {count(inAll, 'file')} of it cannot be carried over · {open ? 'hide' : 'which, and why'}
      </button>
      {open && (
        <ul className="px-3 pb-2">
          {left.map((l) => (
            <li key={l.path} className="border-line border-t py-1">
              <span className="block break-all">{l.path}</span>
              <span className="block text-[11.5px] text-ink-2">
                {l.reason} {list(l.others)} {l.others.length === 1 ? 'has' : 'have'} it too.
              </span>
            </li>
          ))}
          {inAll > left.length && (
            <li className="border-line border-t py-1 text-ink-2">and {number(inAll - left.length)} more</li>
          )}
        </ul>
      )}
    </section>
  )
}
