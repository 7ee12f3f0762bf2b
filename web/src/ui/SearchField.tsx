import clsx from 'clsx'
import { Search } from 'lucide-react'
import type { Ref } from 'react'

interface SearchFieldProps {
  /** For the screen reader. */
  label: string
  /** Shown while the field is empty; the label, where there is none. */
  hint?: string
  value: string
  onChange: (text: string) => void
  className?: string
  ref?: Ref<HTMLInputElement>
}

/** Where one types what to look for. */
export function SearchField({ label, hint, value, onChange, className, ref }: SearchFieldProps) {
  return (
    <label
      className={clsx(
        'flex h-[30px] items-center gap-2 rounded-[7px] border border-line-2 bg-card px-2.5',
        className ?? 'w-[230px]',
      )}
    >
      <Search size={14} className="shrink-0 text-ink-3" aria-hidden="true" />
      <input
        ref={ref}
        type="search"
        aria-label={label}
        placeholder={hint ?? label}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        className="min-w-0 flex-1 bg-transparent outline-none"
      />
    </label>
  )
}
