import { describe, expect, it } from 'vitest'
import { sweptWords } from './sweep'

const swept = (files: number, places: number, left: number) => ({ revision: 1, files, places, left })

describe('one answer for the rest', () => {
  it('says what it settles and what stays asked', () => {
    expect(sweptWords(swept(2, 12, 0), 'would')).toBe('12 places of 2 files would be settled.')
    expect(sweptWords(swept(1, 1, 2), 'does')).toBe('1 place of 1 file is settled. 2 others stay asked.')
    expect(sweptWords(swept(1, 3, 1), 'does')).toBe('3 places of 1 file are settled. 1 other stays asked.')
  })
  it('says why it settles nothing', () => {
    expect(sweptWords(swept(0, 0, 0), 'would')).toBe('Nothing is asked there any more.')
    expect(sweptWords(swept(0, 0, 3), 'would')).toContain('nothing at any of the places')
  })
})
