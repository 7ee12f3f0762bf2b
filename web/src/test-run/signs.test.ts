import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { byPlace, readWords, tally } from './signs'

function sign(says: string, more: Partial<Schema['SignView']> = {}): Schema['SignView'] {
  return {
    kind: 'LOOK',
    says,
    what: '',
    place: '',
    wanted: '',
    found: '',
    path: '',
    seen: 'CANNOT_TELL',
    ...more,
  }
}

function mod(signs: Schema['SignView'][], more: Partial<Schema['SignsOfMod']> = {}): Schema['SignsOfMod'] {
  return { mod: 1, name: 'A', inGame: true, signs, read: 1, files: 2, slots: {}, ...more }
}

describe('signs to look for', () => {
  it('stand together where one goes for them', () => {
    const mods = [
      mod([sign('a', { place: 'Harbour' }), sign('b', { place: 'Quay' })]),
      mod([sign('c', { place: 'Harbour' }), sign('d', { kind: 'READ' })]),
    ]
    expect(byPlace(mods).map((p) => [p.place, p.signs.map((s) => s.sign.says)])).toEqual([
      ['Harbour', ['a', 'c']],
      ['Quay', ['b']],
    ])
  })
})

it('a tally says how many were seen', () => {
  expect(tally([mod([])])).toBe('no mod that is on has signs')
  expect(tally([mod([sign('a', { seen: 'SEEN' }), sign('b', { seen: 'NOT_SEEN' }), sign('c')])])).toBe(
    '1 of 3 signs seen, 1 not seen, 1 cannot be told',
  )
})

it('what was read tells of a mod without signs', () => {
  expect(readWords(mod([], { slots: { 'A.plug': 4 } }))).toBe(
    'the game read 1 of its 2 files in play; A.plug in slot 4',
  )
  expect(readWords(mod([], { inGame: false }))).toBe('nothing of it is in the game folder')
})
