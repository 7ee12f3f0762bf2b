import { type ReactNode, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { copyAct, useCopy } from '../ui/copy'
import type { MenuAct } from '../ui/Menu'
import { PlaceDialog } from './acts/PlaceDialog'
import { RenameDialog } from './acts/RenameDialog'
import { RuleDialog } from './acts/RuleDialog'
import { SectionDialog } from './acts/SectionDialog'
import type { LayerChange } from './queries'

interface Asking {
  what: 'place' | 'section' | 'rename' | 'rule'
  /** From the lowest. */
  mods: readonly number[]
}

export interface LayerActs {
  /** What can be done with some layers. */
  of: (mods: readonly number[]) => readonly MenuAct[]
  /** Asks where some layers are to go. */
  askPlace: (mods: readonly number[]) => void
  /** What is asked just now. */
  dialog: ReactNode
}

/** All that can be done with layers; the bar below the list and the menu of a row offer the same. */
export function useLayerActs(
  workspace: number,
  view: Schema['LayersView'] | undefined,
  onChange: (change: LayerChange) => void,
): LayerActs {
  const [asking, setAsking] = useState<Asking | null>(null)
  const go = useNavigate()
  const copy = useCopy()
  const of = (wanted: readonly number[]): readonly MenuAct[] => {
    const layers = view?.layers.filter((l) => wanted.includes(l.mod)) ?? []
    const mods = layers.map((l) => l.mod)
    const first = layers[0]
    if (!view || !first) return []
    const many = layers.length > 1
    const section = layers.every((l) => l.section === first.section) ? first.section : 0
    const whole = section !== 0 && view.layers.filter((l) => l.section === section).length === layers.length
    const named = view.sections.find((s) => s.id === section)
    const top = view.layers.length - layers.length + 1
    const move = (to: number) => () => onChange({ kind: 'move', mods, to })
    const ask = (what: Asking['what']) => () => setAsking({ what, mods })
    const turn = (on: boolean) => ({
      label: on ? 'Switch on' : 'Switch off',
      run: () => onChange({ kind: 'switch', mods, on }),
    })
    return [
      ...(layers.some((l) => !l.on) ? [turn(true)] : []),
      ...(layers.some((l) => l.on) ? [turn(false)] : []),
      null,
      { label: 'To the top', run: move(top) },
      { label: 'To the bottom', run: move(1) },
      { label: 'To a place …', run: ask('place') },
      null,
      { label: many ? 'Make a section of them …' : 'Put into a section …', run: ask('section') },
      ...(named
        ? [{ label: `Take out of “${named.name}”`, run: () => onChange({ kind: 'leave', mods }) }]
        : []),
      ...(named && (whole || !many)
        ? [
            { label: `Rename “${named.name}” …`, run: ask('rename') },
            {
              label: `Dissolve “${named.name}”`,
              run: () => onChange({ kind: 'dissolve', section: named.id, name: named.name }),
            },
          ]
        : []),
      null,
      layers.every((l) => l.kept)
        ? { label: 'No longer keep here', run: () => onChange({ kind: 'keep', mods, kept: false }) }
        : { label: 'Keep here', run: () => onChange({ kind: 'keep', mods, kept: true }) },
      ...(many
        ? [{ label: 'Copy their names', run: () => copy(layers.map((l) => l.name).join('\n')) }]
        : [
            { label: 'Make a rule …', run: ask('rule') },
            null,
            { label: 'Open the mod', run: () => go(`/workspaces/${workspace}/library/${first.mod}/about`) },
            {
              label: 'Its overlaps',
              run: () => go(`/workspaces/${workspace}/overlaps?show=list&mod=${first.mod}`),
            },
            copyAct(copy, 'its name', first.name),
          ]),
    ]
  }
  return {
    of,
    askPlace: (mods) => setAsking({ what: 'place', mods }),
    dialog: asking && view && (
      <Asked
        workspace={workspace}
        view={view}
        asking={asking}
        onChange={onChange}
        onClose={() => setAsking(null)}
      />
    ),
  }
}

function Asked({
  asking: { what, mods },
  ...props
}: {
  workspace: number
  view: Schema['LayersView']
  asking: Asking
  onChange: (change: LayerChange) => void
  onClose: () => void
}) {
  const { view, onChange, onClose } = props
  const first = view.layers.find((l) => mods.includes(l.mod))
  const section = view.sections.find((s) => s.id === first?.section)
  if (!first) return null
  switch (what) {
    case 'place':
      return <PlaceDialog {...props} mods={mods} />
    case 'section':
      return <SectionDialog {...props} mods={mods} />
    case 'rule':
      return <RuleDialog view={view} mod={first} onClose={onClose} onChange={onChange} />
    case 'rename':
      return (
        section && (
          <RenameDialog
            name={section.name}
            onClose={onClose}
            onName={(name) => onChange({ kind: 'rename', section: section.id, name })}
          />
        )
      )
  }
}
