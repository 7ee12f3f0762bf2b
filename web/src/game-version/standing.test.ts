import { expect, test } from 'vitest'
import type { ModStanding } from './queries'
import { saidOf, standingsWords } from './standing'

const mod = (state: ModStanding['state'], more: Partial<ModStanding> = {}): ModStanding => ({
  mod: 1,
  name: 'Gulls',
  version: '1',
  on: true,
  essential: false,
  state,
  reason: '',
  waitsFor: '',
  ...more,
})

test('what it comes to names the essential ones, and what has come for them', () => {
  expect(standingsWords([mod('WORKS'), mod('CANNOT_BREAK')])).toBe('None is broken, and none waits')
  expect(
    standingsWords([
      mod('WAITING', { essential: true, comes: '2.0' }),
      mod('WAITING'),
      mod('BROKEN', { essential: true }),
      mod('WORKS', { essential: true }),
    ]),
  ).toBe('2 wait, 1 broken, 2 of them essential, a catalogue has what 1 essential mod waited for')
})

test('what was said is told apart from what was worked out', () => {
  expect(saidOf(mod('SAID_BROKEN'))).toBe('BROKEN')
  expect(saidOf(mod('BROKEN'))).toBe('NOTHING')
})
