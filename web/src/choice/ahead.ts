import type { Schema } from '../api/client'
import { count, number } from '../ui/text'

type Ahead = Schema['AheadView']

/** What a choice would do, in a line; empty where it would do nothing. */
export function aheadWords(a: Ahead): string {
  const parts = [
    a.filesNew > 0 && `${count(a.filesNew, 'file')} new`,
    a.filesGone > 0 && `${count(a.filesGone, 'file')} gone`,
    a.filesOther > 0 && `${count(a.filesOther, 'file')} different`,
    a.pluginsAfter !== a.pluginsBefore &&
      `${number(a.pluginsAfter)} plugins in place of ${number(a.pluginsBefore)}`,
    a.difference.loadOrderChanges && 'another load order',
    a.recordsInAll > 0 && `${count(a.recordsInAll, 'record')} different`,
    a.wrinklesNew.length > 0 && count(a.wrinklesNew.length, 'new wrinkle'),
    a.wrinklesGone.length > 0 && `${count(a.wrinklesGone.length, 'wrinkle')} gone`,
  ]
  return parts.filter(Boolean).join(', ')
}

const BECOMES: Record<Ahead['records'][number]['becomes'], string> = {
  NEW: 'new',
  OTHER: 'different',
  GONE: 'gone',
}

/** What becomes of a record. */
export function recordWords(becomes: Ahead['records'][number]['becomes']): string {
  return BECOMES[becomes]
}
