import { describe, expect, it } from 'vitest'
import { returning } from './returning'

describe('going back in the timeline', () => {
  const change = (rest: object) => ({ undoable: true, state: 'done', profile: 'Everyday', ...rest }) as never
  it('leads to what was done in the profile in use', () => {
    expect(returning(change({}), 'Everyday')).toEqual({ possible: true })
  })
  it('says why where it cannot', () => {
    const why = (rest: object, used = 'Everyday') => {
      const r = returning(change(rest), used)
      return r.possible ? '' : r.why
    }
    expect(why({ undoable: false })).toContain('change of the library')
    expect(why({ state: 'undone' })).toContain('was undone')
    // that it was undone is said first: taking the other profile into use would not help
    expect(why({ state: 'undone', profile: 'Calm' })).toContain('was undone')
    expect(why({}, 'Calm')).toContain('another profile')
  })
})
