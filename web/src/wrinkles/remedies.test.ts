import { describe, expect, it } from 'vitest'
import { label, type Mended, remedyOf, toWhom } from './remedies'

type Fix = NonNullable<Mended['fix']>

const of = (kind: Fix['kind'], rest: Partial<Fix> = {}, pair: Partial<Mended> = {}): Mended => ({
  ...pair,
  fix: { kind, name: rest.name ?? rest.plugin ?? `Mod ${rest.mod}`, ...rest },
})

describe('one act for many wrinkles', () => {
  it('is none where nothing mends them', () => {
    expect(remedyOf([])).toBeNull()
    expect(remedyOf([{ mod: 1 }])).toBeNull()
  })
  it('switches each mod on once, however many need it', () => {
    const remedy = remedyOf([
      of('SWITCH_MOD_ON', { mod: 1 }),
      of('SWITCH_MOD_ON', { mod: 2 }),
      of('SWITCH_MOD_ON', { mod: 1 }),
    ])
    expect(remedy).toEqual({
      kind: 'mods',
      on: true,
      mods: [
        { id: 1, name: 'Mod 1' },
        { id: 2, name: 'Mod 2' },
      ],
    })
    expect(remedy && label(remedy)).toBe('Switch 2 mods on')
    expect(remedy && toWhom(remedy)).toEqual(['Mod 1', 'Mod 2'])
  })
  it('leaves one of two on that do not go together', () => {
    const clash = (mod: number, other: number) => of('SWITCH_MOD_OFF', { mod: other }, { mod, other })
    const off = (wrinkles: Mended[]) => {
      const r = remedyOf(wrinkles)
      return r?.kind === 'mods' ? r.mods.map((m) => m.id) : []
    }
    expect(off([clash(1, 2), clash(2, 1)])).toEqual([2])
    // 2 is off by the first, so that the second is mended already
    expect(off([clash(1, 2), clash(2, 3), clash(4, 3)])).toEqual([2, 3])
  })
  it('does so for plugins too', () => {
    const r = remedyOf([
      of('SWITCH_PLUGIN_OFF', { plugin: 'A.plug' }, { mod: 1, other: 2 }),
      of('SWITCH_PLUGIN_OFF', { plugin: 'B.plug' }, { mod: 2, other: 1 }),
      of('SWITCH_PLUGIN_OFF', { plugin: 'C.plug' }, { mod: 3 }),
    ])
    expect(r?.kind === 'plugins' && r.names).toEqual(['A.plug', 'C.plug'])
  })
  it('shows an order where several rules are broken, and moves where it is one', () => {
    const rule = of('MEND_RULE', { mod: 1, rule: 'TOP' })
    expect(remedyOf([rule])?.kind).toBe('rule')
    expect(remedyOf([rule, rule])?.kind).toBe('rules')
  })
  it('rebuilds and drops all of them', () => {
    const rebuild = remedyOf([of('REBUILD_MEND', { mod: 1 }), of('REBUILD_MEND', { mod: 2 })])
    expect(rebuild && label(rebuild)).toBe('Rebuild 2 mends')
    const drop = remedyOf([
      of('DROP_UNREADABLE', { name: 'card 1' }),
      of('DROP_UNREADABLE', { name: 'card 2' }),
    ])
    expect(drop).toEqual({ kind: 'drop', keys: ['card 1', 'card 2'] })
  })
})
