import type { Schema } from '../api/client'
import { bytes } from '../ui/text'

type Layer = Schema['LayerView']

/** One thing that a layer can be or not be. */
type Criterion =
  | { is: 'on' | 'off' | 'contested' | 'adds nothing' | 'needs attention' | 'holds back files' }
  | { is: 'has plugin' | 'kept here' | 'patch' }
  | { is: 'name' | 'tag' | 'section' | 'file'; text: string }
  | { is: 'since'; text: string }
  | { is: 'size over' | 'size under'; bytes: number }
  | { is: 'files over'; files: number }

export type Filter =
  | { kind: 'and' | 'or'; parts: readonly Filter[] }
  | { kind: 'not'; part: Filter }
  | { kind: 'is'; criterion: Criterion }

/** What a criterion asks of beside the layer itself. */
export interface Facts {
  sectionOf: ReadonlyMap<number, string>
  /** Mods with a wrinkle. */
  wrinkled: ReadonlySet<number>
  /** By part of a path, in small letters: the mods that bring such a file; those not asked for yet are missing. */
  holding: ReadonlyMap<string, ReadonlySet<number>>
}

/** Phrases without anything behind them, the longest first. */
const PLAIN = [
  'adds nothing',
  'needs attention',
  'holds back files',
  'has plugin',
  'kept here',
  'contested',
  'patch',
  'off',
  'on',
] as const

const UNITS: Record<string, number> = { b: 1, kib: 1024, mib: 1024 ** 2, gib: 1024 ** 3 }

interface Token {
  text: string
  quoted: boolean
}

function tokens(text: string): Token[] {
  const found: Token[] = []
  for (const m of text.matchAll(/"([^"]*)"?|([()])|([^\s()"]+)/g)) {
    if (m[1] !== undefined) found.push({ text: m[1], quoted: true })
    else found.push({ text: (m[2] ?? m[3]) as string, quoted: false })
  }
  return found
}

/**
 * Reads a filter as it is typed: “on and (tag is ui or has plugin) and not contested”. Criteria side by side
 * must all hold; a word that is none is looked for in the name. What is not finished yet counts as far as it goes.
 * Nothing typed gives null.
 */
export function parseFilter(text: string): Filter | null {
  const all = tokens(text)
  let at = 0
  const word = (i = 0) => {
    const t = all[at + i]
    return t && !t.quoted ? t.text.toLowerCase() : undefined
  }
  const or = (): Filter | null => {
    const parts: Filter[] = []
    do {
      const part = and()
      if (part) parts.push(part)
    } while (word() === 'or' && ++at)
    return joined('or', parts)
  }
  const and = (): Filter | null => {
    const parts: Filter[] = []
    while (at < all.length && word() !== 'or' && word() !== ')') {
      if (word() === 'and') {
        at++
        continue
      }
      const part = not()
      if (part) parts.push(part)
    }
    return joined('and', parts)
  }
  const not = (): Filter | null => {
    if (word() === 'not') {
      at++
      const part = at < all.length ? not() : null
      return part && { kind: 'not', part }
    }
    if (word() === '(') {
      at++
      const inner = or()
      if (word() === ')') at++
      return inner
    }
    return { kind: 'is', criterion: criterion() }
  }
  const criterion = (): Criterion => {
    for (const phrase of PLAIN) {
      const words = phrase.split(' ')
      if (words.every((w, i) => word(i) === w)) {
        at += words.length
        return { is: phrase }
      }
    }
    const behind = all[at + 2]
    if ((word() === 'tag' || word() === 'section') && word(1) === 'is' && behind) {
      const is = word() as 'tag' | 'section'
      at += 3
      return { is, text: behind.text }
    }
    if ((word() === 'name' || word() === 'file') && word(1) === 'has' && behind) {
      const is = word() as 'name' | 'file'
      at += 3
      return { is, text: behind.text }
    }
    if (word() === 'since' && /^\d{4}-\d\d-\d\d$/.test(word(1) ?? '')) {
      at += 2
      return { is: 'since', text: all[at - 1]?.text as string }
    }
    const amount = Number(word(2))
    if (word() === 'size' && (word(1) === 'over' || word(1) === 'under') && amount >= 0) {
      const unit = UNITS[word(3) ?? '']
      const is = `size ${word(1)}` as 'size over' | 'size under'
      at += unit ? 4 : 3
      return { is, bytes: amount * (unit ?? UNITS.mib ?? 1) }
    }
    if (word() === 'files' && word(1) === 'over' && amount >= 0) {
      at += 3
      return { is: 'files over', files: amount }
    }
    return { is: 'name', text: all[at++]?.text ?? '' }
  }
  let whole: Filter | null = null
  while (at < all.length) {
    const part = or()
    if (part) whole = whole ? joined('and', [whole, part]) : part
    // a bracket that was never opened
    if (word() === ')') at++
  }
  return whole
}

