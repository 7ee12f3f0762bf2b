import type { Schema } from '../api/client'
import { count } from '../ui/text'
import type { LayerChange } from './queries'

/** Where a rule of placement wants a layer. */
export const RULE_WORDS: Record<Schema['RuleView']['kind'], string> = {
  ABOVE: 'above',
  BELOW: 'below',
  DIRECTLY_ABOVE: 'directly above',
  DIRECTLY_BELOW: 'directly below',
  TOP: 'always on top',
  BOTTOM: 'always lowest',
}

/** What a change has done, as the beginning of a message. */
export function doneWords(change: LayerChange, names: ReadonlyMap<number, string>): string {
  const what = (mods: readonly number[]) =>
    mods.length === 1 ? names.get(mods[0] as number) : count(mods.length, 'layer')
  switch (change.kind) {
    case 'move':
      return change.mods.length === 1
        ? `${what(change.mods)} is layer ${change.to} now.`
        : `${what(change.mods)} moved.`
    case 'switch':
      return `${what(change.mods)} switched ${change.on ? 'on' : 'off'}.`
    case 'keep':
      return `${what(change.mods)} ${change.mods.length === 1 ? 'is' : 'are'} ${change.kept ? '' : 'no longer '}kept here.`
    case 'gather':
      return `${what(change.mods)} put into a section.`
    case 'leave':
      return `${what(change.mods)} taken out of the section.`
    case 'rename':
      return `The section is called ${change.name} now.`
    case 'dissolve':
      return `The section ${change.name} is dissolved.`
    case 'suggestion':
      return 'The proposal is taken.'
    case 'rule':
      return 'The rule is made.'
    case 'drop-rule':
      return 'The rule is taken back.'
    case 'mend-rule':
      return 'The rule holds again.'
  }
}
