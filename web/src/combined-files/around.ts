import { diffLines } from 'diff'
import type { Schema } from '../api/client'

type Board = Schema['FileBoard']
type Place = Schema['FilePlace']

/** How many lines before and behind a question are shown. */
const LINES = 2

/** What lies around a question in its file. */
export interface Around {
  before: string
  behind: string
}

/** What lies around a place: of a text the lines on either side, else the lines around its key where only one is meant. */
export function around(board: Board, place: Place): Around | null {
  return board.pieces.length > 0 ? ofText(board, place) : ofKey(board.shown, place)
}

function ofText(board: Board, place: Place): Around | null {
  const number = board.places.indexOf(place)
  const first = board.pieces.findIndex((p) => p.place === number)
  if (first < 0) return null
  const last = board.pieces.findLastIndex((p) => p.place === number)
  const before = board.pieces.slice(0, first).map((p) => p.text)
  const behind = board.pieces.slice(last + 1).map((p) => p.text)
  return bounded(lines(before.join('')).slice(-LINES), lines(behind.join('')).slice(0, LINES))
}

function ofKey(shown: string, place: Place): Around | null {
  const key = place.where.slice(place.where.lastIndexOf('/') + 1).replace(/^.*\[(.*)\]$/, '$1')
  const value = lines(place.outcome ?? '')[0]?.trim() ?? ''
  if (key === '' || value === '') return null
  const all = lines(shown)
  const hits = all.flatMap((l, i) => (l.includes(key) && l.includes(value) ? [i] : []))
  const [at] = hits
  // where two lines look alike, neither is said to be the one
  if (at === undefined || hits.length > 1) return null
  const height = lines(place.outcome ?? '').length
  return bounded(all.slice(Math.max(0, at - LINES), at), all.slice(at + height, at + height + LINES))
}

function bounded(before: readonly string[], behind: readonly string[]): Around | null {
  return before.length + behind.length === 0 ? null : { before: before.join('\n'), behind: behind.join('\n') }
}

function lines(text: string): string[] {
  if (text === '') return []
  return (text.endsWith('\n') ? text.slice(0, -1) : text).split('\n')
}

/** Texts up to which it is looked whether two changes lie beside one another. */
const LONGEST = 20_000

/** Lines of a base that were replaced by others. */
interface Hunk {
  from: number
  to: number
  by: string
}

/**
 * Both of two changes of a text that touch no line in common; null where they do, where both add at one place, or
 * where one of them changes nothing.
 */
export function bothChanges(base: string, one: string, other: string): string | null {
  if (base.length + one.length + other.length > LONGEST) return null
  const [a, b] = [hunks(base, one), hunks(base, other)]
  if (a.length === 0 || b.length === 0) return null
  const all = [...a, ...b].sort((x, y) => x.from - y.from || x.to - y.to)
  for (let i = 1; i < all.length; i++) {
    const [before, next] = [all[i - 1] as Hunk, all[i] as Hunk]
    const bothAdd = before.from === before.to && next.from === next.to && before.from === next.from
    if (next.from < before.to || bothAdd) return null
  }
  const old = base.split(/(?<=\n)/)
  let out = ''
  let at = 0
  for (const h of all) {
    out += old.slice(at, h.from).join('') + h.by
    at = h.to
  }
  return out + old.slice(at).join('')
}

function hunks(base: string, changed: string): Hunk[] {
  const found: Hunk[] = []
  let line = 0
  let open: Hunk | null = null
  for (const part of diffLines(base, changed)) {
    if (!part.added && !part.removed) {
      if (open) found.push(open)
      open = null
      line += part.count ?? 0
      continue
    }
    open ??= { from: line, to: line, by: '' }
    if (part.added) open.by += part.value
    else {
      line += part.count ?? 0
      open.to = line
    }
  }
  if (open) found.push(open)
  return found
}
