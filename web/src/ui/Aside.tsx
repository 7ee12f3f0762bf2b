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

/** A heading in it with what belongs to it. */
export function AsidePart({ title, children }: { title: ReactNode; children: ReactNode }) {
  const id = useId()
  return (
    <section aria-labelledby={id} className="mt-3.5">
      <h3 id={id} className="mb-1">
        {title}
      </h3>
      {children}
    </section>
  )
}
