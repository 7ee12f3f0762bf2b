import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { ended, howFar } from './uploads'

const job = (part: Partial<Schema['Job']>): Schema['Job'] => ({
  id: 1,
  workspace: 1,
  kind: 'install',
  title: 'a.zip',
  state: 'DONE',
  done: 0,
  total: 0,
  unit: '',
  problems: [],
  ...part,
})

describe('how far all archives are', () => {
  it('counts each by what became of it, and leaves out what there is none of', () => {
    expect(howFar([{ is: 'done', mod: 1 }])).toBe('1 mod brought in')
    expect(
      howFar([
        { is: 'sending', sentBytes: 3 },
        { is: 'waiting' },
        { is: 'choosing', archive: 1, roots: [] },
        { is: 'done', mod: 1 },
        { is: 'done', mod: 2 },
        { is: 'failed', problems: [] },
        { is: 'cancelled' },
      ]),
    ).toBe('2 under way, 1 waits for you, 2 mods brought in, 1 refused, 1 cancelled')
  })
})

describe('what a job that is over means for its archive', () => {
  it('is a mod when it is done', () => {
    expect(ended(job({ result: 7 }), 3)).toEqual({ is: 'done', mod: 7 })
  })

  it('asks when several folders could be the mod', () => {
    const problem = (thing: string) => ({ code: 'several-mods', thing, reason: 'r', remedy: 'm' })
    const state = ended(job({ state: 'FAILED', problems: [problem('Large'), problem('Small')] }), 3)
    expect(state).toEqual({ is: 'choosing', archive: 3, roots: ['Large', 'Small'] })
  })

  it('keeps every problem of a refusal', () => {
    const problems = [{ code: 'archive-encrypted', thing: 'a.zip', reason: 'r', remedy: 'm' }]
    expect(ended(job({ state: 'FAILED', problems }), 3)).toEqual({ is: 'failed', problems })
    expect(ended(job({ state: 'CANCELLED' }), 3)).toEqual({ is: 'cancelled' })
  })
})
