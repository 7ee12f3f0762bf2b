import type { Schema } from '../api/client'
import { count } from '../ui/text'

type Profile = Schema['ProfileView']

/** What a copy of a profile is called: its name with the first number that no other has. */
export function copyName(p: Pick<Profile, 'name'>, all: readonly Pick<Profile, 'name'>[]): string {
  for (let i = 2; ; i++) {
    const name = `${p.name} ${i}`
    if (!all.some((x) => x.name.toLowerCase() === name.toLowerCase())) return name
  }
}

/** How far two load orders are from one another. */
export function orderWords(c: Schema['ProfileComparison']): string {
  if (c.order.swapped === 0)
    return c.pluginSwitches.length > 0
      ? `The same order; ${count(c.pluginSwitches.length, 'plugin')} switched otherwise.`
      : 'The same order, with others at its ends.'
  const share = Math.max(1, Math.round((100 * c.order.swapped) / c.order.pairs))
  return `${count(c.plugins.length, 'plugin')} at another place: ${share} % of all pairs load the other way about.`
}
