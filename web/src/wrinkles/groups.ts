import type { Schema } from '../api/client'

type Wrinkle = Schema['Wrinkle']

/** So many that one remedy mends are listed one by one. */
const FEW = 2

/** Wrinkles of one weight that one remedy mends, in the order in which they came. */
export interface Group {
  key: string
  first: Wrinkle
  all: readonly Wrinkle[]
  /** What is shown at once, the first among them. */
  shown: readonly Wrinkle[]
  /** What is shown when it is asked for. */
  more: readonly Wrinkle[]
}

/**
 * Wrinkles by what mends them, each group at the place of the first of it. Where no act mends a kind of wrinkles,
 * those of one code stand together.
 */
export function grouped(all: readonly Wrinkle[]): Group[] {
  const groups = new Map<string, Wrinkle[]>()
  for (const w of all) {
    const key = w.fix ? `${w.weight} ${w.fix.kind}` : [w.weight, w.code, w.place].join(' ')
    const group = groups.get(key)
    if (group) group.push(w)
    else groups.set(key, [w])
  }
  return [...groups].flatMap(([key, of]) => {
    const [first] = of
    if (!first) return []
    const few = of.length <= FEW
    return [{ key, first, all: of, shown: few ? of : [first], more: few ? [] : of.slice(1) }]
  })
}
