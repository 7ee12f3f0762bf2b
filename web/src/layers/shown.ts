import { useCallback, useState } from 'react'
import type { SavedView } from './FilterBar'
import { COLUMNS, type Column, FIRST_COLUMNS, SORTS, type Sort } from './rows'

/** How the user likes the list shown in this browser; the order and the game know nothing of it. */
export interface Shown {
  filter: string
  sort: Sort
  columns: readonly Column[]
  folded: readonly number[]
  /** Whether the stack is turned over: the game on top, and the last line covers all above it. */
  turned: boolean
  views: readonly SavedView[]
}

const FIRST: Shown = {
  filter: '',
  sort: 'order',
  columns: FIRST_COLUMNS,
  folded: [],
  turned: false,
  views: [],
}

function read(workspace: number): Shown {
  try {
    const kept = JSON.parse(localStorage.getItem(`layers ${workspace}`) ?? '{}') as Partial<Shown>
    return {
      ...FIRST,
      ...kept,
      sort: kept.sort && kept.sort in SORTS ? kept.sort : 'order',
      columns: (kept.columns ?? FIRST_COLUMNS).filter((c) => c in COLUMNS),
    }
  } catch {
    return FIRST
  }
}

/** Kept across visits, one for each workspace. */
export function useShown(workspace: number): [Shown, (change: Partial<Shown>) => void] {
  const [shown, setShown] = useState(() => read(workspace))
  const change = useCallback(
    (c: Partial<Shown>) =>
      setShown((now) => {
        const next = { ...now, ...c }
        localStorage.setItem(`layers ${workspace}`, JSON.stringify(next))
        return next
      }),
    [workspace],
  )
  return [shown, change]
}
