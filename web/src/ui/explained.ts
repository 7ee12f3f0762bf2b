/** What the names of columns mean, said where they stand: on pointing, and to a reader. */
export const EXPLAINED = {
  far: 'How far it has come: in the library, switched on, in the game folder, read by the game.',
  stage: 'The plugin names its stage itself. The game loads stage after stage, and no move goes past that.',
  overrides: 'Records of other plugins that it changes too.',
  bar: 'What of its files the game sees: in play, covering (overwriting) another, covered (overwritten), or of the same content as the one in play.',
  contested: 'Files that other layers have too.',
  fitted: 'How many versions and fittings of it are here, where there are several.',
} as const
