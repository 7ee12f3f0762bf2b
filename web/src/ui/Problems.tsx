import { CircleAlert } from 'lucide-react'
import type { Problem } from '../api/client'

/** What went wrong: the thing, the reason, and what to do. */
export function Problems({ problems }: { problems: readonly Problem[] }) {
  return (
    <ul role="alert" className="flex flex-col gap-2">
      {problems.map((p) => (
        <li
          key={`${p.code} ${p.thing} ${p.reason}`}
          className="flex gap-2.5 rounded-lg border border-madder/40 bg-madder-soft px-3 py-2.5"
        >
          <CircleAlert size={16} className="mt-0.5 shrink-0 text-madder" aria-hidden="true" />
          <div className="min-w-0">
            <p className="break-words font-semibold">{p.thing}</p>
            <p className="break-words">{p.reason}</p>
            {p.remedy && <p className="break-words text-ink-2">{p.remedy}</p>}
          </div>
        </li>
      ))}
    </ul>
  )
}
