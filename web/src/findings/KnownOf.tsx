import { Link } from 'react-router'
import { useUpdates } from '../updates/queries'
import { useFindings } from './queries'
import { scopeWords, tallyWords, VERDICTS, verdictWords } from './words'

/** How many findings of others stand beside a mod; all stand on their own screen. */
const SHOWN = 4

/**
 * What is known of one mod: one's own findings, and those of others counted.
 *
 * @param cardId what it is known by where nothing else is said
 */
export function KnownOf({ workspace, mod, cardId }: { workspace: number; mod: number; cardId: string }) {
  const updates = useUpdates(workspace)
  const mods = updates.data ?? []
  const id = mods.find((m) => m.mod === mod)?.catalogueMod ?? cardId
  const findings = useFindings(workspace, updates.isPending ? null : id)
  if (!findings.data) return <p className="text-ink-2">Looking it up…</p>
  const found = findings.data
  const others = found.filter((f) => !f.own)
  const nameOf = (m: string) => mods.find((x) => x.catalogueMod === m)?.name ?? m
  return (
    <>
      {found.length === 0 && <p className="text-ink-2">Nobody has found anything out about it yet.</p>}
      {others.length > 0 && <p className="text-ink-2">Others: {tallyWords(others)}</p>}
      <ul>
        {[...found.filter((f) => f.own), ...others.slice(0, SHOWN)].map((f) => (
          <li
            key={f.id ?? `${f.by} ${f.at} ${f.says}`}
            className="border-line border-t py-1 first:border-t-0"
          >
            <b className={`font-medium ${VERDICTS.find((v) => v.verdict === f.verdict)?.look}`}>
              {verdictWords(f.verdict)}
            </b>{' '}
            {f.mod !== id && <span>{nameOf(f.mod)}: </span>}
            <span className="break-words">{f.says}</span>{' '}
            <span className="text-[12px] text-ink-2">
              {[scopeWords(f, nameOf), f.own ? 'yours' : f.by || 'unsigned', f.at].filter(Boolean).join(', ')}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-1">
        <Link to={`/workspaces/${workspace}/catalogue/findings`} className="text-woad underline">
          All findings
        </Link>
      </p>
    </>
  )
}
