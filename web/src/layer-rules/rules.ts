import type { Schema } from '../api/client'
import type { RuleKey } from '../layers/queries'

/** By what a request names a rule. */
export function keyOf(r: Schema['RuleView']): RuleKey {
  return { kind: r.kind, mod: r.mod, ...(r.other === undefined ? {} : { other: r.other }) }
}
