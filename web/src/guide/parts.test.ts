import { describe, expect, it } from 'vitest'
import guide from '../../../docs/guide.md?raw'
import { partFor, partsOf } from './parts'

describe('the guide in its parts', () => {
  const parts = partsOf(guide)
  it('has each once, with words in it', () => {
    expect(new Set(parts.map((p) => p.id)).size).toBe(parts.length)
    for (const p of parts) expect(p.text.length).toBeGreaterThan(100)
  })
  it('loses nothing but the heading and what stands before the first', () => {
    const [part] = partsOf('# Guide\n\nfirst\n\n## One part\n\ntext\n\n### Below\n\nmore\n')
    expect(part).toEqual({ id: 'one-part', title: 'One part', text: 'text\n\n### Below\n\nmore' })
  })
  it('names files instead of leading to them', () => {
    const [part] = partsOf('## A\n\nsee [game.md](formats/game.md) and [this](#b)\n')
    expect(part?.text).toBe('see game.md (`docs/formats/game.md`) and [this](#b)')
  })
  it('has a part for every screen', () => {
    const ids = new Set(parts.map((p) => p.id))
    for (const path of [
      '/workspaces/1',
      '/workspaces/1/',
      '/workspaces/1/library/inbox/3',
      '/workspaces/12/layers/3',
      '/workspaces/1/load-order/A.plug',
      '/workspaces/1/mends/combined-files',
      '/workspaces/1/deploy/game-version',
      '/workspaces/1/definition',
      '/workspaces/1/guide/layers',
    ])
      expect(ids).toContain(partFor(path))
    expect(partFor('/workspaces/1/records/A.plug/1')).toBe('records')
    expect(partFor('/workspaces/1/recordsx')).toBe('words')
  })
})
