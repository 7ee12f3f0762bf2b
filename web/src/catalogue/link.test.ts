import { expect, test } from 'vitest'
import { catalogueAddress, isLink, linkOf, readLink } from './link'

const FILE = 'a1'.repeat(32)

test('a link that is made is read as what it was made of', () => {
  const made = linkOf('https://mods.example.org/board/catalogue.json', 'sea-fog', '1.0+b & c', FILE) ?? ''
  expect(isLink(made)).toBe(true)
  expect(readLink(made)).toEqual({
    catalogue: 'https://mods.example.org/board/catalogue.json',
    mod: 'sea-fog',
    version: '1.0+b & c',
    file: FILE,
  })
  expect(linkOf('/home/somebody/board', 'sea-fog', '1', FILE)).toBeNull()
})

test.each([
  ['https://mods.example.org/a.zip'],
  ['web+ironing:take?mod=a'],
  ['web+ironing:get'],
  [`web+ironing:get?catalogue=ftp://a.example&mod=a&version=1&file=${FILE}`],
  [`web+ironing:get?catalogue=https://u:p@a.example&mod=a&version=1&file=${FILE}`],
  [`web+ironing:get?catalogue=https://a.example&mod=A%20b&version=1&file=${FILE}`],
  ['web+ironing:get?catalogue=https://a.example&mod=a&version=1&file=abc'],
])('%s is none', (text) => {
  expect(readLink(text)).toBeNull()
})

test('an address is that of catalogue.json, however it is written', () => {
  expect(catalogueAddress('https://a.example/mods/')).toBe('https://a.example/mods/catalogue.json')
  expect(catalogueAddress('https://a.example:8080?x=1')).toBe('https://a.example:8080/catalogue.json')
  expect(catalogueAddress('nothing')).toBe('')
})
