import type { Schema } from '../api/client'
import { list } from '../ui/text'

type Mend = Schema['MendView']

/** What a mend is made of, one of them. */
export function madeOf(m: Mend): string {
  if (m.kind === 'COMBINED') return 'version'
  return m.kind === 'TOOL' ? 'file' : 'plugin'
}

/** What a mend is for. */
export function scope(m: Mend): string {
  if (m.kind === 'MERGE') return `of ${list(m.sources)}`
  if (m.scope === 'PROFILE') return 'for the whole profile'
  return `for ${list(m.names)}`
}

/** The address at which a combined file says what came from whom. */
export function boardOf(workspace: number, path: string, mend?: Schema['MendView']): string {
  const query = new URLSearchParams({ path })
  const carry = mend?.carried[path]
  if (carry) query.set('carry', carry)
  return `/workspaces/${workspace}/mends/combined-files?${query}`
}
