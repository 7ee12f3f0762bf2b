import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { treeOf } from '../ui/tree'
import { answered, entriesOf, leftOut, letIn, pagesOf, resolved, sentTo } from './part'

const gets = (entry: string, path: string) => ({ entry, path, mount: 'data', sizeBytes: 1 })

describe('the entries behind what the game gets', () => {
  const all = [gets('Mod/maps/a.map', 'data/maps/a.map'), gets('Mod/maps/b.map', 'data/maps/b.map')]
  const maps = () => treeOf(all).roots[0]?.children[0] as never

  it('are one folder where they all lie in it', () => {
    expect(entriesOf(maps(), all)).toEqual(['Mod/maps/'])
  })

  it('are named each where their folder holds others too, or they come from several', () => {
    const more = [...all, gets('Mod/maps/c.ini', 'settings/c.ini')]
    expect(entriesOf(maps(), more)).toEqual(['Mod/maps/a.map', 'Mod/maps/b.map'])
    const mixed = [gets('x/a.map', 'data/maps/a.map'), gets('y/b.map', 'data/maps/b.map')]
    expect(entriesOf(treeOf(mixed).roots[0]?.children[0] as never, mixed)).toEqual(['x/a.map', 'y/b.map'])
  })
})

describe('leaving out and letting in', () => {
  const all = ['m/a', 'm/b', 'm/c/d', 'x']

  it('keeps a folder instead of what lies in it', () => {
    expect(leftOut({ leaveOut: ['m/a'] }, ['m/']).leaveOut).toEqual(['m/'])
  })

  it('splits a folder when one of its files is let in', () => {
    expect(letIn({ leaveOut: ['m/', 'x'] }, 'm/a', all).leaveOut).toEqual(['m/b', 'm/c/d', 'x'])
  })

  it('lets in what is sent somewhere', () => {
    expect(sentTo({ leaveOut: ['x'] }, 'x', 'data', all)).toEqual({ leaveOut: [], sendTo: { x: 'data' } })
  })
})

const question = (part: Partial<Schema['QuestionView']>): Schema['QuestionView'] => ({
  id: 'q',
  chapter: '',
  ask: 'Q?',
  min: 0,
  max: 2,
  answers: ['a', 'b'].map((id) => ({ id, say: id, about: '', cost: '', offered: false, taken: id === 'a' })),
  ...part,
})

describe('an answer', () => {
  it('joins the others, or goes, where several may be taken', () => {
    expect(answered(question({}), {}, 'b')).toEqual({ q: ['a', 'b'] })
    expect(answered(question({}), {}, 'a')).toEqual({ q: [] })
  })

  it('takes the place of the other where one may be taken', () => {
    expect(answered(question({ min: 1, max: 1 }), {}, 'b')).toEqual({ q: ['b'] })
    expect(answered(question({ min: 1, max: 1 }), {}, 'a')).toEqual({ q: ['a'] })
    expect(answered(question({ min: 0, max: 1 }), {}, 'a')).toEqual({ q: [] })
  })
})

describe('the pages of a fitting', () => {
  it('hold neighbours of one chapter together and every other question alone', () => {
    const of = (id: string, chapter: string) => question({ id, chapter })
    const pages = pagesOf([of('1', 'Hulls'), of('2', 'Hulls'), of('3', ''), of('4', ''), of('5', 'Hulls')])
    expect(pages.map((p) => p.map((q) => q.id))).toEqual([['1', '2'], ['3'], ['4'], ['5']])
  })
})

describe('an image that a text names', () => {
  it('is looked for from the folder of the text, and never above the archive', () => {
    expect(resolved('docs/', 'pics/a.png')).toBe('docs/pics/a.png')
    expect(resolved('docs/en/', '../pics/./a.png')).toBe('docs/pics/a.png')
    expect(resolved('', '../../a.png')).toBe('a.png')
  })
})
