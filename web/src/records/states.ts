import type { RecordState } from './queries'

/** What the states of a record are called. */
export const STATES: Record<RecordState, { word: string; short: string; about: string }> = {
  NEEDS_YOU: {
    word: 'needs a decision',
    short: 'to decide',
    about: 'Changed in different ways: you must say which counts.',
  },
  COMBINES: {
    word: 'combines without a question',
    short: 'combines',
    about: 'The changes go together, and the game does not read all of them yet: a patch holds the outcome.',
  },
  SETTLED: { word: 'settled', short: 'settled', about: 'Several change it, and the game reads all of it.' },
  ONE_CHANGES: {
    word: 'only one changes it',
    short: 'one changes it',
    about: 'One plugin changes it, and the game reads that.',
  },
  SAME: { word: 'same in all', short: 'same in all', about: 'Plugins have it, and none changes anything.' },
  ODD: {
    word: 'does not fit together',
    short: 'does not fit',
    about:
      'Its owner lacks it, or its versions are of several types: the game reads the last one, and nothing combines it.',
  },
}

export const ALL_STATES = Object.keys(STATES) as RecordState[]
