import { describe, expect, it } from 'vitest'
import { boardOf, madeOf, scope } from './words'

const mend = (rest: object) => ({ sources: [], names: [], carried: {}, ...rest }) as never

describe('mends in words', () => {
  it('say what they are made of and what for', () => {
    expect(['PATCH', 'MERGE', 'COMBINED', 'TOOL'].map((kind) => madeOf(mend({ kind })))).toEqual([
      'plugin',
      'plugin',
      'version',
      'file',
    ])
    expect(scope(mend({ kind: 'MERGE', sources: ['A.plug', 'B.plug'] }))).toBe('of A.plug and B.plug')
    expect(scope(mend({ kind: 'PATCH', scope: 'PROFILE' }))).toBe('for the whole profile')
    expect(scope(mend({ kind: 'PATCH', scope: 'RECORDS', names: ['Aud Helga'] }))).toBe('for Aud Helga')
  })
  it('lead to the board of a file, also of one that was carried over', () => {
    expect(boardOf(1, 'data/a b&c.json')).toBe('/workspaces/1/mends/combined-files?path=data%2Fa+b%26c.json')
    expect(boardOf(1, 'a.csv', mend({ carried: { 'a.csv': 'panel' } }))).toBe(
      '/workspaces/1/mends/combined-files?path=a.csv&carry=panel',
    )
    expect(boardOf(1, 'b.csv', mend({ carried: { 'a.csv': 'panel' } }))).not.toContain('carry')
  })
})
