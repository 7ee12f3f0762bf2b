import { describe, expect, it } from 'vitest'
import { checkedWords } from './verify'

const amiss = (path: string, found = 'abc') => ({ path, expected: 'def', found })

describe('what checking the files of mods has shown', () => {
  it('counts over all of them', () => {
    expect(checkedWords([{ checked: 1, amiss: [] }])).toBe('1 file read: all as it was installed.')
    expect(
      checkedWords([
        { checked: 3, amiss: [] },
        { checked: 4, amiss: [] },
      ]),
    ).toBe('7 files read: all as they were installed.')
  })
  it('names the first that are amiss, and says how many more there are', () => {
    const said = checkedWords([
      { checked: 3, amiss: [amiss('a'), amiss('b', '')] },
      { checked: 5, amiss: [amiss('c'), amiss('d')] },
    ] as never)
    expect(said).toBe('4 files of 8 not as installed: a, b (gone), c and 1 more.')
  })
})
