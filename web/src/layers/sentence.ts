import type { Schema } from '../api/client'
import { count, list, number } from '../ui/text'

type Difference = Schema['DifferenceView']
type From = Schema['From']

/**
 * What a change of the install order does to the game, in one sentence or two.
 *
 * @param tense would: it is only asked; does: it was done
 */
export function differenceWords(d: Difference, tense: 'would' | 'does'): string {
  const sentences: string[] = []
  if (d.files > 0) {
    const change = tense === 'would' ? 'would change' : d.files === 1 ? 'changes' : 'change'
    sentences.push(`${count(d.files, 'file')} in the game ${change}: ${sourceWords(d.sources, tense)}.`)
  }
  if (d.pluginsCome.length > 0) {
    sentences.push(`${plugins(d.pluginsCome)} ${verb(tense, d.pluginsCome, 'join', 'joins')} the load order.`)
  }
  if (d.pluginsGo.length > 0) {
    sentences.push(`${plugins(d.pluginsGo)} ${verb(tense, d.pluginsGo, 'leave', 'leaves')} it.`)
  }
  if (d.loadOrderChanges) sentences.push('The load order changes with it.')
  else if (d.files > 0 && d.pluginsCome.length + d.pluginsGo.length === 0) sentences.push('No plugin moves.')
  return sentences.length > 0 ? sentences.join(' ') : 'Nothing in the game changes.'
}

function verb(tense: 'would' | 'does', names: readonly string[], many: string, one: string): string {
  if (tense === 'would') return `would ${many}`
  return names.length === 1 ? one : many
}

function plugins(names: readonly string[]): string {
  return names.length > 3 ? count(names.length, 'plugin') : list(names)
}

function sourceWords(sources: readonly From[], tense: 'would' | 'does'): string {
  const words = sources.slice(0, 3).map((s) => {
    const what = folderWords(s)
    if (s.mod === undefined)
      return `${what} ${tense === 'would' ? 'would be gone' : s.files === 1 ? 'is gone' : 'are gone'}`
    const come = tense === 'would' ? 'would come' : s.files === 1 ? 'comes' : 'come'
    return `${what} ${come} from ${s.name}`
  })
  const more = sources.slice(3).reduce((sum, s) => sum + s.files, 0)
  if (more > 0) words.push(`${number(more)} from others`)
  return list(words)
}

/** “17 in tables and 2 in textures/quay”; one folder, or too many, go without. */
function folderWords(s: From): string {
  const folders = Object.entries(s.folders).sort((a, b) => b[1] - a[1])
  if (folders.length === 1) return `${number(s.files)} in ${folders[0]?.[0]}`
  if (folders.length > 3) return number(s.files)
  return list(folders.map(([folder, n]) => `${number(n)} in ${folder}`))
}
