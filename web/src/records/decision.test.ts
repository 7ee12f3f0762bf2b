import { expect, test } from 'vitest'
import { AS_BEFORE, isOwn, REMOVED, same } from './decision'

test('a plugin is the same however it is spelled', () => {
  expect(same({ take: 'A.plug' }, { take: 'a.PLUG' })).toBe(true)
  expect(same({ take: 'A.plug' }, { take: 'B.plug' })).toBe(false)
})

test('an outcome, a value and none are told apart', () => {
  expect(same(AS_BEFORE, { outcome: 'AS_BEFORE' })).toBe(true)
  expect(same(AS_BEFORE, REMOVED)).toBe(false)
  expect(same({ own: '12' }, { own: '13' })).toBe(false)
  expect(same(undefined, { take: 'A.plug' })).toBe(false)
  expect(same(undefined, undefined)).toBe(true)
})

test('what is one’s own is no side’s', () => {
  expect(isOwn({ own: '1' })).toBe(true)
  expect(isOwn(REMOVED)).toBe(true)
  expect(isOwn(AS_BEFORE)).toBe(false)
  expect(isOwn(undefined)).toBe(false)
})
