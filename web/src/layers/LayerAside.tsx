import { useState } from 'react'
import { Link } from 'react-router'
import type { Schema } from '../api/client'
import { NeedsList } from '../library/NeedsList'
import { useMod } from '../library/queries'
import { PathRow } from '../overlaps/PathRow'
import { Aside, AsidePart } from '../ui/Aside'
import { HowFar, modDetail } from '../ui/HowFar'
import { count, number } from '../ui/text'
import { PairNotes } from './PairNotes'
import { useModPaths, useRelations } from './queries'

interface LayerAsideProps {
  workspace: number
  view: Schema['LayersView']
  mod: number | null
  onSelect: (id: string) => void
}

/** About the selected layer: what of it reaches the game, whom it covers, who covers it, path by path. */
export function LayerAside({ workspace, view, mod, onSelect }: LayerAsideProps) {
  const layer = view.layers.find((l) => l.mod === mod)
  if (mod === null || (mod !== 0 && !layer)) {
    return (
      <Aside label="About layers">
        <h2>Order is height</h2>
        <p className="mt-1.5 text-ink-2">
          Each mod is a layer; the game lies at the bottom, and what lies higher covers (overwrites) what lies
          lower.
        </p>
        <p className="mt-2 text-ink-2">
          Choose a layer to see whom it covers and who covers it. Drag it, or press Space and carry it with
          the arrows, and read what would change before you let go.
        </p>
      </Aside>
    )
  }
  return (
    <Aside label={layer?.name ?? view.game.title}>
      <h2 className="break-words">{layer?.name ?? view.game.title}</h2>
      <p className="mt-0.5 text-ink-2">
        {layer
          ? `${layer.version && `${layer.version} · `}${count(layer.files, 'file')} · ${count(layer.plugins.length, 'plugin')} · layer ${layer.position}`
          : `${view.game.version && `${view.game.version} · `}${count(view.game.files, 'file')} · layer 0`}
      </p>
      {layer && (
        <p className="mt-1.5">
          <HowFar reached={layer.journey.reached} detail={modDetail(layer.journey)} withWords />
        </p>
      )}
      <Relations workspace={workspace} layer={layer ?? null} mod={mod} onSelect={onSelect} />
      {layer && <Needs workspace={workspace} mod={mod} />}
      {layer && <PairNotes key={mod} workspace={workspace} view={view} mod={mod} />}
      {layer && (
        <p className="mt-4">
          <Link to={`/workspaces/${workspace}/library/${mod}`} className="text-woad underline">
            Open in the library
          </Link>
        </p>
      )}
    </Aside>
  )
}

function Relations({
  workspace,
  layer,
  mod,
  onSelect,
}: {
  workspace: number
  layer: Schema['LayerView'] | null
  mod: number
  onSelect: (id: string) => void
}) {
  const relations = useRelations(workspace, mod).data
  const [other, setOther] = useState<number | null>(null)
  const [shownFor, setShownFor] = useState(mod)
  if (shownFor !== mod) {
    setShownFor(mod)
    setOther(null)
  }
  if (!relations || relations.mod !== mod) return null
  if (layer && !layer.on)
    return <p className="mt-2.5 text-[13.5px] leading-snug">Switched off: nothing of it reaches the game.</p>
  const all = [...relations.covers, ...relations.coveredBy]
  return (
    <>
      <p className="mt-2.5 text-[13.5px] leading-snug">{leadWords(relations)}</p>
      <RelatedList
        title="It covers (overwrites)"
        items={relations.covers}
        other={other}
        onOther={setOther}
        onSelect={onSelect}
      />
      <RelatedList
        title="Covered (overwritten) by"
        items={relations.coveredBy}
        other={other}
        onOther={setOther}
        onSelect={onSelect}
      />
      {all.length > 0 && (
        <Paths workspace={workspace} mod={mod} other={other} name={all.find((r) => r.mod === other)?.name} />
      )}
    </>
  )
}

function leadWords(r: Schema['RelationsView']): string {
  const total = r.bar.inPlay + r.bar.covering + r.bar.contributing + r.bar.covered + r.bar.twin
  const sentences = [
    `${number(r.reach)} of its ${count(total, 'file')} ${r.reach === 1 ? 'reaches' : 'reach'} the game.`,
  ]
  if (r.bar.covering > 0)
    sentences.push(
      `${number(r.bar.covering)} of them ${r.bar.covering === 1 ? 'covers' : 'cover'} another’s.`,
    )
  if (r.bar.contributing > 0)
    sentences.push(
      `${number(r.bar.contributing)} more ${r.bar.contributing === 1 ? 'is' : 'are'} in a combined file.`,
    )
  if (r.bar.covered > 0)
    sentences.push(`${number(r.bar.covered)} ${r.bar.covered === 1 ? 'is' : 'are'} covered.`)
  if (r.bar.twin > 0) {
    sentences.push(
      `${number(r.bar.twin)} more ${r.bar.twin === 1 ? 'has' : 'have'} the same content as the one in play, so nothing is lost.`,
    )
  }
  return sentences.join(' ')
}

interface RelatedListProps {
  title: string
  items: readonly Schema['Related'][]
  other: number | null
  onOther: (mod: number | null) => void
  onSelect: (id: string) => void
}

function RelatedList({ title, items, other, onOther, onSelect }: RelatedListProps) {
  if (items.length === 0) return null
  return (
    <AsidePart title={title}>
      <ul>
        {items.map((r) => (
          <li key={r.mod} className="flex items-baseline gap-2 py-0.5">
            <button
              type="button"
              onClick={() => onSelect(String(r.mod))}
              className="min-h-6 min-w-0 flex-1 truncate text-left font-medium hover:underline"
            >
              {r.name}
            </button>
            <button
              type="button"
              aria-pressed={other === r.mod}
              title="Show only the paths of these two"
              aria-label={`${count(r.paths, 'path')} of these two: show only them`}
              onClick={() => onOther(other === r.mod ? null : r.mod)}
              className="num min-h-6 min-w-6 rounded px-1.5 text-ink-2 hover:bg-sunk aria-pressed:bg-woad-soft aria-pressed:text-woad"
            >
              {number(r.paths)}
            </button>
          </li>
        ))}
      </ul>
    </AsidePart>
  )
}

function Paths({
  workspace,
  mod,
  other,
  name,
}: {
  workspace: number
  mod: number
  other: number | null
  name: string | undefined
}) {
  const paths = useModPaths(workspace, mod, other).data
  if (!paths) return null
  return (
    <AsidePart
      title={`${number(paths.total)} contested ${paths.total === 1 ? 'path' : 'paths'}${name ? ` with ${name}` : ''}, and whose file is in play`}
    >
      <ul>
        {paths.paths.map((p) => (
          <PathRow key={p.path} path={p} mod={mod} />
        ))}
      </ul>
      {paths.total > paths.paths.length && (
        <p className="mt-1.5 text-ink-2">
          The first {number(paths.paths.length)}.{' '}
          <Link
            to={`/workspaces/${workspace}/overlaps?show=list&mod=${mod}${other === null ? '' : `&mod=${other}`}`}
            className="text-woad underline"
          >
            All are in Overlaps.
          </Link>
        </p>
      )}
    </AsidePart>
  )
}

function Needs({ workspace, mod }: { workspace: number; mod: number }) {
  // what it needs, and none of its files
  const detail = useMod(workspace, mod, 1).data
  if (!detail) return null
  return <NeedsList detail={detail} />
}
