import clsx from 'clsx'
import type { ComponentProps, ReactNode } from 'react'

/** What stands in one column of a row of an ordered list; the row has the focus. */
export function Cell(props: { className?: string; title?: string | undefined; children?: ReactNode }) {
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: the row has the focus
    <span role="gridcell" className={props.className} title={props.title}>
      {props.children}
    </span>
  )
}

/** What a column of an ordered list is called. */
export function ColumnHead({
  explains,
  className,
  ...rest
}: ComponentProps<'span'> & {
  /** What it means, where its name alone does not say. */
  explains?: string | undefined
}) {
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: nothing is done with a heading
    <span
      {...rest}
      role="columnheader"
      data-hint={explains}
      aria-description={explains}
      className={clsx(className, explains && EXPLAINED_LOOK)}
    />
  )
}

/** The name of a column that says more on pointing. */
export const EXPLAINED_LOOK = 'underline decoration-dotted decoration-line-2 underline-offset-2'

/** The names of the columns, above the rows. */
export function HeadRow({ className, children }: { className?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: nothing is done with it
    <div role="row" aria-rowindex={1} className={className}>
      {children}
    </div>
  )
}
