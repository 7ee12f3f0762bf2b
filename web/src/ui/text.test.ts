import { describe, expect, it } from 'vitest'
import { bytes, count, cutMiddle, duration, list, when } from './text'

describe('words and numbers', () => {
  it('counts with the right form of the word', () => {
    expect(count(1, 'file')).toBe('1 file')
    expect(count(0, 'file')).toBe('0 files')
    expect(count(1204, 'file')).toBe('1,204 files')
    expect(count(2, 'clash', 'clashes')).toBe('2 clashes')
  })

  it('writes bytes with three digits at most', () => {
    expect(bytes(0)).toBe('0 B')
    expect(bytes(1023)).toBe('1023 B')
    expect(bytes(1024)).toBe('1.0 KiB')
    expect(bytes(4500)).toBe('4.4 KiB')
    expect(bytes(58 * 1024 * 1024)).toBe('58 MiB')
    expect(bytes(2.1 * 1024 ** 3)).toBe('2.1 GiB')
  })

  it('joins lists as people do', () => {
    expect(list([])).toBe('')
    expect(list(['a'])).toBe('a')
    expect(list(['a', 'b'])).toBe('a and b')
    expect(list(['a', 'b', 'c'])).toBe('a, b and c')
  })

  it('cuts paths in the middle and keeps their end', () => {
    expect(cutMiddle('data/a.png', 20)).toBe('data/a.png')
    const cut = cutMiddle('data/textures/quay/very-long-name-of-a-stone-01.png', 24)
    expect(cut).toHaveLength(24)
    expect(cut.startsWith('data/')).toBe(true)
    expect(cut.endsWith('stone-01.png')).toBe(true)
  })

  it('says when in days that people use', () => {
    const now = new Date(2026, 10, 24, 22, 0)
    expect(when(new Date(2026, 10, 24, 9, 5).toISOString(), now)).toBe('today 09:05')
    expect(when(new Date(2026, 10, 23, 23, 59).toISOString(), now)).toBe('yesterday 23:59')
    expect(when(new Date(2026, 10, 12, 21, 40).toISOString(), now)).toBe('12 November 21:40')
    expect(when(new Date(2025, 0, 2, 3, 4).toISOString(), now)).toBe('2 January 2025 03:04')
  })

  it('says how long', () => {
    expect(duration('2026-01-01T00:00:00Z', '2026-01-01T00:00:00.420Z')).toBe('0.4 s')
    expect(duration('2026-01-01T00:00:00Z', '2026-01-01T00:00:14Z')).toBe('14 s')
    expect(duration('2026-01-01T00:00:00Z', '2026-01-01T00:03:00Z')).toBe('3 min')
  })
})
