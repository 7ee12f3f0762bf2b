import type { ListRow } from './rows'

/**
 * Where a key leads in a list; undefined for a key that leads nowhere. It may lie outside the list.
 *
 * @param at the row that has the focus
 * @param page how many rows are seen at once
 */
export function stepOf(key: string, at: number, rows: number, page: number): number | undefined {
  switch (key) {
    case 'ArrowDown':
      return at + 1
    case 'ArrowUp':
      return at - 1
    case 'PageDown':
      return at + page
    case 'PageUp':
      return at - page
    case 'Home':
      return 0
    case 'End':
      return rows - 1
  }
}

/** How long typing counts as one word, in milliseconds. */
const ONE_WORD_MS = 900

/** What is typed into a list, letter by letter. */
export interface Typed {
  text: string
  at: number
}

/**
 * The row that typing leads to, and what is typed by now.
 *
 * @param at the row that has the focus
 * @returns -1 where no row begins like that
 */
export function found(
  rows: readonly ListRow[],
  at: number,
  before: Typed,
  letter: string,
  now: number,
): { index: number; typed: Typed } {
  const text = (now - before.at < ONE_WORD_MS ? before.text : '') + letter.toLowerCase()
  const typed = { text, at: now }
  // one letter again goes on to the next that begins with it
  const from = text.length === 1 ? at + 1 : Math.max(0, at)
  for (let i = 0; i < rows.length; i++) {
    const index = (from + i) % rows.length
    if (rows[index]?.label.toLowerCase().startsWith(text)) return { index, typed }
  }
  return { index: -1, typed }
}
