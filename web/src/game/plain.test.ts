import { describe, expect, it } from 'vitest'
import { plainDefinition } from './plain'

const title = (folder: string) => /^title: (.*)$/m.exec(plainDefinition(folder))?.[1]

describe('a definition to begin with', () => {
  it('is called like the folder', () => {
    expect(title('/home/me/games/letters')).toBe('letters')
    expect(title('/home/me/games/My Letters 2/')).toBe('My Letters 2')
    expect(title('/')).toBe('My game')
    expect(title('')).toBe('My game')
  })
  it('stays a text of YAML, whatever the folder is called', () => {
    expect(title('/games/Sea: the "game"')).toBe('"Sea: the \\"game\\""')
    expect(title('/games/# 1')).toBe('"# 1"')
    expect(title('/games/42')).toBe('"42"')
    expect(title('/games/No')).toBe('"No"')
    expect(title('/games/Ærlig')).toBe('Ærlig')
  })
})
