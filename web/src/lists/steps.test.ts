import { expect, test } from 'vitest'
import { countStates, type Entry, hasStep, statesOf } from './steps'

const SAME: Entry = {
  number: 1,
  id: 'a',
  name: 'A',
  version: '1',
  section: '',
  note: '',
  ticked: false,
  mod: 7,
  hereVersion: '1',
  otherVersion: false,
  position: 1,
  heldFast: false,
}

test('an entry is missing, or all that differs is said of it', () => {
  expect(statesOf(SAME)).toEqual(['same'])
  expect(statesOf({ ...SAME, mod: undefined })).toEqual(['missing'])
  expect(statesOf({ ...SAME, otherVersion: true, to: 3, switchTo: false })).toEqual([
    'version',
    'place',
    'switch',
  ])
  expect(statesOf({ ...SAME, heldFast: true })).toEqual(['held'])
})

test('entries are counted under each thing that is said of them', () => {
  const counts = countStates([SAME, { ...SAME, to: 2, switchTo: true }, { ...SAME, mod: undefined }])
  expect(counts).toEqual({ missing: 1, version: 0, place: 1, switch: 1, held: 0, departs: 0, same: 1 })
})

test('what departs from the list has no step, and is nothing else', () => {
  const away = { ...SAME, to: 2, switchTo: true }
  expect(hasStep(away)).toBe(true)
  const departs = { ...away, departure: '' }
  expect(hasStep(departs)).toBe(false)
  expect(statesOf(departs)).toEqual(['departs'])
  expect(hasStep({ ...SAME, mod: undefined })).toBe(false)
})
