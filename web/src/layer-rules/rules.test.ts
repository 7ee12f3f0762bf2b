import { describe, expect, it } from 'vitest'
import { keyOf } from './rules'

describe('a rule of placement as a request names it', () => {
  it('has the other layer only where the rule has one', () => {
    expect(keyOf({ kind: 'ABOVE', mod: 1, other: 2, reason: 'why', broken: true } as never)).toEqual({
      kind: 'ABOVE',
      mod: 1,
      other: 2,
    })
    expect(keyOf({ kind: 'TOP', mod: 1 } as never)).toEqual({ kind: 'TOP', mod: 1 })
  })
})
