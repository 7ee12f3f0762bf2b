import { describe, expect, it } from 'vitest'
import { childrenOf, leavesOf, rowsOf, treeOf } from './tree'

const files = ['b.txt', 'maps/z.map', 'maps/east/a.map', 'A.txt'].map((path) => ({ path, sizeBytes: 10 }))

describe('the tree of a list of files', () => {
  it('has folders first, each kind by name, with what is below them added up', () => {
    const tree = treeOf(files).roots
    expect(tree.map((n) => n.path)).toEqual(['maps/', 'A.txt', 'b.txt'])
    expect(tree[0]).toMatchObject({ files: 2, sizeBytes: 20, depth: 0 })
    const [maps] = tree
    expect(maps && childrenOf(maps).map((n) => [n.path, n.depth])).toEqual([
      ['maps/east/', 1],
      ['maps/z.map', 1],
    ])
  })

  it('shows what is in open folders only', () => {
    const tree = treeOf(files).roots
    expect(rowsOf(tree, () => false)).toHaveLength(3)
    expect(rowsOf(tree, (f) => f === 'maps/').map((n) => n.name)).toEqual([
      'maps',
      'east',
      'z.map',
      'A.txt',
      'b.txt',
    ])
  })

  it('gives back the files of a folder', () => {
    expect(treeOf(files).roots.flatMap(leavesOf)).toHaveLength(4)
  })

  it('takes fifty thousand files in one breath', () => {
    const many = Array.from({ length: 50_000 }, (_, i) => ({
      path: `a${i % 50}/b${i % 700}/f${i}.dds`,
      sizeBytes: 1,
    }))
    expect(treeOf(many).roots.reduce((n, f) => n + f.files, 0)).toBe(50_000)
  })
})
