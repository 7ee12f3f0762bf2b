import type { Schema } from '../api/client'
import { count } from '../ui/text'

const MATCHED: Record<Schema['MatchView']['what'], (name: string) => string> = {
  MOUNT: (name) => `where mods go: ${name}`,
  PLUGINS: () => 'plugins',
  OWN_PLUGINS: (name) => `the game’s own ${name}`,
  RECORDS: (name) => `records of type ${name}`,
  PACKS: () => 'packs',
  COMBINED: (name) => `combined: ${name}`,
  PROTECTED: () => 'protected',
  WRITABLE: () => 'written by the game',
  PER_PROFILE: () => 'a copy for each profile',
  HARMLESS: () => 'cannot break with a new version',
}

/** What each part of a definition matches in the folder. */
export function Matches({
  matches,
  open,
}: {
  matches: readonly Schema['MatchView'][]
  /** Whether it is shown at once: to whoever is writing the definition. */
  open: boolean
}) {
  return (
    <details open={open}>
      <summary className="cursor-pointer text-[11.5px] text-ink-2 font-semibold">
        What the definition matches there
      </summary>
      <ul aria-label="What the definition matches there" className="mt-1">
        {matches.map((m) => (
          <li
            key={`${m.what}:${m.name}`}
            className="flex items-baseline gap-2 border-line border-t py-[3px]"
            title={m.first.join('\n')}
          >
            <span className="min-w-0 flex-1 truncate">{MATCHED[m.what](m.name)}</span>
            {m.count === 0 ? (
              <span className="shrink-0 text-ochre">nothing yet</span>
            ) : (
              <>
                <span className="mono min-w-0 max-w-[45%] truncate text-ink-3">{m.first[0]}</span>
                <span className="num shrink-0 text-ink-2">
                  {count(m.count, m.what === 'RECORDS' ? 'record' : 'file')}
                </span>
              </>
            )}
          </li>
        ))}
      </ul>
    </details>
  )
}
