import { bytes, count, list, timeWords } from '../ui/text'
import type { Answer, Part, Reason, Search, SearchLine, Try } from './queries'

const LEVELS: Record<SearchLine['level'], readonly [one: string, many: string]> = {
  MODS: ['mod', 'mods'],
  ORDER: ['order', 'orders'],
  FILES: ['file', 'files'],
  RECORDS: ['record', 'records'],
  FIELDS: ['field', 'fields'],
}

/** So many of what a search is among. */
export function partsWords(n: number, level: SearchLine['level']): string {
  return count(n, ...LEVELS[level])
}

export const LEVEL_NAMES: Record<SearchLine['level'], string> = {
  MODS: 'Which mods',
  ORDER: 'Whether it is their order',
  FILES: 'Which files',
  RECORDS: 'Which records',
  FIELDS: 'Which fields',
}

export const STATES: Record<SearchLine['state'], string> = {
  SEARCHING: 'searching',
  RESTING: 'rests',
  FOUND: 'found',
  NOT_SHOWN: 'the fault did not show',
  NONE: 'none is behind it',
  UNTOLD: 'could not be told',
  LEFT: 'given up',
  MEASURED: 'measured',
}

export const ANSWERS: Record<Answer, string> = {
  FAILS: 'the fault shows',
  WORKS: 'it works',
  CANNOT_TELL: 'cannot be told',
  ANOTHER_FAULT: 'another fault',
}

const REASONS: Record<Reason, string> = {
  NAMED: 'the fault names it',
  CHANGED: 'changed since it worked',
  FOUND_BROKEN: 'your finding says broken',
  RECALLED: 'was behind the same fault before',
  MOVED: 'moved since it worked',
  MEETS_NAMED: 'meets what the fault names',
  WRINKLE: 'has a wrinkle',
  DEPARTS: 'is otherwise than the list you follow',
  HELD_BACK: 'has files that are held back',
  SAID_BROKEN: 'others say broken',
  NEW: 'came since it worked',
  HARMLESS: 'holds nothing that can break',
}

/** Why somebody is suspected, in a line. */
export function reasonWords(reasons: readonly Reason[]): string {
  return reasons.map((r) => REASONS[r]).join(', ')
}

/** What a part of a search is called. */
export function partName(p: Part): string {
  if (p.aboveName !== undefined) return `${p.modName} below ${p.aboveName}`
  if (p.field) return `${p.field} of ${p.record}`
  return p.record || p.path || p.modName
}

/** What a set is tried for. */
export function whyWords(
  t: Pick<Try, 'why'>,
  level: SearchLine['level'],
  without?: string,
  always: readonly string[] = [],
): string {
  switch (t.why) {
    case 'EVERYTHING':
      if (level === 'ORDER') return 'in their order'
      return `with all ${LEVELS[level][1]}`
    case 'STEP':
      return 'a step: what it adds to those before'
    case 'NOTHING':
      if (level === 'ORDER') return 'in each other’s places'
      if (always.length > 0) return `${list(always)} alone`
      return level === 'MODS' ? 'the unmodded game' : `with none of the ${LEVELS[level][1]}`
    case 'ENOUGH':
      return 'whether those that are certain are enough'
    case 'NARROW':
      return 'a part of those under suspicion'
    case 'LEAVE_OUT':
      return 'whether it shows without some'
    case 'MEASURE_WITH':
      return 'with it'
    case 'MEASURE_WITHOUT':
      return 'without it'
    case 'PROOF_WITH':
      return 'proof: with what was found'
    case 'PROOF_WITHOUT':
      return without ? `proof: without ${without}` : 'proof: without one of them'
  }
}

/** How far a search has come. */
export function leftWords(s: Search): string {
  const done = count(s.tries.length, 'run')
  if (!s.asked) return `${done}.`
  if (s.measured) return `${done} done, ${s.asked.atMostLeft} left${timeLeft(s)}.`
  return `${done} done, at most ${s.asked.atMostLeft} left if one more ${LEVELS[s.search.level][0]} is behind it${timeLeft(s)}.`
}

