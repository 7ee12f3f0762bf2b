import { X } from 'lucide-react'
import type { ReactNode } from 'react'
import { useOffered } from '../../frame/offered'
import { Button } from '../Button'
import { Menu, type MenuActs } from '../Menu'

interface ChosenBarProps {
  /** For the screen reader. */
  label: string
  /** The name of the one row that is selected, or how many are chosen. */
  name: string
  /** All that can be done with them. */
  menu: MenuActs
  /** Chooses none; nothing where there is only the selected row. */
  onClear?: (() => void) | undefined
  /** What is done most often, as buttons. */
  children: ReactNode
}

/** The bar below a list: what can be done with the rows that are chosen. */
export function ChosenBar({ label, name, menu, onClear, children }: ChosenBarProps) {
  useOffered(name, menu)
  return (
    <div
      role="toolbar"
      aria-label={label}
      className="flex shrink-0 items-center gap-1.5 border-line border-t bg-woad-soft px-3.5 py-1.5"
    >
      <b className="min-w-0 truncate font-semibold">{name}</b>
      <span className="ml-auto" />
      {children}
      <Menu label="More to do with them" acts={menu} />
      {onClear && (
        <Button look="quiet" icon className="h-7 w-7" aria-label="Choose none" onClick={onClear}>
          <X size={14} />
        </Button>
      )}
    </div>
  )
}
