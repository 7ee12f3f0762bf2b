import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { type Facts, filesAsked, filterText, parseFilter, passes } from './filter'

const layer: Schema['LayerView'] = {
  mod: 7,
  position: 3,
  on: true,
  section: 2,
  kept: false,
  contested: 4,
  heldBack: 0,
  tags: ['Ui', 'weather'],
  broughtAt: '2026-11-20T10:00:00Z',
  name: 'Fogbound Weather',
  version: '4.0.1',
  cardId: 'card',
  kind: 'archive',
  files: 112,
  sizeBytes: 58 * 1024 * 1024,
  plugins: ['Fogbound.plug'],
  bar: { inPlay: 100, covering: 2, contributing: 0, covered: 8, twin: 2 },
  journey: { reached: 'ON', next: '' } as unknown as Schema['LayerView']['journey'],
}
const facts: Facts = {
  sectionOf: new Map([[2, 'How it looks']]),
  wrinkled: new Set(),
  holding: new Map([['tariffs', new Set([7])]]),
}
const holds = (text: string) => {
  const f = parseFilter(text)
  return f === null || passes(f, layer, facts)
}

describe('a filter that is typed', () => {
  it.each([
    ['fog', true],
    ['fog weather', true],
    ['"bound wea"', true],
    ['gulls', false],
    ['on', true],
    ['off', false],
    ['not off and contested', true],
    ['tag is ui', true],
    ['tag is sound or has plugin', true],
    ['tag is sound and has plugin', false],
    ['not (tag is sound or off)', true],
    ['section is "how it looks"', true],
    ['size over 50 MiB', true],
    ['size under 50', false],
    ['files over 100 since 2026-11-01', true],
    ['since 2026-11-21', false],
    ['file has Tariffs', true],
    ['file has bells', false],
    ['adds nothing or needs attention or holds back files or kept here or patch', false],
    ['"on"', false],
    ['', true],
  ])('%s: %s', (text, expected) => {
    expect(holds(text)).toBe(expected)
  })

  it('takes what is not finished yet as far as it goes', () => {
    expect(parseFilter('not')).toBeNull()
    expect(parseFilter('(')).toBeNull()
    expect(parseFilter('on and (tag is')).toEqual(parseFilter('on tag is'))
    expect(holds('fog)')).toBe(true)
    expect(holds('"fog')).toBe(true)
  })

  it('is written as it could be typed, and read back the same', () => {
    for (const text of [
      'on and not (tag is ui or section is "How it looks")',
      'fog or "on" or size over 50 MiB',
      'not contested and since 2026-11-01 and files over 3',
    ]) {
      const f = parseFilter(text)
      expect(filterText(f as NonNullable<typeof f>)).toBe(text)
      expect(parseFilter(filterText(f as NonNullable<typeof f>))).toEqual(f)
    }
  })

  it('says which files it looks for', () => {
    expect(filesAsked(parseFilter('on and not (file has A or "file")'))).toEqual(['a'])
  })
})
