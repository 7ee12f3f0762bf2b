import type { Schema } from '../api/client'

export type Decision = Schema['DecisionView']

export const AS_BEFORE: Decision = { outcome: 'AS_BEFORE' }
export const MERGED: Decision = { outcome: 'MERGED' }
export const REMOVED: Decision = { outcome: 'REMOVED' }

/** Whether two decisions come to the same; plugins are told apart without case. */
export function same(a: Decision | undefined, b: Decision | undefined): boolean {
  return a?.take?.toLowerCase() === b?.take?.toLowerCase() && a?.outcome === b?.outcome && a?.own === b?.own
}

/** Whether somebody’s own value, or that there is to be none, and no side’s. */
export function isOwn(d: Decision | undefined): d is Decision {
  return d?.own !== undefined || d?.outcome === 'REMOVED'
}
