import { list } from '../ui/text'
import type { ModFinding, Verdict } from './queries'

export const VERDICTS: readonly { verdict: Verdict; says: string; look: string }[] = [
  { verdict: 'WORKS', says: 'works', look: 'text-moss' },
  { verdict: 'WORKS_WITH_CARE', says: 'works with care', look: 'text-ochre' },
  { verdict: 'BROKEN', says: 'broken', look: 'text-madder' },
]

/** A verdict in a word. */
export function verdictWords(v: Verdict): string {
  return VERDICTS.find((x) => x.verdict === v)?.says ?? ''
}

/** With what it was found out: versions, game, other mods. */
export function scopeWords(f: ModFinding, nameOf: (mod: string) => string): string {
  const parts = [
    f.versions !== '*' && `in ${f.versions.replace(/^=/, '')}`,
    f.game !== undefined && `game ${f.game}`,
    f.with.length > 0 &&
      `with ${list(f.with.map((w) => (w.versions === '*' ? nameOf(w.mod) : `${nameOf(w.mod)} ${w.versions}`)))}`,
  ]
  return parts.filter(Boolean).join(', ')
}

/** How often each verdict was given, never mixed into one. */
export function tallyWords(all: readonly ModFinding[]): string {
  const unsigned = all.filter((f) => !f.by).length
  const parts = VERDICTS.map((v) => ({ says: v.says, n: all.filter((f) => f.verdict === v.verdict).length }))
    .filter((v) => v.n > 0)
    .map((v) => `${v.n} ${v.says}`)
  if (unsigned > 0) parts.push(`${unsigned} of them unsigned`)
  return parts.join(', ')
}
