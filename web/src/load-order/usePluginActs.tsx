import { type ReactNode, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { copyAct, useCopy } from '../ui/copy'
import type { MenuAct } from '../ui/Menu'
import { PlaceDialog } from './PlaceDialog'
import type { LoadChange } from './queries'

type Plugin = Schema['PluginView']

export interface PluginActs {
  /** What can be done with some plugins; nothing with the game's own. */
  of: (plugins: readonly Plugin[]) => readonly MenuAct[]
  /** Asks where some plugins are to go. */
  askPlace: (names: readonly string[]) => void
  /** What is asked just now. */
  dialog: ReactNode
}

/** All that can be done with plugins; the bar below the list and the menu of a row offer the same. */
export function usePluginActs(
  workspace: number,
  view: Schema['LoadOrderView'] | undefined,
  onChange: (change: LoadChange) => void,
): PluginActs {
  const [asked, setAsked] = useState<readonly string[] | null>(null)
  const go = useNavigate()
  const copy = useCopy()
  const of = (wanted: readonly Plugin[]): readonly MenuAct[] => {
    const [only] = wanted
    const plugins = wanted.filter((p) => !p.own)
    const names = plugins.map((p) => p.name)
    const one = wanted.length === 1 && only
    const turn = (on: boolean) => ({
      label: on ? 'Switch on' : 'Switch off',
      run: () => onChange({ kind: 'switch', names, on }),
    })
    const changes: readonly MenuAct[] =
      plugins.length === 0
        ? []
        : [
            ...(plugins.some((p) => !p.on) ? [turn(true)] : []),
            ...(plugins.some((p) => p.on) ? [turn(false)] : []),
            null,
            { label: 'As early as may be', run: () => onChange({ kind: 'move', names, to: 1 + own }) },
            { label: 'As late as may be', run: () => onChange({ kind: 'move', names, to: last }) },
            { label: 'To a place …', run: () => setAsked(names) },
            null,
            plugins.every((p) => p.kept)
              ? { label: 'No longer keep here', run: () => onChange({ kind: 'keep', names, kept: false }) }
              : { label: 'Keep here', run: () => onChange({ kind: 'keep', names, kept: true }) },
          ]
    const own = view?.plugins.filter((p) => p.own).length ?? 0
    const last = (view?.plugins.length ?? 0) - names.length + 1
    if (!one) return [...changes, { label: 'Copy their names', run: () => copy(names.join('\n')) }]
    const base = `/workspaces/${workspace}`
    const query = encodeURIComponent(one.name)
    return [
      ...changes,
      ...(one.own
        ? []
        : [
            { label: 'Make a rule of it', run: () => go(`${base}/load-order/rules?about=${query}`) },
            null,
            { label: 'Its records', run: () => go(`${base}/records?any=&plugin=${query}`) },
            { label: 'Open its mod', run: () => go(`${base}/library/${one.mod}/about`) },
          ]),
      copyAct(copy, 'its name', one.name),
    ]
  }
  return {
    of,
    askPlace: setAsked,
    dialog: asked && view && (
      <PlaceDialog
        workspace={workspace}
        view={view}
        names={asked}
        onChange={onChange}
        onClose={() => setAsked(null)}
      />
    ),
  }
}
