import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { CopyButton } from '../ui/CopyButton'
import type { Part, Search } from './queries'
import { outcomeWords, partName } from './words'

/** What a search has come to, what shows it, and what can be done. */
export function Outcome({ workspace, search: s }: { workspace: number; search: Search }) {
  const found = s.parts.filter((p) => p.standing === 'FOUND')
  const proof = s.tries.filter((t) => t.why === 'PROOF_WITH' || t.why === 'PROOF_WITHOUT')
  return (
    <section
      aria-label="What came of it"
      className={`card shrink-0 px-4 py-3 ${s.search.state === 'FOUND' ? 'border-madder/50' : ''}`}
    >
      <h2>{s.search.state === 'FOUND' ? 'Found' : 'Nothing was found'}</h2>
      <p>{outcomeWords(s)}</p>
      {found.length > 0 && (
        <ul className="mt-1.5">
          {found.map((p) => (
            <li key={p.number} className="flex flex-wrap items-baseline gap-x-3 border-line border-t py-1">
              <b className="min-w-0 break-all font-semibold">{partName(p)}</b>
              {(p.path || p.record) && <span className="text-ink-2">of {p.modName}</span>}
              {p.isNeeded && <span className="text-ink-2">others of them need it</span>}
              <span className="ml-auto flex gap-3">
                {remedies(workspace, p, s.search.level).map((r) => (
                  <Link key={r.label} to={r.to} className="text-woad underline">
                    {r.label}
                  </Link>
                ))}
              </span>
            </li>
          ))}
        </ul>
      )}
      {proof.length > 0 && s.search.state === 'FOUND' && (
        <details className="mt-2">
          <summary className="cursor-pointer text-ink-2">
            The proof: {proof.length === 1 ? 'one run' : `${proof.length} runs`}, each by the hash of all that
            the game could read
          </summary>
          <ul className="mt-1">
            {proof.map((t) => (
              <li key={t.id} className="flex items-baseline gap-2 py-0.5">
                <span className="w-28 shrink-0">{t.answer === 'FAILS' ? 'shows' : 'does not show'}</span>
                <code className="mono min-w-0 truncate text-[11.5px]">{t.picture || 'not known'}</code>
                {t.picture && <CopyButton text={t.picture} what="the hash of the set" />}
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

/** Where something can be done about a part. */
function remedies(workspace: number, p: Part, level: Schema['SearchLine']['level']) {
  const base = `/workspaces/${workspace}`
  if (level === 'MODS')
    return [
      { label: 'Its layer', to: `${base}/layers/${p.mod}` },
      { label: 'Newer versions', to: `${base}/catalogue/updates/${p.mod}` },
    ]
  if (level === 'FILES')
    return [{ label: 'Hold it back, or rule', to: `${base}/overlaps/path?at=${encodeURIComponent(p.path)}` }]
  const at = p.record.lastIndexOf('/')
  return [
    {
      label: 'The record',
      to: `${base}/records/${encodeURIComponent(p.record.slice(0, at))}/${p.record.slice(at + 1)}`,
    },
  ]
}
