import { describe, expect, it } from 'vitest'
import { says } from './words'

describe('drift in words', () => {
  it('says how it was looked at and how many files differ', () => {
    const of = (thorough: boolean, inAll: number) => says({ thorough, inAll } as never)
    expect(of(true, 0)).toBe('Every byte was read.')
    expect(of(false, 1)).toBe('Size, time and place on the drive were compared: 1 file differs.')
    expect(of(true, 1200)).toBe('Every byte was read: 1,200 files differ.')
  })
})
