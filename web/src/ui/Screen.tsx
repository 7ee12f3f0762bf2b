import { type ReactNode, useEffect } from 'react'
import { MAIN, screenDrawn } from '../frame/focus'
import { useScreenTitle } from '../frame/title'
import { Failed, Loading } from './States'

interface ScreenProps {
  title: string
  /** What the title of the tab calls it, where its own title is that of a thing. */
  name?: string
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
export function Screen({ title, name, says, actions, aside, children }: ScreenProps) {
  useEffect(screenDrawn, [])
  useScreenTitle(name ?? title)
  return (
    <div className="flex min-h-0 min-w-0 flex-1 max-lg:flex-col max-lg:overflow-y-auto">
      <main
        id={MAIN}
        tabIndex={-1}
        className="flex min-w-0 flex-1 flex-col px-3.5 pt-3 pb-3 outline-none focus-visible:shadow-[inset_0_2px_0_var(--color-woad)] max-lg:min-h-[460px] max-lg:flex-none max-lg:basis-full"
      >
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

/** What the state of a query says while there is nothing to show of it. */
interface Asked {
  isPending: boolean
  error: unknown
  refetch: () => unknown
}

/**
 * A screen that has nothing to show yet: on its way, or failed with another try.
 *
 * @param what names what is waited for, to a reader
 */
export function Waiting(props: {
  title: string
  what: string
  queries: readonly Asked[]
  actions?: ReactNode
}) {
  const failed = props.queries.filter((q) => q.error)
  return (
    <Screen title={props.title} actions={props.actions}>
      <div className="card flex-1">
        {failed[0] && !failed.some((q) => q.isPending) ? (
          <Failed error={failed[0].error} retry={() => Promise.all(failed.map((q) => q.refetch()))} />
        ) : (
          <Loading what={props.what} />
        )}
      </div>
    </Screen>
  )
}
