/**
 * A definition of a game that is nothing but files: mods go into its folder.
 *
 * @param folder of the game, whose name the game is called by
 */
export function plainDefinition(folder: string): string {
  const name = folder
    .trim()
    .replace(/[/\\]+$/, '')
    .split(/[/\\]/)
    .at(-1)
  return PLAIN(quoted(name || 'My game'))
}

/** A text as YAML takes it for one, whatever is in it. */
function quoted(text: string): string {
  return /^[\p{L}\p{N}][\p{L}\p{N} ._-]*$/u.test(text) && !/^[\d.]+$|^(true|false|null|yes|no)$/i.test(text)
    ? text
    : JSON.stringify(text)
}

const PLAIN = (title: string) => `format: ironing/game@1
id: plain-files
title: ${title}
mounts:
  # mods go into the folder itself
  - { id: all, at: ".", holds: [ "**" ] }
`
