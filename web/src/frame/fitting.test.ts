import { expect, test } from 'vitest'
import { fitting, type Group } from './fitting'

const entry = (value: string, words?: string[]) => ({ value, name: value, words, run: () => {} })
const GROUPS: Group[] = [
  { heading: 'Go to', entries: [entry('go Deploy', ['undeploy']), entry('go Load order')] },
  { heading: 'Mods', entries: [entry('mod Harbourmaster’s Ledger 7'), entry('mod Rope Locker 3')] },
  { heading: 'Records', entries: [entry('record Aud Helga Skerry.plug/420')] },
]
const found = (typed: string) =>
  fitting(GROUPS, typed).map((g) => [g.heading, ...g.entries.map((e) => e.value)])

test('what fits best stands first, whatever group it is in', () => {
  expect(found('aud')).toEqual([
    ['Records', 'record Aud Helga Skerry.plug/420'],
    ['Mods', 'mod Harbourmaster’s Ledger 7'],
  ])
  expect(found('rope')[0]).toEqual(['Mods', 'mod Rope Locker 3'])
})

test('a word of the trade is enough', () => {
  expect(found('undep')).toEqual([['Go to', 'go Deploy']])
})

test('nothing typed shows all groups in their order, and nothing that fits none', () => {
  expect(found(' ').map((g) => g[0])).toEqual(['Go to', 'Mods', 'Records'])
  expect(found('qqq')).toEqual([])
})
