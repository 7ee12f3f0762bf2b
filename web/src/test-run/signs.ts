import type { Schema } from '../api/client'
import { count, number } from '../ui/text'

type OfMod = Schema['SignsOfMod']
type Sign = Schema['SignView']

export const SEEN: Record<Sign['seen'], { name: string; look: string }> = {
  SEEN: { name: 'seen', look: 'text-moss' },
  NOT_SEEN: { name: 'not seen', look: 'text-madder' },
  CANNOT_TELL: { name: 'cannot be told', look: 'text-ink-2' },
}

/** The signs to look for by the place to which one goes for them, in the order of first sight. */
export function byPlace(mods: readonly OfMod[]): { place: string; signs: { mod: OfMod; sign: Sign }[] }[] {
  const places = new Map<string, { mod: OfMod; sign: Sign }[]>()
  for (const mod of mods)
    for (const sign of mod.signs) {
      if (sign.kind !== 'LOOK') continue
      const place = sign.place || 'Anywhere'
      places.set(place, [...(places.get(place) ?? []), { mod, sign }])
    }
  return [...places].map(([place, signs]) => ({ place, signs }))
}

/** How many signs were seen, not seen, and cannot be told. */
export function tally(mods: readonly OfMod[]): string {
  const all = mods.flatMap((m) => m.signs)
  const of = (seen: Sign['seen']) => all.filter((s) => s.seen === seen).length
  if (all.length === 0) return 'no mod that is on has signs'
  const parts = [`${of('SEEN')} of ${count(all.length, 'sign')} seen`]
  if (of('NOT_SEEN') > 0) parts.push(`${of('NOT_SEEN')} not seen`)
  if (of('CANNOT_TELL') > 0) parts.push(`${of('CANNOT_TELL')} cannot be told`)
  return parts.join(', ')
}

/** What the game read of a mod: that is all that tells of one without signs. */
export function readWords(m: OfMod): string {
  if (!m.inGame) return 'nothing of it is in the game folder'
  const slots = Object.entries(m.slots).map(([plugin, slot]) => `${plugin} in slot ${slot}`)
  return [`the game read ${number(m.read)} of its ${count(m.files, 'file')} in play`, ...slots].join('; ')
}
