import type { Schema } from '../api/client'
import { count } from '../ui/text'

/** What one answer for many places comes to. */
export function sweptWords(s: Schema['SettledView'], tense: 'would' | 'does'): string {
  if (s.places === 0)
    return s.left === 0
      ? 'Nothing is asked there any more.'
      : 'It has nothing at any of the places that are asked there.'
  const settles = tense === 'would' ? 'would be settled' : s.places === 1 ? 'is settled' : 'are settled'
  const left = `${count(s.left, 'other')} ${s.left === 1 ? 'stays' : 'stay'} asked.`
  return `${count(s.places, 'place')} of ${count(s.files, 'file')} ${settles}.${s.left > 0 ? ` ${left}` : ''}`
}
