import { diffArrays, diffWordsWithSpace } from 'diff'
import Papa from 'papaparse'

/** A stretch of a line; marked where the other side has it otherwise. */
export interface Piece {
  text: string
  marked: boolean
}

/** One row of two texts side by side. */
export interface Line {
  same: boolean
  left: { number: number; pieces: Piece[] } | null
  right: { number: number; pieces: Piece[] } | null
}

/** Marking words in lines longer than this would hold the page up. */
const LONGEST_LINE = 2_000

/** Two texts side by side, line by line; where a line was changed, word by word. */
export function sideBySide(left: string, right: string): Line[] {
  const lines: Line[] = []
  const a = left.split(/\r\n|\n|\r/)
  const b = right.split(/\r\n|\n|\r/)
  let l = 0
  let r = 0
  const plain = (text: string): Piece[] => [{ text, marked: false }]
  const parts = diffArrays(a, b)
  for (let i = 0; i < parts.length; i++) {
    const part = parts[i]
    if (!part) continue
    if (!part.added && !part.removed) {
      for (const text of part.value) {
        lines.push({
          same: true,
          left: { number: ++l, pieces: plain(text) },
          right: { number: ++r, pieces: plain(text) },
        })
      }
      continue
    }
    const next = parts[i + 1]
    const gone = part.removed ? part.value : next?.removed ? next.value : []
    const come = part.added ? part.value : next?.added ? next.value : []
    if (next && (next.added || next.removed)) i++
    for (let k = 0; k < Math.max(gone.length, come.length); k++) {
      const was = gone[k]
      const is = come[k]
      const words = was !== undefined && is !== undefined ? wordsOf(was, is) : null
      lines.push({
        same: false,
        left:
          was === undefined ? null : { number: ++l, pieces: words?.left ?? [{ text: was, marked: true }] },
        right:
          is === undefined ? null : { number: ++r, pieces: words?.right ?? [{ text: is, marked: true }] },
      })
    }
  }
  return lines
}

function wordsOf(was: string, is: string): { left: Piece[]; right: Piece[] } | null {
  if (was.length > LONGEST_LINE || is.length > LONGEST_LINE) return null
  const left: Piece[] = []
  const right: Piece[] = []
  for (const w of diffWordsWithSpace(was, is)) {
    if (!w.added) left.push({ text: w.value, marked: !!w.removed })
    if (!w.removed) right.push({ text: w.value, marked: !!w.added })
  }
  return { left, right }
}

/** How many equal lines stand around a difference. */
const AROUND = 3
/** Fewer equal lines than these are not worth folding. */
const FEW = 4

/** A stretch of equal lines that is folded. */
export interface Folded {
  /** How many lines. */
  fold: number
  /** The first of them. */
  from: number
}

/** A line that is shown, or a stretch that is folded. */
export type Row = Folded | { line: Line; index: number }

/**
 * The lines with what is equal folded, but for some lines around each difference.
 *
 * @param open the first lines of the stretches that are shown all the same
 */
export function folded(lines: readonly Line[], open: ReadonlySet<number>): Row[] {
  const rows: Row[] = []
  const shown = (from: number, to: number) => {
    for (let i = from; i < to; i++) rows.push({ line: lines[i] as Line, index: i })
  }
  let i = 0
  while (i < lines.length) {
    let end = i
    while (end < lines.length && lines[end]?.same === lines[i]?.same) end++
    const from = i === 0 ? 0 : i + AROUND
    const to = end === lines.length ? end : end - AROUND
    if (!lines[i]?.same || to - from < FEW || open.has(from)) shown(i, end)
    else {
      shown(i, from)
      rows.push({ fold: to - from, from })
      shown(to, end)
    }
    i = end
  }
  return rows
}

/** The row that shows a line or has it folded; -1 where there is none. */
export function rowWith(rows: readonly Row[], line: number): number {
  return rows.findIndex((r) => ('fold' in r ? line >= r.from && line < r.from + r.fold : r.index === line))
}

