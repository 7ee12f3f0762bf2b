import clsx from 'clsx'
import { Check } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { Empty, Failed, Loading } from '../ui/States'
import { number } from '../ui/text'
import { recordPath, spoken } from './keys'
import { type FindingKind, useFindings } from './queries'

const KINDS: Record<FindingKind, string> = {
  LEADS_NOWHERE: 'refers to what is not there',
  PATH_NOT_IN_PLAY: 'names a file that is not in play',
  OUT_OF_RANGE: 'has a number out of range',
  ADDS_NOTHING: 'adds nothing',
}

/** Single records that something is wrong with, each with its remedy. */
export function FindingsPart({
  workspace,
  odd,
  oddInAll,
}: {
  workspace: number
  odd: readonly Schema['OddView'][]
  oddInAll: number
}) {
  const [kind, setKind] = useState<FindingKind | undefined>()
  const found = useFindings(workspace, kind)
  if (found.isPending)
    return (
      <div className="card flex-1">
        <Loading what="what is wrong" />
      </div>
    )
  const v = found.data
  if (!v) return <Failed error={found.error} retry={() => found.refetch()} />
  const total = Object.values(v.counts).reduce((a, b) => a + b, 0)
  if (total + oddInAll === 0)
    return (
      <div className="card flex-1">
        <Empty icon={Check} title="Every record makes sense">
          Every reference leads somewhere, every path is in play, and every number is in its range.
        </Empty>
      </div>
    )
  const shown = kind ? (v.counts[kind] ?? 0) : total
  return (
    <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
      <fieldset className="flex flex-wrap gap-1 border-line border-b px-3.5 py-2">
        <legend className="sr-only">What is wrong</legend>
        {(Object.keys(KINDS) as FindingKind[]).map((k) => (
          <button
            key={k}
            type="button"
            aria-pressed={kind === k}
            onClick={() => setKind(kind === k ? undefined : k)}
            className={clsx(
              'h-[26px] rounded-full border px-2.5 text-[12px]',
              kind === k ? 'border-woad bg-woad-soft' : 'border-line-2 bg-card text-ink-2 hover:border-ink-3',
            )}
          >
            {KINDS[k]} <span className="num">{number(v.counts[k] ?? 0)}</span>
          </button>
        ))}
      </fieldset>
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {v.findings.map((f) => (
          <li key={`${f.kind} ${f.key} ${f.plugin}`} className="border-line border-b px-3.5 py-2">
            <p>
              <Link to={`${recordPath(workspace, f.key)}?any`} className="font-semibold hover:underline">
                {f.title} “{f.label}”
              </Link>{' '}
              <span className="text-ink-2">
                in {f.plugin} {KINDS[f.kind]}
              </span>
            </p>
            {f.places.length > 0 && <p className="break-words">{f.places.join(' · ')}</p>}
            <p className="text-ink-2">{f.remedy}</p>
          </li>
        ))}
        {shown > v.findings.length && (
          <li className="px-3.5 py-2 text-ink-2">
            The first {number(v.findings.length)} of {number(shown)} are shown.
          </li>
        )}
        {!kind &&
          odd.map((o) => (
            <li key={o.key + o.plugin} className="border-line border-b px-3.5 py-2">
              <b className="font-semibold">{spoken(o.key)}</b>{' '}
              <span className="text-ink-2">
                in {o.plugin} makes no sense, and is never combined. {o.reason}
              </span>
            </li>
          ))}
        {!kind && oddInAll > odd.length && (
          <li className="px-3.5 py-2 text-ink-2">
            {number(oddInAll - odd.length)} more records make no sense.
          </li>
        )}
      </ul>
    </div>
  )
}
