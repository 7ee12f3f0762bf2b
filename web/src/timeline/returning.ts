import type { Schema } from '../api/client'

type Change = Pick<Schema['TimelineChange'], 'undoable' | 'state' | 'profile'>

/** Whether one can go back to right after a change; and where not, why. */
export type Returning = { possible: true } | { possible: false; why: string }

/**
 * @param used the name of the profile in use
 */
export function returning(change: Change, used: string): Returning {
  const no = (why: string): Returning => ({ possible: false, why })
  if (!change.undoable) return no('A change of the library: it is taken back where it was made.')
  if (change.state !== 'done') return no('It was undone; it can be done again only right away.')
  if (change.profile !== used)
    return no('It was made in another profile. Take that one into use to go back there.')
  return { possible: true }
}
