import clsx from 'clsx'
import { ToggleGroup } from 'radix-ui'

interface SegmentsProps<V extends string> {
  label: string
  value: V
  onChange: (value: V) => void
  options: readonly { value: V; label: string }[]
}

/** A few views of one thing, of which one is seen. */
export function Segments<V extends string>({ label, value, onChange, options }: SegmentsProps<V>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(v) => v && onChange(v as V)}
      className="flex shrink-0 gap-1 self-start rounded-[9px] bg-sunk p-[3px]"
    >
      {options.map((o) => (
        <ToggleGroup.Item
          key={o.value}
          value={o.value}
          className={clsx(
            'h-[26px] rounded-[7px] px-3',
            o.value === value ? 'bg-card font-semibold shadow-sm' : 'text-ink-2 hover:text-ink',
          )}
        >
          {o.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  )
}
