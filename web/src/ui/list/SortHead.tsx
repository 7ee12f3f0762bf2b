import clsx from 'clsx'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { EXPLAINED_LOOK } from '../Cell'

interface SortHeadProps {
  says: string
  /** Which way the rows are sorted by it; none where they are not. */
  way: 'up' | 'down' | null
  onSort: () => void
  /** What it means, where its name alone does not say. */
  explains?: string | undefined
  className?: string
}

/** The name of a column, by which the rows can be sorted: once more turns them about. */
export function SortHead({ says, way, onSort, explains, className }: SortHeadProps) {
  const Arrow = way === 'down' ? ArrowDown : ArrowUp
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the button in it has the focus
    <span
      role="columnheader"
      aria-sort={way === null ? 'none' : way === 'up' ? 'ascending' : 'descending'}
      aria-description={explains}
      data-hint={explains}
      className={clsx(className, explains && EXPLAINED_LOOK)}
    >
      <button
        type="button"
        onClick={onSort}
        className={clsx(
          'inline-flex min-h-6 items-center gap-0.5 hover:text-ink',
          way && 'font-semibold text-ink-2',
        )}
      >
        {says}
        {way && <Arrow size={11} aria-hidden="true" />}
      </button>
    </span>
  )
}
