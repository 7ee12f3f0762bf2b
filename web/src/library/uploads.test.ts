import { describe, expect, it } from 'vitest'
import { howFar, leftWords } from './uploads'

describe('how far all archives are', () => {
  it('counts each by what became of it, and leaves out what there is none of', () => {
    expect(howFar([{ is: 'arrived', archive: 1, before: false }])).toBe('1 arrived')
    expect(
      howFar([
        { is: 'sending', sentBytes: 3, pace: 0 },
        { is: 'storing' },
        { is: 'waiting' },
        { is: 'broken', sentBytes: 3, problems: [] },
        { is: 'arrived', archive: 1, before: false },
        { is: 'failed', problems: [] },
        { is: 'cancelled' },
      ]),
    ).toBe('3 under way, 1 broken off, 1 arrived, 1 refused, 1 cancelled')
  })
})

describe('how much longer it takes', () => {
  it('is what is left at the pace of the last seconds', () => {
    expect(leftWords(1000, 0, 100)).toBe('10 s left')
    expect(leftWords(1_000_000, 0, 1000)).toBe('17 min left')
  })

  it('is not said while nobody can tell', () => {
    expect(leftWords(1000, 0, 0)).toBe('')
  })
})
