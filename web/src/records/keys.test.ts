import { describe, expect, it } from 'vitest'
import { parts, recordPath, spoken } from './keys'

describe('a key', () => {
  it('of an owner and a number stays as it is', () => {
    expect(spoken('Skerry.plug/420')).toBe('Skerry.plug/420')
    expect(recordPath(1, 'Skerry #1.plug/420')).toBe('/workspaces/1/records/Skerry%20%231.plug/420')
  })

  it('of names is read as its names', () => {
    expect(spoken('alloy/=80=20')).toBe('80 / 20')
    expect(spoken('word/=a%2Fb%3D%25')).toBe('a/b=%')
    expect(parts('alloy/=80=20')).toEqual({ owner: 'alloy', id: '=80=20' })
    expect(recordPath(3, 'word/=a%2Fb')).toBe('/workspaces/3/records/word/%3Da%252Fb')
  })
})
