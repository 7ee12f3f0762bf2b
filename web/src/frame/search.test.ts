import { describe, expect, it } from 'vitest'
import { hasWords } from './search'

describe('a search by words', () => {
  it('wants each of them somewhere, in any order', () => {
    expect(hasWords('', [])).toBe(true)
    expect(hasWords('  ', ['x'])).toBe(true)
    expect(hasWords('helga AUD', ['Aud', 'Helga'])).toBe(true)
    expect(hasWords('helga berg', ['Aud Helga'])).toBe(false)
  })
  it('finds no word across two texts', () => {
    expect(hasWords('audhelga', ['Aud', 'Helga'])).toBe(false)
  })
})
