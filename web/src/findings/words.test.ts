import { expect, test } from 'vitest'
import type { ModFinding } from './queries'
import { scopeWords, tallyWords } from './words'

const finding = (more: Partial<ModFinding>): ModFinding => ({
  own: false,
  mod: 'gulls',
  versions: '*',
  with: [],
  verdict: 'WORKS',
  says: '',
  at: '2026-11-29',
  by: 'Tove',
  speaks: true,
  ...more,
})

test('verdicts are counted, each by itself', () => {
  expect(
    tallyWords([finding({}), finding({ verdict: 'BROKEN' }), finding({ verdict: 'BROKEN', by: '' })]),
  ).toBe('1 works, 2 broken, 1 of them unsigned')
})

test('with what it was found out is said', () => {
  const f = finding({ versions: '=4.0.1', game: '>=1.4', with: [{ mod: 'coal', versions: '*' }] })
  expect(scopeWords(f, (m) => (m === 'coal' ? 'Coal to Kelp' : m))).toBe(
    'in 4.0.1, game >=1.4, with Coal to Kelp',
  )
  expect(scopeWords(finding({}), String)).toBe('')
})
