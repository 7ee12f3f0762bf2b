import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { AsidePart } from '../ui/Aside'
import { count } from '../ui/text'
import { LoadReasons } from './LoadReasons'
import { useWhy } from './queries'

/** Why a plugin stands where it does: what it must follow and precede, and how far it could move. */
export function WhyHere({ workspace, plugin }: { workspace: number; plugin: string }) {
  const why = useWhy(workspace, plugin).data
  if (!why) return null
  if (why.ring.length > 0)
    return (
      <AsidePart title="Why here?">
        <p className="text-ink-2">No order works now, so no place is right. The proposal shows the ring.</p>
      </AsidePart>
    )
  return (
    <AsidePart title="Why here?">
      <p className="leading-snug">
        {why.lowest === undefined || why.highest === undefined
          ? 'Where the others stand now, no place keeps all that it asks for.'
          : why.lowest === why.highest
            ? `With nothing else moving, ${why.lowest} is the only place for it.`
            : `With nothing else moving, it could stand anywhere from ${why.lowest} to ${why.highest}.`}
      </p>
      <Ties workspace={workspace} title="must load before it" ties={why.before} />
      <Ties workspace={workspace} title="must load after it" ties={why.after} />
    </AsidePart>
  )
}

/** So many are shown before more are asked for. */
const FIRST = 6

function Ties({
  workspace,
  title,
  ties,
}: {
  workspace: number
  title: string
  ties: readonly Schema['TieView'][]
}) {
  const [most, setMost] = useState(FIRST)
  if (ties.length === 0) return null
  return (
    <>
      <p className="mt-2 text-ink-2">
        {count(ties.length, 'plugin')} {title}
      </p>
      <ul>
        {ties.slice(0, most).map((t) => (
          <li key={t.name}>
            <details>
              <summary className="min-h-6 cursor-pointer py-[3px]">
                <span className="font-medium">{t.name}</span>{' '}
                <span className="text-ink-2">
                  {t.chain.length === 1 ? t.chain[0]?.from : `through ${t.chain.length - 1} others`}
                </span>
              </summary>
              <div className="pl-3.5">
                <LoadReasons reasons={t.chain} />
                <Link
                  to={`/workspaces/${workspace}/load-order/${encodeURIComponent(t.name)}`}
                  className="text-woad underline"
                >
                  Show {t.name}
                </Link>
              </div>
            </details>
          </li>
        ))}
      </ul>
      {ties.length > most && (
        <button type="button" className="min-h-6 text-woad underline" onClick={() => setMost(most + 50)}>
          {ties.length - most} more
        </button>
      )}
    </>
  )
}
