import { describe, expect, it } from 'vitest'
import { copyName, orderWords } from './words'

const named = (...names: string[]) => names.map((name) => ({ name }))

describe('profiles in words', () => {
  it('gives a copy the first number that is free, whatever its capitals', () => {
    expect(copyName({ name: 'Everyday' }, named('Everyday'))).toBe('Everyday 2')
    expect(copyName({ name: 'Everyday' }, named('Everyday', 'EVERYDAY 2', 'Everyday 4'))).toBe('Everyday 3')
  })
  it('says how far two load orders are from one another', () => {
    const of = (swapped: number, pairs: number, plugins: number, switches: number) =>
      orderWords({
        order: { swapped, pairs },
        plugins: Array(plugins).fill({}),
        pluginSwitches: Array(switches).fill({}),
      } as never)
    expect(of(0, 10, 0, 2)).toBe('The same order; 2 plugins switched otherwise.')
    expect(of(0, 10, 0, 0)).toBe('The same order, with others at its ends.')
    expect(of(1, 1000, 1, 0)).toBe('1 plugin at another place: 1 % of all pairs load the other way about.')
    expect(of(3, 6, 3, 0)).toContain('3 plugins at another place: 50 %')
  })
})
