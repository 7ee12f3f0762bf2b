import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { grouped } from './groups'

type Wrinkle = Schema['Wrinkle']

const wrinkle = (key: string, code: string, more: Partial<Wrinkle> = {}): Wrinkle => ({
  code,
  weight: 'LOSES',
  title: key,
  reason: '',
  remedy: '',
  place: 'LAYERS',
  key,
  ...more,
})

describe('wrinkles that are alike', () => {
  it('stand together at the place of the first, with the rest behind it', () => {
    const groups = grouped([
      wrinkle('a', 'need-unmet'),
      wrinkle('x', 'clash'),
      wrinkle('b', 'need-unmet'),
      wrinkle('c', 'need-unmet'),
    ])
    expect(groups.map((g) => g.first.key)).toEqual(['a', 'x'])
    expect(groups[0]?.shown.map((w) => w.key)).toEqual(['a'])
    expect(groups[0]?.more.map((w) => w.key)).toEqual(['b', 'c'])
  })

  it('are listed one by one while they are two', () => {
    const [group] = grouped([wrinkle('a', 'clash'), wrinkle('b', 'clash')])
    expect(group?.shown).toHaveLength(2)
    expect(group?.more).toEqual([])
  })

  it('are not alike where another act mends them, or they weigh otherwise', () => {
    const fix = { kind: 'SWITCH_MOD_ON', mod: 1, name: 'A' } as Wrinkle['fix']
    const all = [
      wrinkle('a', 'need-unmet', { fix }),
      wrinkle('b', 'need-unmet'),
      wrinkle('c', 'need-unmet', { weight: 'STOPS' }),
    ]
    expect(grouped(all)).toHaveLength(3)
    expect(grouped(all).flatMap((g) => [...g.shown, ...g.more])).toHaveLength(3)
  })

  it('stand together where one act mends them, whatever they are', () => {
    const fix = (mod: number) => ({ kind: 'SWITCH_MOD_ON', mod, name: 'A' }) as Wrinkle['fix']
    const [group] = grouped([
      wrinkle('a', 'need-unmet', { fix: fix(1) }),
      wrinkle('b', 'master-off', { fix: fix(2), place: 'LOAD_ORDER' }),
    ])
    expect(group?.all).toHaveLength(2)
  })
})
