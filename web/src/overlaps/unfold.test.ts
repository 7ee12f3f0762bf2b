import { expect, test } from 'vitest'
import { roomsOf } from './unfold'

test('what fits is unfolded, each with room for all that is in it', () => {
  expect(roomsOf([3, 4], 10)).toEqual([3, 4])
})

test('of what does not fit the first may take what is left', () => {
  expect(roomsOf([28, 1, 40], 18)).toEqual([17, 1, 0])
})

test('a full window unfolds nothing', () => {
  expect(roomsOf([1, 2], 0)).toEqual([0, 0])
  expect(roomsOf([5, 6], -3)).toEqual([0, 0])
})

test('no more rows are given away than are free', () => {
  for (let left = 0; left < 40; left++) {
    const given = roomsOf([7, 30, 2, 11, 90], left).reduce((sum, n) => sum + n, 0)
    expect(given).toBeLessThanOrEqual(left)
  }
})
