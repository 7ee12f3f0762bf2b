import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { faultsOf, sourceOf } from './faults'

const RUN = {
  exitCode: 3,
  fault: { code: 'routine-missing', text: 'No such routine.', path: 'data/a.sks', plugin: '', record: '' },
  warnings: [
    { code: 'texture-missing', text: 'No hull.', path: 'data/t.png', plugin: '', record: '' },
    { code: 'texture-missing', text: 'No hull again.', path: 'data/t.png', plugin: '', record: '' },
  ],
} as unknown as Schema['RunDetail']

describe('what a run offers to search for', () => {
  it('is its fault first, then its exit code, then each warning once', () => {
    expect(faultsOf(RUN).map((o) => o.fault.kind)).toEqual(['STOPS', 'EXITS', 'WARNS'])
    expect(faultsOf(RUN)[0]?.fault).toMatchObject({ name: 'routine-missing', place: 'data/a.sks' })
  })
  it('is nothing where it went well', () => {
    expect(faultsOf({ ...RUN, exitCode: 0, fault: undefined, warnings: [] })).toEqual([])
  })
})

it('a reported value says where it came from', () => {
  expect(sourceOf('Skerry.plug/7 as Tar.plug has it')).toEqual({ record: 'Skerry.plug/7' })
  expect(sourceOf('data/tables/a.csv')).toEqual({ path: 'data/tables/a.csv' })
})
