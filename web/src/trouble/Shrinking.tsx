import clsx from 'clsx'
import type { Part, Search } from './queries'
import { partName, partsWords } from './words'

const LOOKS: Record<Part['standing'], string> = {
  SUSPECTED: 'bg-ochre',
  LATER: 'bg-line-2',
  CERTAIN: 'bg-madder',
  CLEARED: 'bg-sunk',
  FOUND: 'bg-madder',
}

const NAMES: Record<Part['standing'], string> = {
  SUSPECTED: 'under suspicion',
  LATER: 'looked at later',
  CERTAIN: 'certain',
  CLEARED: 'cleared',
  FOUND: 'found',
}

/** Every part as a small plate: what is under suspicion becomes less and less. */
export function Shrinking({ search: s }: { search: Search }) {
  const asked = new Set(s.asked?.members ?? [])
  const counts = new Map<Part['standing'], number>()
  for (const p of s.parts) counts.set(p.standing, (counts.get(p.standing) ?? 0) + 1)
  const said = (Object.keys(NAMES) as Part['standing'][])
    .filter((standing) => counts.has(standing))
    .map((standing) => `${counts.get(standing)} ${NAMES[standing]}`)
    .join(', ')
  const many = s.parts.length > 300
  return (
    <section aria-label="What is under suspicion" className="card shrink-0 px-4 py-3">
      <p className="mb-2 text-ink-2">
        {partsWords(s.parts.length, s.search.level)}: {said}
        {asked.size > 0 && `; ${asked.size} in the set that is tried, marked by a line below`}.
      </p>
      <div role="img" aria-label={said} className={clsx('flex flex-wrap', many ? 'gap-[2px]' : 'gap-1')}>
        {s.parts.map((p) => (
          <span
            key={p.number}
            title={`${partName(p)}: ${NAMES[p.standing]}`}
            className={clsx(
              'border-b-[3px] transition-colors',
              many ? 'h-2.5 w-1.5' : 'h-[18px] w-7 rounded-[3px]',
              LOOKS[p.standing],
              asked.has(p.number) ? 'border-woad' : 'border-transparent bg-clip-padding',
            )}
          />
        ))}
      </div>
    </section>
  )
}
