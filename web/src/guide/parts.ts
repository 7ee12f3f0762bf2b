/** A part of the guide, as it lies under one heading. */
export interface Part {
  /** As an address has it. */
  id: string
  title: string
  /** Markdown, without the heading. */
  text: string
}

/** The guide in its parts, the words before the first heading aside. */
export function partsOf(guide: string): Part[] {
  return guide
    .split(/^## /m)
    .slice(1)
    .map((piece) => {
      const end = piece.indexOf('\n')
      const title = piece.slice(0, end).trim()
      return { id: idOf(title), title, text: withoutFiles(piece.slice(end + 1).trim()) }
    })
}

function idOf(title: string): string {
  return title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
}

/** Files beside the guide cannot be opened from the page: they are named instead. */
function withoutFiles(text: string): string {
  return text.replace(/\[([^\]]*)\]\((?!https?:|#)([^)]*)\)/g, '$1 (`docs/$2`)')
}

/** By the beginning of the path of a screen below its workspace, the longest first: the part that is about it. */
const OF_SCREENS: readonly [path: string, part: string][] = [
  ['library/inbox', 'library'],
  ['library', 'library'],
  ['layers', 'layers'],
  ['overlaps', 'overlaps'],
  ['load-order', 'load-order'],
  ['records', 'records'],
  ['mends', 'mends'],
  ['deploy', 'deploy'],
  ['tools', 'tools'],
  ['test-run', 'test-run'],
  ['trouble', 'trouble'],
  ['profiles', 'profiles'],
  ['timeline', 'timeline'],
  ['definition', 'workspaces'],
  ['', 'wrinkles'],
]

/**
 * The part of the guide that is about a screen.
 *
 * @param pathname of its address
 */
export function partFor(pathname: string): string {
  const screen = pathname.replace(/^\/workspaces\/\d+\/?/, '')
  return (OF_SCREENS.find(([path]) => screen === path || screen.startsWith(`${path}/`)) ?? ['', 'words'])[1]
}
