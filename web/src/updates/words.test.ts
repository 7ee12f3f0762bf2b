import { expect, test } from 'vitest'
import type { Update } from './queries'
import { ageWords, leftWords } from './words'

test.each([
  ['2026-12-01', 'today'],
  ['2026-11-30', 'yesterday'],
  ['2026-11-20', '11 days ago'],
  ['2026-11-10', '3 weeks ago'],
  ['2026-08-01', '4 months ago'],
  ['2023-08-01', '3 years ago'],
  ['', ''],
  ['no day', ''],
])('%s is %s', (day, says) => {
  expect(ageWords(day, new Date('2026-12-01T12:00:00Z'))).toBe(says)
})

test('what is left says why', () => {
  const left = (kind: 'VERSION' | 'MOD', reason: string) =>
    leftWords({ left: { kind, version: '2.0', reason, at: '' } } as Update)
  expect(left('VERSION', 'it is too dark')).toBe('2.0 is left: it is too dark')
  expect(left('MOD', '')).toBe('left for good')
})
