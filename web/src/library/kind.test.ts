import { expect, it } from 'vitest'
import { ending, kindOf } from './kind'

it('a file is shown by its name', () => {
  const kinds = [
    'a/b.PNG',
    'a.jpeg',
    'a.svg',
    'x.csv',
    'x.TSV',
    'Read Me.md',
    'x.markdown',
    'x.ini',
    'readme',
  ].map((p) => kindOf(p, []))
  expect(kinds).toEqual(['image', 'image', 'image', 'table', 'table', 'markdown', 'markdown', 'text', 'text'])
})

it('a plugin is known by what the mod brings, whatever its name ends in', () => {
  expect(kindOf('data/Reef.plug', ['Reef.plug'])).toBe('plugin')
  expect(kindOf('data/Reef.plug', [])).toBe('text')
  expect(kindOf('data/reef.csv', ['reef.csv'])).toBe('plugin')
  expect(kindOf('data/Reef.plug/page.md', ['Reef.plug']), 'a folder of that name is none').toBe('markdown')
})

it('an ending is what follows the last point', () => {
  expect(ending('a.b/c.Tar.GZ')).toBe('gz')
  expect(ending('noending')).toBe('noending')
})
