import { expect, test } from 'vitest'
import { whoOf } from './rules'

test('a tag, a pattern and a plugin are told apart by how they are typed', () => {
  expect(whoOf('#weather ')).toEqual({ by: 'TAG', text: 'weather' })
  expect(whoOf(' fog*.plug')).toEqual({ by: 'PATTERN', text: 'fog*.plug' })
  expect(whoOf('Fog.plug')).toEqual({ by: 'NAME', text: 'Fog.plug' })
})
