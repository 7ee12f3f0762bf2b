import type { Schema } from '../api/client'

type FieldKind = Schema['FieldKind']

/**
 * What somebody typed into a field, in the text form of plugins; null where it cannot be that. What the
 * server checks beyond this it tells in words.
 */
export function written(typed: string, kind: FieldKind): string | null {
  const text = typed.trim()
  switch (kind.kind) {
    case 'TEXT':
    case 'PATH':
      return JSON.stringify(typed)
    case 'NUMBER': {
      const plain = text.replace(',', '.')
      return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(plain) ? number(plain) : null
    }
    case 'TRUTH':
      return text === 'true' || text === 'yes' ? 'true' : text === 'false' || text === 'no' ? 'false' : null
    default:
      return isJson(text) ? text : null
  }
}

// JSON knows no plus before a number and no point at either end of it
function number(plain: string): string {
  const [, sign = '', rest = ''] = /^([+-]?)(.*)$/.exec(plain) ?? []
  const [whole = '', exponent] = rest.split(/e/i)
  const [before = '', after] = whole.split('.')
  const digits = `${before.replace(/^0+(?=\d)/, '') || '0'}${after ? `.${after}` : ''}`
  return `${sign === '-' ? '-' : ''}${digits}${exponent === undefined ? '' : `e${exponent}`}`
}

function isJson(text: string): boolean {
  try {
    JSON.parse(text)
    return true
  } catch {
    return false
  }
}

/** What stands in an editor to begin with. */
export function typedFrom(text: string | undefined, kind: FieldKind): string {
  if (text === undefined) return ''
  if (kind.kind === 'TEXT' || kind.kind === 'PATH') {
    try {
      const value: unknown = JSON.parse(text)
      return typeof value === 'string' ? value : ''
    } catch {
      return ''
    }
  }
  return text
}
