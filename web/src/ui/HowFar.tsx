import clsx from 'clsx'
import type { Schema } from '../api/client'
import { number } from './text'

type Reached = Schema['ModJourney']['reached']

const PLACES: readonly { reached: Reached; says: string; next: string }[] = [
  { reached: 'LIBRARY', says: 'in the library', next: 'switch it on' },
  { reached: 'ON', says: 'switched on', next: 'deploy' },
  { reached: 'DEPLOYED', says: 'in the game folder', next: 'start a test run' },
  { reached: 'READ', says: 'read by the game', next: '' },
]

/** How far a mod or plugin has come: four stitches along its way, those behind it drawn through. */
export function HowFar({
  reached,
  detail,
  withWords,
}: {
  reached: Reached
  detail?: string
  withWords?: boolean
}) {
  const at = PLACES.findIndex((p) => p.reached === reached)
  const place = PLACES[at]
  const next = place?.next ? ` Next: ${place.next}.` : ''
  const says = `${capital(place?.says ?? '')}${detail ? `: ${detail}` : ''}.${next}`
  return (
    <span className="inline-flex items-center gap-2" role="img" aria-label={says} data-hint={says}>
      <svg width="46" height="10" viewBox="0 0 46 10" aria-hidden="true" className="shrink-0">
        {PLACES.map((p, i) => (
          <path
            key={p.reached}
            d={`M${i * 12 + 1} 8 q4.500 -9 9 0`}
            fill="none"
            strokeLinecap="round"
            strokeWidth={i <= at ? 2.2 : 1.2}
            strokeDasharray={i <= at ? undefined : '1.500 2.500'}
            className={clsx(i <= at ? 'stroke-woad' : 'stroke-ink-3')}
          />
        ))}
      </svg>
      {withWords && <span className="text-ink-2">{place?.says}</span>}
    </span>
  )
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** “39 of 48 files in play were read”; without a log nobody can tell. */
export function modDetail(j: Schema['ModJourney']): string {
  if (j.reached === 'LIBRARY') return ''
  if (j.inPlay === 0) return 'none of its files is in play'
  if (j.deployed < j.inPlay)
    return `${number(j.deployed)} of ${number(j.inPlay)} files in play are in the folder`
  if (j.read === undefined) return 'what the game read cannot be told'
  return `${number(j.read)} of ${number(j.inPlay)} files in play were read`
}

export function pluginDetail(j: Schema['PluginJourney']): string {
  return j.slot === undefined ? '' : `in slot ${j.slot} of the last run`
}
