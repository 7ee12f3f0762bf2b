import { Refused } from '../api/client'

/** Whether undeploying only waits for a word about files that an update of the game may have removed. */
export function isUnsure(error: unknown): boolean {
  return (
    error instanceof Refused &&
    error.problems.length > 0 &&
    error.problems.every((p) => p.code === 'update-unsure')
  )
}
