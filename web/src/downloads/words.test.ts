import { describe, expect, it } from 'vitest'
import { type Download, downloadWords, queueWords } from './words'

const download = (d: Partial<Download>): Download => ({
  id: 1,
  mod: 'fog',
  version: '1',
  name: 'fog.zip',
  state: 'RUNNING',
  sizeBytes: 4000,
  received: 1000,
  bytesASecond: 0,
  ...d,
})

describe('words of downloads', () => {
  it('says how far each is', () => {
    expect(downloadWords(download({}))).toMatch(/ of /)
    expect(downloadWords(download({ bytesASecond: 1000 }))).toMatch(/\/s, .* left$/)
    expect(downloadWords(download({ state: 'PAUSED' }))).toMatch(/^paused at /)
    expect(downloadWords(download({ state: 'RESTING' }))).toMatch(/^rests at /)
    expect(downloadWords(download({ state: 'WAITING' }))).toBe('waits for its turn')
    expect(downloadWords(download({ state: 'FAILED' }))).toBe('failed')
  })

  it('says how many are on the way', () => {
    expect(queueWords([download({}), download({ state: 'DONE' })])).toBe('1 download on the way')
    expect(queueWords([download({ state: 'DONE' })])).toBe('1 download, none on the way')
  })
})
