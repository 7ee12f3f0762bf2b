import type { Schema } from '../api/client'
import { count, list } from '../ui/text'
import type { LoadChange } from './queries'

type Difference = Schema['LoadDifferenceView']

/** What a change of the load order does to the game, in one sentence or two. */
export function loadWords(d: Difference, tense: 'would' | 'does'): string {
  const sentences: string[] = []
  if (d.place?.reason)
    sentences.push(
      `It ${tense === 'would' ? 'would load' : 'loads'} as ${d.place.to}: ${lowerFirst(d.place.reason)}`,
    )
  if (d.records > 0) {
    const types = list(d.types.slice(0, 4).map((t) => `${t.records} ${t.title.toLowerCase()}`))
    sentences.push(
      `The game ${tense === 'would' ? 'would read' : 'reads'} ${count(d.records, 'record')} differently: ${types}.`,
    )
  }
  if (d.files > 0)
    sentences.push(
      `${count(d.files, 'packed file')} ${tense === 'would' ? 'would change' : d.files === 1 ? 'changes' : 'change'}.`,
    )
  const troubles = d.troublesAfter - d.troublesBefore
  if (troubles > 0)
    sentences.push(
      `${count(troubles, 'thing')} would be wrong that ${troubles === 1 ? 'is' : 'are'} not now.`,
    )
  if (troubles < 0) sentences.push(`${count(-troubles, 'trouble')} less.`)
  return sentences.length > 0 ? sentences.join(' ') : 'The game reads every record as before.'
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}

/** What a change has done, as the beginning of a message. */
export function doneWords(c: LoadChange, d: Difference): string {
  if (c.kind === 'move')
    return c.names.length === 1
      ? `${c.names[0]} loads as ${d.place?.to ?? c.to} now.`
      : `${count(c.names.length, 'plugin')} moved.`
  if (c.kind === 'keep')
    return `${c.names.length === 1 ? c.names[0] : count(c.names.length, 'plugin')} ${c.names.length === 1 ? 'is' : 'are'} ${c.kept ? '' : 'no longer '}kept here.`
  if (c.kind === 'restore') return `The load order of ${c.name} is back.`
  if (c.kind === 'list-file') return 'The list file is taken over.'
  if (c.kind === 'switch')
    return `${c.names.length === 1 ? c.names[0] : count(c.names.length, 'plugin')} switched ${c.on ? 'on' : 'off'}.`
  return 'The proposal is taken.'
}
