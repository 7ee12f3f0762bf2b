/** How a file can best be shown. */
export type Kind = 'image' | 'table' | 'markdown' | 'plugin' | 'text'

/** The letters behind the last point of a name. */
export const ending = (path: string) => path.slice(path.lastIndexOf('.') + 1).toLowerCase()

/** How a file is shown, by its name. */
export function kindOf(path: string, plugins: readonly string[]): Kind {
  const name = path.slice(path.lastIndexOf('/') + 1)
  if (plugins.includes(name)) return 'plugin'
  const end = ending(path)
  if (['png', 'jpg', 'jpeg', 'gif', 'webp', 'bmp', 'svg'].includes(end)) return 'image'
  if (end === 'csv' || end === 'tsv') return 'table'
  return end === 'md' || end === 'markdown' ? 'markdown' : 'text'
}
