import { describe, expect, it } from 'vitest'
import { groups, helpFor, isChanged, keyed, shortName } from './report'

const report = (name: string, value = '1', before?: string) => ({ name, value, unit: '', from: '', before })

describe('the report of a run', () => {
  it('tells together what begins alike, and what stands alone at the top', () => {
    const all = [
      report('Fare, by day'),
      report('Aud Helga, speed'),
      report('Fare, by night'),
      report('Units'),
      report('Aud Helga, crew'),
    ]
    const g = groups(all)
    expect(g.map((x) => x.title)).toEqual(['The day', 'Fare', 'Aud Helga'])
    expect(g[1]?.reports.map((r) => shortName(r, g[1] as never))).toEqual(['by day', 'by night'])
    expect(groups([])).toEqual([])
  })

  it('says what is another value than in the run before', () => {
    expect(isChanged(report('a', '2', '1'))).toBe(true)
    expect(isChanged(report('a', '1', '1'))).toBe(false)
    expect(isChanged(report('a', '1'))).toBe(false)
  })

  it('tells two reports of one name apart', () => {
    expect(keyed([report('a'), report('b'), report('a')]).map((k) => k.key)).toEqual(['a 1', 'b 1', 'a 2'])
  })

  it('sends every fault to the screen that helps', () => {
    expect(helpFor('master-late').path).toBe('load-order')
    expect(helpFor('reference-dangling').path).toBe('records')
    expect(helpFor('routine-twice').path).toBe('overlaps')
    expect(helpFor('something-new').path).toBe('layers')
  })
})
