import type { Schema } from '../api/client'
import { count, list } from '../ui/text'

export type Member = Schema['MemberView']
export type Brought = Schema['ChoiceView']

/** The groups in which what a choice brings is shown, what has to be done first. */
export const GROUPS: readonly { becomes: Member['becomes']; title: string }[] = [
  { becomes: 'FETCHED', title: 'To fetch' },
  { becomes: 'CHANGED', title: 'Here in another version' },
  { becomes: 'SWITCHED_ON', title: 'Here, and off' },
  { becomes: 'STAYS', title: 'Here and on' },
]

/** What happens to a mod, in words. */
export function becomesWords(m: Member): string {
  switch (m.becomes) {
    case 'FETCHED':
      return m.catalogue ? `fetched from ${m.catalogue}` : 'fetched'
    case 'CHANGED':
      return `${m.from ?? 'another version'} is here, ${m.version} takes its place${m.catalogue ? `, from ${m.catalogue}` : ''}`
    case 'SWITCHED_ON':
      return 'is switched on'
    default:
      return 'stays as it is'
  }
}

/** Who needs it, and through whom. */
export function whyWords(m: Member): string {
  if (m.because?.text) return `else this would not hold: ${m.because.text}`
  const by = m.path.slice(0, -1)
  if (by.length === 0) return 'you want it'
  const last = by[by.length - 1] as string
  const through = by.slice(0, -1)
  return through.length === 0
    ? `needed by ${last}`
    : `needed by ${last}, through ${list([...through].reverse())}`
}

/** All of it in a sentence. */
export function sumWords(b: Brought): string {
  const number = (becomes: Member['becomes']) => b.members.filter((m) => m.becomes === becomes).length
  const parts = [
    number('FETCHED') > 0 && `${count(number('FETCHED'), 'mod')} to fetch`,
    number('CHANGED') > 0 && `${count(number('CHANGED'), 'other version')}`,
    number('SWITCHED_ON') > 0 && `${count(number('SWITCHED_ON'), 'mod')} to switch on`,
    b.off.length > 0 && `${count(b.off.length, 'mod')} to switch off`,
  ].filter((p): p is string => typeof p === 'string')
  return parts.length > 0 ? `${list(parts)}.` : 'All of it is here and on.'
}