/** Some filters as one; one alone is itself. */
export function joined(kind: 'and' | 'or', parts: readonly Filter[]): Filter | null {
  if (parts.length < 2) return parts[0] ?? null
  return { kind, parts: parts.flatMap((p) => (p.kind === kind ? p.parts : [p])) }
}

/** The filter as it could be typed. */
export function filterText(f: Filter): string {
  if (f.kind === 'is') return criterionText(f.criterion)
  if (f.kind === 'not') return `not ${f.part.kind === 'is' ? filterText(f.part) : `(${filterText(f.part)})`}`
  return f.parts
    .map((p) => (p.kind === 'or' || p.kind === 'and' ? `(${filterText(p)})` : filterText(p)))
    .join(` ${f.kind} `)
}

function criterionText(c: Criterion): string {
  switch (c.is) {
    case 'name':
      return /^[^\s()"]+$/.test(c.text) && !isKeyword(c.text) ? c.text : `"${c.text}"`
    case 'tag':
    case 'section':
      return `${c.is} is ${quoted(c.text)}`
    case 'file':
      return `file has ${quoted(c.text)}`
    case 'since':
      return `since ${c.text}`
    case 'size over':
    case 'size under':
      return `${c.is} ${bytes(c.bytes)}`
    case 'files over':
      return `files over ${c.files}`
    default:
      return c.is
  }
}

function isKeyword(text: string): boolean {
  const lower = text.toLowerCase()
  return ['and', 'or', 'not'].includes(lower) || PLAIN.some((p) => p === lower)
}

function quoted(text: string): string {
  return /^[^\s()"]+$/.test(text) ? text : `"${text}"`
}

/** Whether a layer passes. */
export function passes(f: Filter, l: Layer, facts: Facts): boolean {
  if (f.kind === 'not') return !passes(f.part, l, facts)
  if (f.kind !== 'is') {
    const one = (p: Filter) => passes(p, l, facts)
    return f.kind === 'and' ? f.parts.every(one) : f.parts.some(one)
  }
  const c = f.criterion
  const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
  switch (c.is) {
    case 'on':
      return l.on
    case 'off':
      return !l.on
    case 'contested':
      return l.contested > 0
    case 'adds nothing':
      return addsNothing(l)
    case 'needs attention':
      return facts.wrinkled.has(l.mod)
    case 'holds back files':
      return l.heldBack > 0
    case 'has plugin':
      return l.plugins.length > 0
    case 'kept here':
      return l.kept
    case 'patch':
      return l.kind !== 'archive'
    case 'name':
      return l.name.toLowerCase().includes(c.text.toLowerCase())
    case 'tag':
      return l.tags.some((t) => same(t, c.text))
    case 'section':
      return same(facts.sectionOf.get(l.section) ?? '', c.text)
    case 'file':
      return facts.holding.get(c.text.toLowerCase())?.has(l.mod) ?? false
    case 'since':
      return l.broughtAt >= c.text
    case 'size over':
      return l.sizeBytes > c.bytes
    case 'size under':
      return l.sizeBytes < c.bytes
    case 'files over':
      return l.files > c.files
  }
}

/** Whether a layer is on and nothing of it reaches the game. */
export function addsNothing(l: Layer): boolean {
  return l.on && l.bar.inPlay + l.bar.covering + l.bar.contributing === 0 && l.bar.covered + l.bar.twin > 0
}

/** The parts of paths that a filter looks for, in small letters. */
export function filesAsked(f: Filter | null): string[] {
  if (!f) return []
  if (f.kind === 'is') return f.criterion.is === 'file' ? [f.criterion.text.toLowerCase()] : []
  return f.kind === 'not' ? filesAsked(f.part) : f.parts.flatMap(filesAsked)
}
