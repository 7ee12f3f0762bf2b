import type { Bridge, LeftKind, Update } from './queries'

const CHANGES: Record<NonNullable<Update['change']>, string> = {
  FIX: 'mends faults',
  FEATURE: 'something new',
  LARGE: 'very different',
  UNKNOWN: 'not said how much',
}

/** How much an update changes. */
export function changeWords(u: Update): string {
  return u.change ? CHANGES[u.change] : ''
}

/** How long ago a day was. */
export function ageWords(day: string, today: Date): string {
  if (!day) return ''
  const days = Math.floor((today.getTime() - Date.parse(`${day}T00:00:00Z`)) / 86_400_000)
  if (!Number.isFinite(days)) return ''
  if (days < 1) return 'today'
  if (days < 14) return days === 1 ? 'yesterday' : `${days} days ago`
  if (days < 60) return `${Math.floor(days / 7)} weeks ago`
  if (days < 730) return `${Math.floor(days / 30)} months ago`
  return `${Math.floor(days / 365)} years ago`
}

/** By what a mod is known in the catalogues. */
export function howWords(u: Update): string {
  switch (u.how) {
    case 'SAID':
      return 'as you have said'
    case 'SAID_NONE':
      return 'in no catalogue, as you have said'
    case 'CARD':
      return 'by the id of its card'
    case 'ARCHIVE':
      return 'by the SHA-256 of its archive'
    case 'NAME':
      return 'by its archive’s name, since it has no card'
    default:
      return 'in no catalogue'
  }
}

export const LEAVES: readonly { kind: LeftKind; says: string; about: string }[] = [
  { kind: 'VERSION', says: 'Leave this version', about: 'A newer one is offered again.' },
  { kind: 'MOD', says: 'Leave this mod for good', about: 'No newer one is offered.' },
  { kind: 'VARIANT', says: 'Another variant', about: 'What is offered is no update of yours.' },
]

/** What the user has said of an update. */
export function leftWords(u: Update): string {
  if (!u.left) return ''
  const why = u.left.reason ? `: ${u.left.reason}` : ''
  switch (u.left.kind) {
    case 'VERSION':
      return `${u.left.version} is left${why}`
    case 'MOD':
      return `left for good${why}`
    default:
      return `what is offered is another variant${why}`
  }
}

const BRIDGES: Record<Bridge['state'], string> = {
  CALLED_FOR: 'both sides are on, and it is not',
  LOST_SIDE: 'it is on, and has lost a side',
  WAITING: 'it waits for a side',
}

/** How a bridge stands. */
export function bridgeWords(b: Bridge): string {
  return BRIDGES[b.state]
}