/** How long what is left takes at most, by the middle one of the tries; a rest between two is not counted so. */
function timeLeft(s: Search): string {
  if (!s.asked || !s.search.automatic || s.search.state !== 'SEARCHING' || s.tries.length < 2) return ''
  const times = s.tries.map((t) => Date.parse(t.at))
  const each = times.slice(1).map((t, i) => t - (times[i] ?? t))
  const middle = each.toSorted((a, b) => a - b)[Math.floor(each.length / 2)] ?? 0
  return `: about ${timeWords(middle * s.asked.atMostLeft)}`
}

/** How often the fault came, where that is not always. */
export function oftenWords(s: Search): string {
  if (s.shown === s.told) return ''
  return `The fault came in ${s.shown} of ${count(s.told, 'run')} with sets that show it, so a set counts as working after ${count(s.triesToTrust, 'run')} without it.`
}

/** What has come of a search, in a sentence. */
export function outcomeWords(s: Search): string {
  const found = s.parts.filter((p) => p.standing === 'FOUND')
  const what = partsWords(found.length, s.search.level)
  if (s.search.level === 'ORDER') {
    if (s.search.state === 'FOUND')
      return 'In this order the fault shows; in each other’s places it does not.'
    if (s.search.state === 'NONE') return 'The fault shows in either order: it is not their order alone.'
  }
  switch (s.search.state) {
    case 'FOUND':
      return s.unproved.length > 0
        ? `With ${found.length === 1 ? 'this' : 'these'} ${what} the fault shows. Without some of them it could not be told.`
        : found.length === 1
          ? `With this ${what.replace(/^1 /, '')} the fault shows; without it, it does not.`
          : `With these ${what} the fault shows; without any one of them it does not.`
    case 'NOT_SHOWN':
      if (s.steps.length > 0) return 'Every step works: the fault did not show in any of them.'
      return 'The fault did not show with everything on, so there is nothing to search by. It may come only sometimes: then search by hand, and try the first set more than once.'
    case 'NONE':
      if (s.always.length > 0)
        return `With nothing on but ${list(s.always)} the fault shows too: no other mod is behind it.`
      return s.search.level === 'MODS'
        ? 'The unmodded game shows the fault too: no mod is behind it. Look at the game itself, its settings and its saves.'
        : `The fault shows with none of the ${LEVELS[s.search.level][1]} in play, so it lies in something else of what was found.`
    case 'UNTOLD':
      if (s.measured)
        return 'Runs of one of the two sets did not come to their end, so they cannot be compared.'
      return 'What was found did not show the fault when it was tried again.'
    case 'LEFT':
      return 'The search was given up. The game folder is as it was before.'
    default:
      return ''
  }
}

/** The tries that show what was found: with it the fault shows, with less of it alone it does not. */
export function proofOf(s: Search): Try[] {
  const found = new Set(s.parts.filter((p) => p.standing === 'FOUND').map((p) => p.number))
  return s.tries.filter(
    (t) =>
      t.members.every((m) => found.has(m)) &&
      t.answer === (t.members.length === found.size ? 'FAILS' : 'WORKS'),
  )
}

type Figure = NonNullable<Search['measured']>['figures'][number]

export const MEASURES: Record<Figure['measure'], string> = {
  TIME: 'Whole time',
  LOADING: 'Until it had loaded',
  MEMORY: 'Most memory at a time',
}

/** A measured value in its unit. */
export function measureWords(measure: Figure['measure'], value: number): string {
  if (measure === 'MEMORY') return bytes(value)
  // a quick game's differences are smaller than a tenth of a second
  return value < 2000 ? `${value} ms` : timeWords(value)
}

/** What the difference of two medians comes to; nothing where one is not known. */
export function costWords(f: Figure): string {
  if (!f.with || !f.without) return ''
  if (!f.apart) return 'no difference beyond the spread'
  const more = f.with.middle - f.without.middle
  return `${measureWords(f.measure, Math.abs(more))} ${more > 0 ? 'more' : 'less'} with it`
}
