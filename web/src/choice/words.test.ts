import { describe, expect, it } from 'vitest'
import { type Brought, becomesWords, type Member, sumWords, whyWords } from './words'

const member = (m: Partial<Member>): Member => ({
  mod: 'rope',
  name: 'Rope',
  version: '2',
  variant: '',
  becomes: 'FETCHED',
  path: ['Rope'],
  release: 'k',
  sizeBytes: 0,
  ...m,
})

describe('words of a choice', () => {
  it('says what becomes of a mod', () => {
    expect(becomesWords(member({ catalogue: 'Board' }))).toBe('fetched from Board')
    expect(becomesWords(member({ becomes: 'CHANGED', from: '1' }))).toBe('1 is here, 2 takes its place')
    expect(becomesWords(member({ becomes: 'SWITCHED_ON' }))).toBe('is switched on')
  })

  it('says who needs it', () => {
    expect(whyWords(member({}))).toBe('you want it')
    expect(whyWords(member({ path: ['Fog', 'Rope'] }))).toBe('needed by Fog')
    expect(whyWords(member({ path: ['Fog', 'Bells', 'Rope'] }))).toBe('needed by Bells, through Fog')
    const because = { kind: 'NEED' as const, owner: 'a', target: 'b', versions: '*', text: 'A needs B' }
    expect(whyWords(member({ path: [], because }))).toBe('else this would not hold: A needs B')
  })

  it('sums it up', () => {
    const brought = (members: Member[], off: Brought['off'] = []) => ({ members, off }) as unknown as Brought
    expect(sumWords(brought([member({ becomes: 'STAYS' })]))).toBe('All of it is here and on.')
    expect(
      sumWords(
        brought([member({}), member({ becomes: 'SWITCHED_ON' })], [{ mod: 1, name: 'x', version: '1' }]),
      ),
    ).toBe('1 mod to fetch, 1 mod to switch on and 1 mod to switch off.')
  })
})
