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
export function ColumnHead(props: ComponentProps<'span'>) {
  // biome-ignore lint/a11y/useFocusableInteractive: nothing is done with a heading
  return <span {...props} role="columnheader" />
}

/** The names of the columns, above the rows. */
export function HeadRow({ className, children }: { className?: string; children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: nothing is done with it
    <div role="row" aria-rowindex={1} className={className}>
      {children}
    </div>
  )
}
