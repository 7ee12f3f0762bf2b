import { expect, test } from 'vitest'
import { screenOf } from './focus'
import { addressOf, viewsOf } from './views'

test('a game without plugins has neither a load order nor records', () => {
  const plain = viewsOf([{ id: 'LIBRARY' }, { id: 'DEPLOY' }]).map((v) => v.path)
  expect(plain).not.toContain('load-order')
  expect(plain).not.toContain('records')
  expect(plain).toContain('mends')
  const all = viewsOf([{ id: 'LIBRARY' }, { id: 'LOAD_ORDER' }]).map((v) => v.path)
  expect(all).toContain('records')
  // until it is known nothing is taken away
  expect(viewsOf(undefined).map((v) => v.path)).toEqual(all)
})

test('a place that the API names has an address, and an unknown one leads to the overview', () => {
  expect(addressOf(3, 'COMBINE_FILES')).toBe('/workspaces/3/mends/combined-files')
  expect(addressOf(3, 'OVERVIEW')).toBe('/workspaces/3')
  expect(addressOf(3, 'NEVER_HEARD_OF')).toBe('/workspaces/3')
})

test('what is selected makes no other screen, what lies below one does', () => {
  const same = (a: string, b: string) => screenOf(`/workspaces/${a}`) === screenOf(`/workspaces/${b}`)
  expect(same('1/layers', '1/layers/7')).toBe(true)
  expect(same('1/load-order/A.plug', '1/load-order/B.plug')).toBe(true)
  expect(same('1/records/Skerry.plug/420', '1/records/Isles.plug/1')).toBe(true)
  expect(same('1/library/7', '1/library')).toBe(true)
  expect(same('1/layers', '2/layers')).toBe(false)
  expect(same('1/layers', '1/layers/rules')).toBe(false)
  expect(same('1/layers/lists', '1/layers/lists/3')).toBe(false)
  expect(same('1/library/7', '1/library/7/files')).toBe(false)
  expect(same('1/library/inbox', '1/library/inbox/9')).toBe(false)
  expect(same('1/deploy', '1/deploy/drift')).toBe(false)
  expect(same('1/trouble', '1/trouble/3')).toBe(false)
})
