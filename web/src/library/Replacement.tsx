import { type ReactNode, useId } from 'react'
import type { Schema } from '../api/client'
import { differenceWords } from '../layers/sentence'
import { AsidePart } from '../ui/Aside'
import { PathText } from '../ui/PathText'
import { count, list, number } from '../ui/text'

type Replacement = Schema['Replacement']

/** What another version in a mod's place would change: files, collisions, masters of plugins. */
export function ReplacementPart({ replacement: r }: { replacement: Replacement }) {
  return (
    <AsidePart title={`In the place of ${r.version || 'the version that is here'}`}>
      {r.game && <p className="mb-1.5">{differenceWords(r.game, 'would')}</p>}
      <Paths words="new" paths={r.added} />
      <Paths words="gone" paths={r.gone} />
      <Paths words="different" paths={r.different} />
      {r.added.total + r.gone.total + r.different.total === 0 && (
        <p className="text-ink-2">The same files with the same content.</p>
      )}
      {r.collisionsNew.length > 0 && <p className="mt-1.5">Meets {sharers(r.collisionsNew)}.</p>}
      {r.collisionsGone.length > 0 && (
        <p className="mt-1.5 text-ink-2">No longer meets {sharers(r.collisionsGone)}.</p>
      )}
      {r.plugins.map((p) => (
        <p key={p.name} className="mt-1.5">
          <b className="font-medium">{p.name}</b> {masterWords(p)}
        </p>
      ))}
    </AsidePart>
  )
}

function sharers(collisions: readonly Schema['Collision'][]): string {
  return list(collisions.slice(0, 4).map((c) => `${c.name} in ${count(c.paths, 'path')}`))
}

function masterWords(p: Schema['PluginChange']): string {
  if (!p.before) return p.after?.length ? `comes, with ${list(p.after)} as its masters.` : 'comes.'
  if (!p.after) return 'goes.'
  return `needs ${list(p.after) || 'no master'} from now on; it needed ${list(p.before) || 'none'}.`
}

function Paths({ words, paths }: { words: string; paths: Schema['Paths'] }): ReactNode {
  const id = useId()
  if (paths.total === 0) return null
  return (
    <details className="group">
      <summary className="cursor-pointer" aria-describedby={id}>
        {count(paths.total, 'file')} {words}
      </summary>
      <ul id={id} className="max-h-40 overflow-y-auto pl-3.5">
        {paths.first.map((p) => (
          <li key={p}>
            <PathText path={p} most={40} />
          </li>
        ))}
        {paths.total > paths.first.length && (
          <li className="text-ink-2">and {number(paths.total - paths.first.length)} more</li>
        )}
      </ul>
    </details>
  )
}
