import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { count } from '../ui/text'
import { recordPath } from './keys'

/** Which plugins have it, what it leads to and what leads to it. */
export function RecordRelations({ workspace, board: b }: { workspace: number; board: Schema['Board'] }) {
  const to = (key: string) => recordPath(workspace, key)
  return (
    <div className="grid grid-cols-2 gap-x-6 gap-y-3 px-3.5 py-3 max-lg:grid-cols-1">
      <section aria-label="Versions">
        <h3 className="mb-1">{count(b.versions.length, 'version')}, the last is read</h3>
        <ol>
          {b.versions.map((v) => (
            <li key={v.plugin} className="py-0.5 text-ink-2">
              <b className="font-medium text-ink">{v.plugin}</b>
              {v.sees && v.sees !== b.definedBy && ` on top of ${v.sees}`}
              {v.removed && ' removes it'}
              {!v.counts && !v.patch && v.sees && ', replaced by a later one'}
              {v.patch && ', combined from the others'}
            </li>
          ))}
        </ol>
      </section>
      <section aria-label="References">
        <h3 className="mb-1">
          {b.referredBy === 0 ? 'Nothing refers to it' : `${count(b.referredBy, 'version')} refer to it`}
        </h3>
        {b.referredBy > 0 && (
          <Link
            to={`${to(b.key)}?${new URLSearchParams([
              ['any', ''],
              ['refersTo', b.key],
            ])}`}
            className="text-woad underline"
          >
            Show them in the list
          </Link>
        )}
        <ul className="max-h-40 overflow-y-auto">
          {b.referrers.map((r) => (
            <li key={r.key + r.plugin} className="py-0.5 text-ink-2">
              <Link to={to(r.key)} className="text-woad underline">
                {r.label}
              </Link>{' '}
              in {r.plugin}
              {!r.used && ', which is not read'}
            </li>
          ))}
        </ul>
        {b.refersTo.length + b.nowhere > 0 && (
          <p className="mt-1.5 text-ink-2">
            It refers to{' '}
            {b.refersTo.map((r, i) => (
              <span key={r.key}>
                {i > 0 && ', '}
                <Link to={to(r.key)} className="text-woad underline">
                  {r.label}
                </Link>
              </span>
            ))}
            {b.nowhere > 0 && (
              <b className="font-medium text-madder">
                {b.refersTo.length > 0 && ' and '}
                {count(b.nowhere, 'record')} that {b.nowhere === 1 ? 'is' : 'are'} not there
              </b>
            )}
            .
          </p>
        )}
      </section>
    </div>
  )
}
