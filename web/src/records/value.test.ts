import { expect, test } from 'vitest'
import { typedFrom, written } from './value'

const number = { kind: 'NUMBER' } as const
const text = { kind: 'TEXT' } as const

test.each([
  ['12', '12'],
  [' 12.50 ', '12.50'],
  ['12,5', '12.5'],
  ['+3', '3'],
  ['-.5', '-0.5'],
  ['5.', '5'],
  ['007', '7'],
  ['1e3', '1e3'],
  ['fast', null],
  ['1 2', null],
  ['', null],
])('the number %j is written as %j', (typed, expected) => {
  expect(written(typed, number)).toBe(expected)
})

test('every number that is written is JSON', () => {
  for (const typed of ['0', '-0', '00.5', '.25', '9.', '-12e-2']) {
    const out = written(typed, number)
    expect(out).not.toBeNull()
    expect(JSON.parse(out as string)).toBeCloseTo(Number(typed))
  }
})

test('a text is kept as it is, quotes and blanks too', () => {
  expect(written(' a "b" ', text)).toBe('" a \\"b\\" "')
  expect(typedFrom('" a \\"b\\" "', text)).toBe(' a "b" ')
})

test('yes and no are truths, and whatever else is JSON or nothing', () => {
  expect(written('yes', { kind: 'TRUTH' })).toBe('true')
  expect(written('no', { kind: 'TRUTH' })).toBe('false')
  expect(written('maybe', { kind: 'TRUTH' })).toBeNull()
  expect(written('[1, 2]', { kind: 'SEQUENCE' })).toBe('[1, 2]')
  expect(written('[1, 2', { kind: 'SEQUENCE' })).toBeNull()
  expect(typedFrom(undefined, number)).toBe('')
  expect(typedFrom('12', number)).toBe('12')
})
