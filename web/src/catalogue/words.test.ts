import { describe, expect, it } from 'vitest'
import type { Catalogue, FoundMod } from './queries'
import { foundWords, hereWords, lookWords, rangeWords } from './words'

const found = (m: Partial<FoundMod>) => m as FoundMod
const catalogue = (c: Partial<Catalogue>) => c as Catalogue
const news = { first: false, mods: 9, newMods: 0, goneMods: 0, newReleases: 0, leftOut: 0, releases: [] }

describe('words of the catalogue', () => {
  it('says what is here', () => {
    expect(hereWords(found({ on: false, hasNewer: false }))).toBe('')
    expect(hereWords(found({ here: '1.3', on: true, hasNewer: false }))).toBe('1.3 is here')
    expect(hereWords(found({ here: '1.3', on: false, hasNewer: true }))).toBe(
      '1.3 is here, off, newer ones exist',
    )
  })

  it('says what is needed', () => {
    expect(rangeWords({ mod: 'rope', versions: '*' })).toBe('rope')
    expect(rangeWords({ mod: 'rope', versions: '>=1.2', variant: '' })).toBe('rope >=1.2, plain')
    expect(rangeWords({ mod: 'hull', versions: '*', variant: 'small' })).toBe('hull, small')
  })

  it('says what came of a look', () => {
    expect(lookWords(catalogue({}))).toBe('not looked at yet')
    expect(lookWords(catalogue({ look: { outcome: 'SAME', parts: 0, problems: [] } }))).toBe('nothing new')
    expect(
      lookWords(
        catalogue({
          look: {
            outcome: 'TAKEN',
            parts: 1,
            problems: [],
            news: { ...news, newMods: 1, newReleases: 3, goneMods: 2 },
          },
        }),
      ),
    ).toBe('1 new mod, 3 new releases, 2 mods gone')
    expect(
      lookWords(
        catalogue({ look: { outcome: 'TAKEN', parts: 1, problems: [], news: { ...news, first: true } } }),
      ),
    ).toBe('read for the first time')
  })

  it('says how many', () => {
    expect(foundWords(1, false)).toBe('1 mod')
    expect(foundWords(1000, true)).toBe('more than 1,000 mods')
  })
})
