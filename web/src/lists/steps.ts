import type { Schema } from '../api/client'

export type Entry = Schema['EntryView']

/** How an entry of a list stands here, the weightiest thing first. */
export type State = 'missing' | 'version' | 'place' | 'switch' | 'held' | 'departs' | 'same'

export const STATES: Record<State, string> = {
  missing: 'missing here',
  version: 'another version',
  place: 'out of place',
  switch: 'on or off otherwise',
  held: 'kept here against it',
  departs: 'left so',
  same: 'as the list says',
}

/** Whether there is a step to take: what departs from the list stays. */
export function hasStep(e: Entry): boolean {
  return e.mod !== undefined && e.departure === undefined && (e.to !== undefined || e.switchTo !== undefined)
}

/** All that is to be said of an entry; one that is as the list says has just that. */
export function statesOf(e: Entry): State[] {
  if (e.departure !== undefined) return ['departs']
  if (e.mod === undefined) return ['missing']
  const states: State[] = []
  if (e.otherVersion) states.push('version')
  if (e.to !== undefined) states.push('place')
  if (e.switchTo !== undefined) states.push('switch')
  if (e.heldFast) states.push('held')
  return states.length > 0 ? states : ['same']
}

/** How many entries are in which state. */
export function countStates(entries: readonly Entry[]): Record<State, number> {
  const counts = { missing: 0, version: 0, place: 0, switch: 0, held: 0, departs: 0, same: 0 }
  for (const e of entries) for (const s of statesOf(e)) counts[s]++
  return counts
}
