import { count, number } from '../ui/text'
import type { Catalogue, FoundMod, Release } from './queries'

const CHANGES: Record<Release['change'], string> = {
  FIX: 'mends faults',
  FEATURE: 'has something new',
  LARGE: 'is very different',
  UNKNOWN: '',
}

/** How much a release changes, in its author's eyes; empty where nobody says. */
export function changeWords(r: Release): string {
  return CHANGES[r.change]
}

/** What of a mod is here, in a word or two. */
export function hereWords(m: FoundMod): string {
  if (m.here === undefined) return ''
  const newer = m.hasNewer ? ', newer ones exist' : ''
  return `${m.here} is here${m.on ? '' : ', off'}${newer}`
}

/** Whether a version needs another, in words, such as “Rope Locker >=1.2”. */
export function rangeWords(n: { mod: string; versions: string; variant?: string }): string {
  const range = n.versions === '*' ? '' : ` ${n.versions}`
  const variant = n.variant === undefined ? '' : n.variant === '' ? ', plain' : `, ${n.variant}`
  return `${n.mod}${range}${variant}`
}

/** What came of the last look. */
export function lookWords(c: Catalogue): string {
  const look = c.look
  if (!look) return 'not looked at yet'
  if (look.outcome === 'REFUSED') return 'refused: what was known of it stays'
  if (look.outcome === 'SAME') return 'nothing new'
  const news = look.news
  if (!news || news.first) return 'read for the first time'
  const parts = [
    news.newMods > 0 && count(news.newMods, 'new mod'),
    news.newReleases > 0 && count(news.newReleases, 'new release'),
    news.goneMods > 0 && `${count(news.goneMods, 'mod')} gone`,
  ].filter((p): p is string => typeof p === 'string')
  return parts.length > 0 ? parts.join(', ') : 'nothing new'
}

/** How many were found. */
export function foundWords(total: number, isMore: boolean): string {
  return isMore ? `more than ${number(total)} mods` : count(total, 'mod')
}
