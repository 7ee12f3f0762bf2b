import { Check, CircleAlert } from 'lucide-react'
import type { Schema } from '../api/client'
import { AsidePart } from '../ui/Aside'

/** How far a need is met, in words. */
const SAYS: Record<Schema['NeedView']['state'], (found: string | undefined) => string> = {
  MET: (found) => `${found} is on`,
  OFF: (found) => `${found} is here, and off`,
  WRONG_VERSION: (found) => `here in version ${found}`,
  MISSING: () => 'not in your library',
}

/** What is lacking, in a line. */
export function lacksWords(lacks: readonly Schema['NeedView'][]): string {
  return lacks
    .map((n) => `${n.name}${n.versions === '*' ? '' : ` ${n.versions}`} (${SAYS[n.state](n.found)})`)
    .join(', ')
}

/** What a mod's card says that it needs, clashes with, and is made for. */
export function NeedsList({
  detail,
}: {
  detail: Pick<Schema['ModDetail'], 'needs' | 'clashes' | 'gameVersions'>
}) {
  if (detail.needs.length + detail.clashes.length === 0 && detail.gameVersions === '*') return null
  return (
    <AsidePart title="Needs">
      <ul className="flex flex-col gap-1">
        {detail.needs.map((n) => (
          <li key={n.mod} className="flex items-baseline justify-between gap-3">
            <span className="font-medium">
              {n.name}
              {n.versions !== '*' && <span className="num ml-1 font-normal text-ink-2">{n.versions}</span>}
            </span>
            <span className="flex items-center gap-1 text-ink-2">
              {n.state === 'MET' ? (
                <Check size={13} className="text-moss" aria-hidden="true" />
              ) : (
                <CircleAlert size={13} className="text-madder" aria-hidden="true" />
              )}
              {SAYS[n.state](n.found)}
            </span>
          </li>
        ))}
        {detail.gameVersions !== '*' && (
          <li className="flex items-baseline justify-between gap-3">
            <span className="font-medium">The game</span>
            <span className="num text-ink-2">{detail.gameVersions}</span>
          </li>
        )}
        {detail.clashes.map((c) => (
          <li key={c.mod} className="text-ink-2">
            Does not go with <b className="font-medium text-ink">{c.name}</b>
            {c.why && `: ${c.why}`}
          </li>
        ))}
      </ul>
    </AsidePart>
  )
}
