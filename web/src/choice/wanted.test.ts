import { describe, expect, it } from 'vitest'
import { choiceAddress, held, printed, type Statement, wanted, without } from './wanted'

const need: Statement = {
  kind: 'NEED',
  owner: 'fog',
  target: 'rope',
  versions: '>=2',
  text: 'Fog needs Rope',
}

describe('a choice in the address', () => {
  it('comes back as it was', () => {
    const all = {
      wishes: [
        { mod: 'fog' },
        { mod: 'hull', variant: '' },
        { mod: 'hull', variant: 'a~b@c' },
        { mod: 'x', release: '3:ab~@' },
      ],
      missing: true,
      givenUp: [{ kind: 'NEED' as const, owner: 'fog', target: 'rope', versions: '>=2 || <1', variant: '' }],
    }
    expect(wanted(new URLSearchParams(printed(all)))).toEqual(all)
    expect(choiceAddress(7, { wishes: [{ mod: 'fog' }] })).toBe('/workspaces/7/catalogue/choice?want=fog')
  })

  it('leaves out what is no statement', () => {
    const odd = wanted(new URLSearchParams('want=&without=x&without={}&without={"kind":1}'))
    expect(odd).toEqual({ wishes: [], missing: false, givenUp: [] })
  })

  it('goes on without what is given up', () => {
    const wish: Statement = { kind: 'WISH', owner: 'hull', target: 'hull', versions: '', variant: 'small' }
    const w = { wishes: [{ mod: 'fog' }, { mod: 'hull', variant: 'small' }, { mod: 'hull' }] }
    expect(without(w, [wish]).wishes).toEqual([{ mod: 'fog' }, { mod: 'hull' }])
    expect(without(w, [need])).toEqual({ ...w, givenUp: [need] })
    expect(held({ ...w, givenUp: [need] }, { ...need, text: 'in other words' }).givenUp).toEqual([])
  })
})
