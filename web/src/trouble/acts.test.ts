import { describe, expect, it } from 'vitest'
import type { Schema } from '../api/client'
import { takenWords } from './acts'

function place(title: string, used: string, of: Record<string, string>): Schema['PlaceView'] {
  const words = (text: string) => ({ there: text !== '', text, items: [] })
  return {
    place: title,
    title,
    kind: { kind: 'TEXT' },
    before: words('base'),
    changes: Object.entries(of).map(([plugin, text]) => ({
      plugin,
      mod: 1,
      modName: plugin,
      value: words(text),
      added: [],
      removed: [],
      altered: [],
    })),
    how: 'TAKEN',
    used: words(used),
    lost: false,
    why: '',
  }
}

describe('what taking a version of a record would change', () => {
  const board = (...places: Schema['PlaceView'][]) => ({ places }) as Schema['Board']

  it('is said of each field that the game reads otherwise now', () => {
    const b = board(
      place('Speed', '0', { 'Tidy.plug': '0', 'Tar.plug': '12' }),
      place('Crew', '4', { 'Tidy.plug': '4' }),
      place('Name', 'Helga', { 'Tar.plug': 'Helga' }),
    )
    expect(takenWords(b, 'Tar.plug')).toBe(
      'The game would read Speed 12 instead of 0 and Crew base instead of 4.',
    )
    expect(takenWords(b, 'Tar.plug', 'Speed')).toBe('The game would read Speed 12 instead of 0.')
    expect(takenWords(b, 'Tar.plug', 'Name')).toBe('The game would read the same.')
  })

  it('names what comes and goes, and not more than a few', () => {
    expect(takenWords(board(place('Flag', '', { A: 'red' })), 'A')).toBe(
      'The game would read Flag red instead of nothing.',
    )
    expect(takenWords(board(place('Flag', 'red', { A: '' })), 'A')).toBe(
      'The game would read Flag not there instead of red.',
    )
    const many = ['a', 'b', 'c', 'd', 'e', 'f'].map((t) => place(t, 'x', { A: 'y' }))
    expect(takenWords(board(...many), 'A')).toMatch(/d y instead of x and 2 more\.$/)
  })
})
