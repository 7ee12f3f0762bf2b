import type { Schema } from '../api/client'

type Wrinkle = Schema['Wrinkle']

/** So many alike are listed one by one. */
const FEW = 2

/** Wrinkles of one kind that are mended in one way, in the order in which they came. */
export interface Group {
  key: string
  first: Wrinkle
  /** What is shown at once, the first among them. */
  shown: Wrinkle[]
  /** What is shown when it is asked for. */
  more: Wrinkle[]
}

/** Alike wrinkles together, at the place of the first of them. */
export function grouped(all: readonly Wrinkle[]): Group[] {
  const groups = new Map<string, Wrinkle[]>()
  for (const w of all) {
    const key = [w.weight, w.code, w.place, w.fix?.kind ?? ''].join(' ')
    const group = groups.get(key)
    if (group) group.push(w)
    else groups.set(key, [w])
  }
  return [...groups].flatMap(([key, of]) => {
    const [first] = of
    if (!first) return []
    const few = of.length <= FEW
    return [{ key, first, shown: few ? of : [first], more: few ? [] : of.slice(1) }]
  })
}
