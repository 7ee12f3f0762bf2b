import type { LucideIcon } from 'lucide-react'
import type { ReactNode } from 'react'
import { asProblems } from '../api/client'
import { Button } from './Button'
import { Problems } from './Problems'

/** A screen or a part of one with nothing in it: says why, and what to do next. */
export function Empty({
  icon: Icon,
  title,
  children,
}: {
  icon: LucideIcon
  title: string
  children?: ReactNode
}) {
  return (
    <div className="flex h-full min-h-40 flex-col items-center justify-center gap-1.5 px-8 py-10 text-center">
      <Icon size={26} strokeWidth={1.4} className="mb-1 text-ink-3" aria-hidden="true" />
      <p className="font-semibold text-[14px]">{title}</p>
      <div className="max-w-[420px] text-ink-2">{children}</div>
    </div>
  )
}

/** Rows of nothing, while the first answer is under way. */
export function Loading({ what }: { what: string }) {
  return (
    <div role="status" aria-label={`Loading ${what}`} className="flex flex-col gap-2.5 p-4">
      {['88%', '72%', '80%', '64%', '76%'].map((width) => (
        <span key={width} className="h-3.5 animate-waiting rounded bg-line" style={{ width }} />
      ))}
    </div>
  )
}

/** What a query could not get, with another try. */
export function Failed({ error, retry }: { error: unknown; retry: () => void }) {
  return (
    <div className="flex flex-col items-start gap-3 p-4">
      <Problems problems={asProblems(error)} />
      <Button onClick={retry}>Try again</Button>
    </div>
  )
}
