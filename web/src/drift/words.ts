import type { Schema } from '../api/client'
import { count } from '../ui/text'

/** How the folder was looked at, and how many files differ. */
export function says(d: Schema['DriftView']): string {
  const how = d.thorough ? 'Every byte was read' : 'Size, time and place on the drive were compared'
  return d.inAll === 0 ? `${how}.` : `${how}: ${count(d.inAll, 'file')} differ${d.inAll === 1 ? 's' : ''}.`
}
