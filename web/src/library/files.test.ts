import { describe, expect, it } from 'vitest'
import { restoredEnds } from './Edit'
import { isHeld } from './FilesPart'
import { kindOf } from './kind'

describe('what is held back', () => {
  const held = new Set(['data/maps/', 'data/tide.txt'])

  it('is what is named, and all below a folder that is', () => {
    expect(isHeld(held, 'data/tide.txt')).toBe(true)
    expect(isHeld(held, 'data/maps/')).toBe(true)
    expect(isHeld(held, 'data/maps/east/a.map')).toBe(true)
  })

  it('is nothing else', () => {
    expect(isHeld(held, 'data/')).toBe(false)
    expect(isHeld(held, 'data/maps.txt')).toBe(false)
    expect(isHeld(held, 'data/tide.txt.bak')).toBe(false)
  })
})

describe('how a file is shown', () => {
  it('goes by its name, and a plugin by the mod', () => {
    const kinds = ['a.PNG', 'x/t.csv', 'README.md', 'Own.plug', 'a.sks', 'LICENCE'].map((p) =>
      kindOf(`data/${p}`, ['Own.plug']),
    )
    expect(kinds).toEqual(['image', 'table', 'markdown', 'plugin', 'text', 'text'])
  })
})

describe('line ends of an edited text', () => {
  it('stay those of the file', () => {
    expect(restoredEnds('a\r\nb\r\n', 'a\nc\n')).toBe('a\r\nc\r\n')
    expect(restoredEnds('a\nb\n', 'a\nc\n')).toBe('a\nc\n')
  })
})
