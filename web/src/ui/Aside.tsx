import { type ReactNode, useId } from 'react'

/** The column to the right, about what is selected. */
export function Aside({ label, children }: { label: string; children: ReactNode }) {
  return (
    <aside
      aria-label={label}
      className="flex w-[336px] shrink-0 flex-col overflow-y-auto border-line border-l bg-card px-4 py-3.5 max-lg:w-full max-lg:overflow-visible max-lg:border-t max-lg:border-l-0"
    >
      {children}
    </aside>
  )
}

/**
 * A heading in it with what belongs to it.
 *
 * @param top whether nothing in the column stands above it, such as the name of what is selected
 */
export function AsidePart(props: { title: ReactNode; top?: boolean; children: ReactNode }) {
  const id = useId()
  const Heading = props.top ? 'h2' : 'h3'
  return (
    <section aria-labelledby={id} className="mt-3.5">
      <Heading id={id} className="mb-1">
        {props.title}
      </Heading>
      {props.children}
    </section>
  )
}
