import { describe, expect, it } from 'vitest'
import { countsOf, filled, makeupOf } from './parts'

describe('the parts of the overview', () => {
  it('say how far the mods have come, and that it cannot be told', () => {
    const counts = { library: 14, on: 13, deployed: 0 }
    expect(countsOf(counts as never).map((c) => c.n)).toEqual([14, 13, 0, undefined])
    expect(countsOf(counts as never)[3]?.says).toContain('cannot be told yet')
    expect(countsOf({ ...counts, read: 0 } as never)[3]?.says).toContain('in the last run')
  })
  it('fill their bars by the library, and none without one', () => {
    expect(filled(7, 14)).toBe(50)
    expect(filled(undefined, 14)).toBe(0)
    expect(filled(3, 0)).toBe(0)
  })
  it('leave out of the makeup what there is none of', () => {
    expect(makeupOf({ game: 17, mods: 0, covering: 2, mends: 0 } as never).map((p) => p.n)).toEqual([17, 2])
  })
})
