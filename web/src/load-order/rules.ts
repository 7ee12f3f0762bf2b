import type { Schema } from '../api/client'

type Rule = Schema['LoadRuleView']

/** Rules of one origin; the stronger come first. */
export type Group = 'own' | 'card' | 'list' | 'fixed'

export const GROUPS: Record<Group, string> = {
  own: 'Your own',
  card: 'Of the mods’ cards',
  list: 'Of lists that you follow',
  fixed: 'Fixed: masters',
}

export function groupOf(r: Rule): Group {
  if (r.strength === 'USER') return 'own'
  if (r.strength === 'CARD') return 'card'
  return r.strength === 'FIXED' ? 'fixed' : 'list'
}

/** How a rule’s kinds are said. */
export const KINDS: Record<Rule['kind'], string> = {
  AFTER: 'loads after',
  BEFORE: 'loads before',
  NEEDS: 'goes only with',
  CLASHES: 'does not go with',
}

/**
 * What a typed text names: a tag after #, a pattern with * or ? in it, else one plugin.
 */
export function whoOf(text: string): Schema['WhoView'] {
  const name = text.trim()
  if (name.startsWith('#')) return { by: 'TAG', text: name.slice(1).trim() }
  return { by: /[*?]/.test(name) ? 'PATTERN' : 'NAME', text: name }
}
