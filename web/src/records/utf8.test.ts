import { describe, expect, it } from 'vitest'
import { decodeUtf8 } from './utf8'

const bytes = (...parts: (string | number[])[]) =>
  new Uint8Array(parts.flatMap((p) => (typeof p === 'string' ? [...new TextEncoder().encode(p)] : p)))

describe('bytes as UTF-8', () => {
  it('a text comes out as it is, with its byte order mark', () => {
    expect(decodeUtf8(bytes('\uFEFFa ü 🔔\n'))).toEqual({ text: '\uFEFFa ü 🔔\n' })
    expect(decodeUtf8(bytes())).toEqual({ text: '' })
  })

  it('what is no UTF-8 is told by its place, and never replaced', () => {
    expect(decodeUtf8(bytes('ü\nab', [0xff], 'c'))).toEqual({ line: 2, byte: 3 })
    expect(decodeUtf8(bytes([0xff]))).toEqual({ line: 1, byte: 1 })
    // a letter that is cut off, an overlong form, half of a pair (RFC 3629, sections 3 and 4)
    expect(decodeUtf8(bytes('a\n', [0xe2, 0x82]))).toMatchObject({ line: 2 })
    expect(decodeUtf8(bytes('a', [0xc0, 0x80]))).toMatchObject({ line: 1, byte: 2 })
    expect(decodeUtf8(bytes('a', [0xed, 0xa0, 0x80]))).toMatchObject({ line: 1 })
  })
})
