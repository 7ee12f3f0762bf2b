import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { faultsOf, missingSign, namedIn, sourceOf, troubleAddress } from './faults'

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

describe('a sign that is missing', () => {
  const sign = {
    kind: 'REPORT' as const,
    says: 'The lamps are lit',
    what: 'Lamps',
    place: '',
    wanted: '9 big lamps',
    is: '9 big',
    found: '',
    path: '',
    seen: 'NOT_SEEN' as const,
  }

  it('is told by what the run reports or reads, or else by the user', () => {
    expect(missingSign(7, sign).fault).toEqual({
      kind: 'REPORTS_NOT',
      name: 'Lamps',
      value: '9 big',
      about: 7,
    })
    expect(missingSign(7, { ...sign, is: undefined }).fault).toMatchObject({ kind: 'REPORTS_NOT', value: '' })
    const read = { ...sign, kind: 'READ' as const, what: 'maps/a.map', path: 'add-ons/maps/a.map' }
    expect(missingSign(7, read).fault).toMatchObject({
      kind: 'NOT_READ',
      name: 'add-ons/maps/a.map',
      about: 7,
    })
    expect(missingSign(7, { ...read, path: '' }).fault.kind).toBe('WORDS')
    expect(missingSign(7, { ...sign, kind: 'LOOK' }).fault.kind).toBe('WORDS')
  })

  it('is carried by an address, and whatever else an address says is none', () => {
    const offered = missingSign(7, { ...sign, says: 'Ä & “b” ?#=' })
    const address = new URL(troubleAddress(1, offered), 'http://localhost')
    expect(address.pathname).toBe('/workspaces/1/trouble')
    expect(namedIn(address.searchParams)).toEqual(offered)
    for (const odd of ['', '{', 'null', '7', '"x"', '{"says":7}', '{"says":"x","fault":null}', '[]'])
      expect(namedIn(new URLSearchParams({ named: odd }))).toBeUndefined()
    expect(namedIn(new URLSearchParams())).toBeUndefined()
  })
})
