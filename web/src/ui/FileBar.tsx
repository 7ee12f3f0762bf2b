import clsx from 'clsx'
import type { Schema } from '../api/client'
import { count, number } from './text'

type Bar = Schema['Bar']

const WAYS = [
  { key: 'inPlay', look: 'way-in-play', says: 'in play' },
  { key: 'covering', look: 'way-covering', says: 'in play, covering another' },
  { key: 'contributing', look: 'way-mend', says: 'in a combined file' },
  { key: 'covered', look: 'way-covered', says: 'covered' },
  { key: 'twin', look: 'way-twin', says: 'same content as the one in play' },
] as const

/** How a mod's files stand, as parts of one bar. */
export function FileBar({ bar, className }: { bar: Bar; className?: string }) {
  const total = WAYS.reduce((sum, w) => sum + bar[w.key], 0)
  const parts = WAYS.filter((w) => bar[w.key] > 0)
  const words = parts.map((w) => `${number(bar[w.key])} ${w.says}`).join(', ')
  return (
    <span
      role="img"
      aria-label={words || 'none of its files stands in the game'}
      data-hint={total === 0 ? 'None of its files stands in the game.' : `${count(total, 'file')}: ${words}`}
      className={clsx('flex h-3 overflow-hidden rounded-[3px] border border-line-2 bg-card', className)}
    >
      {parts.map((w) => (
        <span
          key={w.key}
          className={clsx(w.look, 'h-full border-card not-last:border-r')}
          style={{ width: `${(100 * bar[w.key]) / total}%`, minWidth: 3 }}
        />
      ))}
    </span>
  )
}

/**
 * What the textures of the bar mean, with the trade's word beside ours.
 *
 * @param combined whether any file is covered by a combined one that it went into
 */
export function FileBarKey({ combined }: { combined: boolean }) {
  return (
    <ul className="flex flex-wrap items-center gap-x-3.5 text-[11.5px] text-ink-2">
      {[
        { look: 'way-in-play', says: 'in play' },
        { look: 'way-covering', says: 'covers (overwrites) another' },
        { look: 'way-mend', says: 'in a combined file' },
        { look: 'way-covered', says: 'covered (overwritten)' },
        { look: 'way-twin', says: 'same content' },
      ]
        .filter((w) => combined || w.look !== 'way-mend')
        .map((w) => (
          <li key={w.look} className="flex items-center gap-1.5">
            <span className={clsx(w.look, 'h-2.5 w-[22px] rounded-[2px] border border-line-2')} />
            {w.says}
          </li>
        ))}
    </ul>
  )
}
