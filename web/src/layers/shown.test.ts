import { describe, expect, it } from 'vitest'
import { FIRST_COLUMNS } from './rows'
import { asShown, NARROWEST, nudged, WIDEST } from './shown'

const kept = {
  sort: 'size',
  columns: ['size', 'bar'],
  widths: { size: 120 },
  folded: [3],
  turned: true,
  views: [],
}

describe('how the list of layers is shown', () => {
  it('is as it comes where nobody has said otherwise', () => {
    const nothing = { sort: '', columns: [], widths: {}, folded: [], turned: false, views: [] }
    for (const first of [undefined, nothing]) {
      expect(asShown(first).columns).toBe(FIRST_COLUMNS)
      expect(asShown(first).sort).toBe('order')
    }
  })
  it('is as it was left, with no column where all were hidden', () => {
    expect(asShown(kept)).toEqual(kept)
    expect(asShown({ ...kept, columns: [] }).columns).toEqual([])
  })
  it('leaves out what another version of the page has kept', () => {
    const odd = {
      ...kept,
      sort: 'colour',
      columns: ['weight', 'bar'],
      widths: { weight: 9, bar: 9, size: 9000 },
    }
    expect(asShown(odd)).toMatchObject({
      sort: 'order',
      columns: ['bar'],
      widths: { bar: NARROWEST, size: WIDEST },
    })
  })
  it('moves a column past its neighbour, and not past the end', () => {
    expect(nudged(['bar', 'size', 'way'], 'bar', 1)).toEqual(['size', 'bar', 'way'])
    expect(nudged(['bar', 'size', 'way'], 'way', -1)).toEqual(['bar', 'way', 'size'])
    expect(nudged(['bar', 'size'], 'bar', -1)).toEqual(['bar', 'size'])
    expect(nudged(['bar'], 'size', 1)).toEqual(['bar'])
  })
})
