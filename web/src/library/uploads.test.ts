import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { ended } from './uploads'

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