/** The lines that have a text on either side, small and capital letters alike. */
export function hits(lines: readonly Line[], find: string): number[] {
  const text = find.trim().toLowerCase()
  if (text === '') return []
  const has = (side: Line['left']) => {
    const words = side?.pieces.map((p) => p.text).join('') ?? ''
    return words.toLowerCase().includes(text)
  }
  return lines.flatMap((l, i) => (has(l.left) || has(l.right) ? [i] : []))
}

/** A place in two structured files that is not the same in both. */
export interface Place {
  at: string
  left?: string
  right?: string
}

/** The places in which two tables differ: rows by their first column, cells by the header. Null where one is none. */
export function tablePlaces(left: string, right: string): Place[] | null {
  const a = table(left)
  const b = table(right)
  if (!a || !b) return null
  const places: Place[] = []
  const columns = [...new Set([...a.columns, ...b.columns])]
  for (const c of columns) {
    if (!a.columns.includes(c)) places.push({ at: `column ${c}`, right: 'there' })
    if (!b.columns.includes(c)) places.push({ at: `column ${c}`, left: 'there' })
  }
  for (const key of new Set([...a.rows.keys(), ...b.rows.keys()])) {
    const x = a.rows.get(key)
    const y = b.rows.get(key)
    if (!x || !y) {
      const words = (row: Record<string, string>) => Object.values(row).join(', ')
      places.push({ at: `row ${key}`, ...(x ? { left: words(x) } : {}), ...(y ? { right: words(y) } : {}) })
      continue
    }
    for (const c of columns) {
      if (a.columns.includes(c) && b.columns.includes(c) && x[c] !== y[c])
        places.push({ at: `row ${key}, ${c}`, left: x[c] ?? '', right: y[c] ?? '' })
    }
  }
  return places
}

function table(text: string): { columns: string[]; rows: Map<string, Record<string, string>> } | null {
  const read = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true })
  const columns = read.meta.fields ?? []
  const first = columns[0]
  if (first === undefined || columns.length < 2) return null
  const rows = new Map(read.data.map((row) => [row[first] ?? '', row]))
  return rows.size === read.data.length ? { columns, rows } : null
}

/** The places in which two JSON files differ, as pointers (RFC 6901). Null where one does not parse. */
export function jsonPlaces(left: string, right: string): Place[] | null {
  let a: unknown
  let b: unknown
  try {
    a = JSON.parse(left)
    b = JSON.parse(right)
  } catch {
    return null
  }
  const places: Place[] = []
  const say = (v: unknown) => JSON.stringify(v) ?? ''
  const isMap = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null
  const walk = (x: unknown, y: unknown, at: string) => {
    if (isMap(x) && isMap(y) && Array.isArray(x) === Array.isArray(y)) {
      for (const key of new Set([...Object.keys(x), ...Object.keys(y)])) {
        const below = `${at}/${key.replaceAll('~', '~0').replaceAll('/', '~1')}`
        if (!(key in x)) places.push({ at: below, right: say(y[key]) })
        else if (!(key in y)) places.push({ at: below, left: say(x[key]) })
        else walk(x[key], y[key], below)
      }
    } else if (say(x) !== say(y)) {
      places.push({ at: at || '/', left: say(x), right: say(y) })
    }
  }
  walk(a, b, '')
  return places
}

/** Bytes as rows of sixteen: where they begin, in hexadecimal, and as letters. */
export function hexRows(hex: string): { at: string; bytes: string[]; letters: string }[] {
  const rows: { at: string; bytes: string[]; letters: string }[] = []
  for (let i = 0; i < hex.length; i += 32) {
    const bytes = hex.slice(i, i + 32).match(/../g) ?? []
    const letters = bytes.map((b) => {
      const code = Number.parseInt(b, 16)
      return code >= 0x20 && code < 0x7f ? String.fromCharCode(code) : '·'
    })
    rows.push({ at: (i / 2).toString(16).padStart(6, '0'), bytes, letters: letters.join('') })
  }
  return rows
}
