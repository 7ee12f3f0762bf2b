import { expect, test } from 'vitest'
import { compact } from './compact'

const names = Array.from({ length: 100 }, (_, i) => `P${i}`)

test('a short list, and one that is asked for, is shown whole', () => {
  expect(compact(names.slice(0, 60), new Set(), false)).toHaveLength(60)
  expect(compact(names, new Set(), true)).toHaveLength(100)
})

test('what is of interest is shown with its neighbours, the rest as stretches', () => {
  const rows = compact(names, new Set(['P0', 'P50', 'P53']), false)
  const words = rows.map((r) => ('gap' in r ? `${r.gap} more` : r.name))
  expect(words).toEqual(['P0', 'P1', '47 more', 'P49', 'P50', 'P51', 'P52', 'P53', 'P54', '45 more'])
})
