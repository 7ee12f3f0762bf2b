import type { ReactNode } from 'react'

interface ScreenProps {
  title: string
  /** A sentence beside the title that says where things stand. */
  says?: ReactNode
  actions?: ReactNode
  aside?: ReactNode
  children: ReactNode
}

/**
 * The body of a view: its title, its acts, its content, and the column about what is selected. Where it is
 * narrow, or the page enlarged, that column comes below.
 */
export function Screen({ title, says, actions, aside, children }: ScreenProps) {
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
      <main className="flex min-w-0 flex-1 flex-col px-3.5 pt-3 pb-3 max-lg:min-h-[460px] max-lg:flex-none max-lg:basis-full">
        <div className="mb-2 flex min-h-[30px] flex-wrap items-center gap-x-3 gap-y-1.5">
          <h1>{title}</h1>
          <div className="min-w-0 flex-1 text-ink-2 max-lg:order-last max-lg:basis-full">{says}</div>
          <div className="ml-auto flex items-center gap-2">{actions}</div>
        </div>
        {children}
      </main>
      {aside}
    </div>
  )
}
