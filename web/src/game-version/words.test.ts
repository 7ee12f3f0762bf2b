import { describe, expect, it } from 'vitest'
import { headline } from './words'

describe('the version of the game in words', () => {
  const of = (noticed: boolean, known?: string, found?: string) =>
    headline({ noticed, known, found } as never)
  it('says which it is, and that none is told', () => {
    expect(of(false, '1.4')).toBe('Version 1.4.')
    expect(of(false)).toBe('The game tells no version.')
  })
  it('says what an update has brought', () => {
    expect(of(true, '1.4', '1.5')).toBe('1.5 lies in the folder; your mods were arranged for 1.4.')
    expect(of(true, undefined, '1.5')).toBe('1.5 lies in the folder.')
    expect(of(true, '1.4', '1.4')).toBe('The version is the same, but files of the game are not.')
  })
})
