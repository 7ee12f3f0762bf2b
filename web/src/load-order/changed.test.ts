import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { changed } from './queries'

const plugin = (name: string, position: number): Schema['PluginView'] =>
  ({ name, position, on: true, kept: false }) as unknown as Schema['PluginView']

const view = {
  revision: 1,
  plugins: [plugin('A', 1), plugin('B', 2), plugin('C', 3)],
} as unknown as Schema['LoadOrderView']

const names = (v: Schema['LoadOrderView']) => v.plugins.map((p) => p.name).join('')

describe('the load order before the server has answered', () => {
  it('has a plugin at the place to which it is moved', () => {
    expect(names(changed(view, { kind: 'move', names: ['A'], to: 3 }))).toBe('BCA')
    expect(names(changed(view, { kind: 'move', names: ['Nobody'], to: 1 }))).toBe('ABC')
  })
  it('has several one behind the other where they are moved together', () => {
    expect(names(changed(view, { kind: 'move', names: ['C', 'A'], to: 2 }))).toBe('BAC')
    expect(names(changed(view, { kind: 'move', names: ['C', 'B'], to: 1 }))).toBe('BCA')
  })
  it('has switches and kept places as they will be', () => {
    const off = changed(view, { kind: 'switch', names: ['B'], on: false })
    expect(off.plugins.map((p) => p.on)).toEqual([true, false, true])
    const kept = changed(view, { kind: 'keep', names: ['C'], kept: true })
    expect(kept.plugins.map((p) => p.kept)).toEqual([false, false, true])
  })
  it('is as proposed when all is taken, and waits where only the server knows', () => {
    const order = ['C', 'A', 'B']
    expect(names(changed(view, { kind: 'proposal', order }))).toBe('CAB')
    expect(changed(view, { kind: 'proposal', order, names: ['C'] })).toBe(view)
    expect(changed(view, { kind: 'list-file' })).toBe(view)
    expect(changed(view, { kind: 'restore', point: 1, name: 'calm' })).toBe(view)
  })
})
