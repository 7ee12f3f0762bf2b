import { expect, test } from 'vitest'
import { aboutTool, linesOf, textOfVariables, variablesOf } from './words'

test('lines that are blank do not count', () => {
  expect(linesOf(' java\n\n -jar \n')).toEqual(['java', '-jar'])
})

test('variables come back as they were written, whatever their values hold', () => {
  const text = 'HOME={game}/home\nFLAGS=a=b c\nEMPTY='
  expect(variablesOf(text)).toEqual({ HOME: '{game}/home', FLAGS: 'a=b c', EMPTY: '' })
  expect(textOfVariables(variablesOf(text))).toBe(text)
  expect(variablesOf('ALONE')).toEqual({ ALONE: '' })
})

test('what a tool does is a sentence', () => {
  const tool = {
    id: 1,
    name: 'x',
    command: [],
    folder: '',
    environment: {},
    reads: ['data/*.plug'],
    writes: [],
    stale: [],
    waitsFor: [],
  }
  expect(aboutTool(tool)).toBe('Reads data/*.plug; writes to a folder of its own only.')
  expect(aboutTool({ ...tool, reads: [], writes: ['a', 'b'] })).toBe(
    'Is not said to read anything; writes a and b.',
  )
})
