import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { rowsOf } from '../ui/tree'
import { type AllFiles, gathered, PIECE } from './allFiles'

const file = (path: string, pack?: string): Schema['ModFile'] => ({
  path,
  pack,
  entry: path,
  sizeBytes: 1,
  sha256: '',
  edited: false,
})

/** Answers pieces of a list, and notes from where on each was asked. */
function server(all: readonly Schema['ModFile'][]) {
  const asked: number[] = []
  const ask = async (offset: number) => {
    asked.push(offset)
    return all.slice(offset, offset + PIECE)
  }
  return { ask, asked }
}

const many = (n: number) =>
  Array.from({ length: n }, (_, i) => file(`maps/m${String(i).padStart(6, '0')}.map`))

async function all(from: readonly Schema['ModFile'][]) {
  const seen: [files: number, inTree: number | undefined, whole: boolean][] = []
  const { ask, asked } = server(from)
  const note = (now: AllFiles) => seen.push([now.files.length, now.tree.roots[0]?.files, now.whole])
  note(await gathered(ask, note))
  return { seen, asked }
}

describe('the files of a mod', () => {
  it('are shown as they come, each time twice as many, and in the end it is said that no more come', async () => {
    const { seen, asked } = await all(many(4 * PIECE + 5))
    expect(seen).toEqual([
      [PIECE, PIECE, false],
      [2 * PIECE, 2 * PIECE, false],
      [4 * PIECE, 4 * PIECE, false],
      [4 * PIECE + 5, 4 * PIECE + 5, true],
    ])
    expect(asked).toEqual([0, 1, 2, 3, 4].map((n) => n * PIECE))
  })

  it('are whole when just a piece of them is there, and when there are none', async () => {
    expect((await all(many(PIECE))).seen).toEqual([
      [PIECE, PIECE, false],
      [PIECE, PIECE, true],
    ])
    expect((await all([])).seen).toEqual([[0, undefined, true]])
    expect((await all(many(3))).seen).toEqual([[3, 3, true]])
  })

  it('shows what lies in a pack below the pack, and keeps its own path', async () => {
    const { ask } = server([file('A/One.png', 'data/p.crate'), file('a/Two.png')])
    const { files, tree } = await gathered(ask, () => {})
    expect(files.map((f) => [f.path, f.own, f.lower])).toEqual([
      ['data/p.crate (pack)/A/One.png', 'A/One.png', 'data/p.crate (pack)/a/one.png'],
      ['a/Two.png', 'a/Two.png', 'a/two.png'],
    ])
    expect(rowsOf(tree.roots, () => true).map((r) => r.name)).toEqual([
      'a',
      'Two.png',
      'data',
      'p.crate (pack)',
      'A',
      'One.png',
    ])
  })

  it('fails as a whole when a later piece does not come', async () => {
    const first = many(PIECE)
    const broken = async (offset: number) => {
      if (offset > 0) throw new Error('gone')
      return first
    }
    await expect(gathered(broken, () => {})).rejects.toThrow('gone')
  })

  it('gives another tree whenever it has grown, and puts what came late where it belongs', async () => {
    const { ask } = server([...many(PIECE), file('aaa/first.txt')])
    const trees: AllFiles[] = []
    const whole = await gathered(ask, (now) => trees.push(now))
    expect(trees[0]?.tree).not.toBe(whole.tree)
    expect(whole.tree.roots.map((r) => r.name)).toEqual(['aaa', 'maps'])
  })
})
