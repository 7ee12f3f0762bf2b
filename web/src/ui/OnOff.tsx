import { Switch } from 'radix-ui'

interface OnOffProps {
  on: boolean
  label: string
  onChange: (on: boolean) => void
  disabled?: boolean
  tabIndex?: number
}

/** A switch. Off is hollow and its knob to the left: it reads without colour. */
export function OnOff({ on, label, onChange, disabled, tabIndex }: OnOffProps) {
  return (
    <Switch.Root
      checked={on}
      onCheckedChange={onChange}
      disabled={disabled}
      tabIndex={tabIndex}
      aria-label={label}
      onPointerDown={(e) => e.stopPropagation()}
      onClick={(e) => e.stopPropagation()}
      className="relative h-4 w-7 shrink-0 rounded-full border border-line-2 bg-card transition-colors disabled:opacity-50 data-[state=checked]:border-woad data-[state=checked]:bg-woad"
    >
      <Switch.Thumb className="block size-2.5 translate-x-[3px] rounded-full bg-line-2 transition-transform data-[state=checked]:translate-x-[13px] data-[state=checked]:bg-on-woad" />
    </Switch.Root>
  )
}
