import { expect, test } from 'vitest'
import type { Schema } from '../api/client'
import { aheadWords } from './ahead'

const NOTHING: Schema['AheadView'] = {
  difference: {
    revision: 1,
    files: 0,
    sources: [],
    samples: [],
    pluginsCome: [],
    pluginsGo: [],
    loadOrderChanges: false,
  },
  filesNew: 0,
  filesGone: 0,
  filesOther: 0,
  meetingsInAll: 0,
  meetings: [],
  recordsInAll: 0,
  records: [],
  decisions: [],
  wrinklesNew: [],
  wrinklesGone: [],
  pluginsBefore: 4,
  pluginsAfter: 4,
}

test('what a choice would do is told in a line', () => {
  expect(aheadWords(NOTHING)).toBe('')
  expect(aheadWords({ ...NOTHING, filesNew: 1, filesOther: 3, pluginsAfter: 5, recordsInAll: 1_200 })).toBe(
    '1 file new, 3 files different, 5 plugins in place of 4, 1,200 records different',
  )
})
