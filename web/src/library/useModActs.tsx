import { type ReactNode, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { api, got, type Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { DifferenceSaid } from '../layers/Preview'
import { copyAct, useCopy } from '../ui/copy'
import type { MenuAct } from '../ui/Menu'
import { count } from '../ui/text'
import { useArrange } from './queries'
import { RemoveDialog } from './RemoveDialog'
import { RemoveModsDialog } from './RemoveModsDialog'
import { TagDialog } from './TagDialog'
import { useReinstall, useVerify } from './verify'

type Mod = Schema['ModView']

export interface ModActs {
  /** All that can be done with some mods. */
  of: (mods: readonly Mod[]) => readonly MenuAct[]
  switchTo: (mods: readonly Mod[], on: boolean) => void
  ask: (what: 'tags' | 'remove', mods: readonly Mod[]) => void
  /** What is asked just now. */
  dialog: ReactNode
}

/** What can be done with mods of the library, be it one or many. */
export function useModActs(workspace: number): ModActs {
  const [asking, setAsking] = useState<{ what: 'tags' | 'remove'; mods: readonly Mod[] } | null>(null)
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const { search } = useLocation()
  const go = useNavigate()
  const copy = useCopy()
  const verify = useVerify(workspace)
  const reinstall = useReinstall(workspace)
  const turn = useArrange(
    workspace,
    ({ mods, on }: { mods: readonly Mod[]; on: boolean }, header) =>
      got(
        api.POST('/api/workspaces/{workspace}/layers/switch', {
          params: { path: { workspace }, header },
          body: { mods: mods.map((m) => m.id), on },
        }),
      ),
    (d) => d.revision,
    (d, { mods, on }) =>
      say(
        <>
          <b>{`${mods.length === 1 ? mods[0]?.name : count(mods.length, 'mod')} switched ${on ? 'on' : 'off'}.`}</b>{' '}
          <DifferenceSaid difference={d} tense="does" />
        </>,
        { label: 'Undo', run: undo },
      ),
  )
  const switchTo = (mods: readonly Mod[], on: boolean) => turn.mutate({ mods, on })
  const of = (mods: readonly Mod[]): readonly MenuAct[] => {
    const [first] = mods
    if (!first) return []
    const one = mods.length === 1
    const base = `/workspaces/${workspace}`
    const off = (m: Mod) => m.journey.reached === 'LIBRARY'
    const ids = mods.map((m) => m.id)
    const archived = mods.filter((m) => m.kind === 'archive').map((m) => m.id)
    return [
      ...(one
        ? [
            { label: 'Open it', run: () => go(`${base}/library/${first.id}/about`) },
            { label: 'Show it in Layers', run: () => go(`${base}/layers/${first.id}`) },
            null,
          ]
        : []),
      ...(mods.some(off) ? [{ label: 'Switch on', run: () => switchTo(mods, true) }] : []),
      ...(mods.every(off) ? [] : [{ label: 'Switch off', run: () => switchTo(mods, false) }]),
      { label: one ? 'Tags …' : 'Tag them …', run: () => setAsking({ what: 'tags', mods }) },
      null,
      { label: one ? 'Check its files' : 'Check their files', run: () => verify.mutate(ids) },
      ...(archived.length > 0
        ? [{ label: one ? 'Install it again' : 'Install them again', run: () => reinstall.mutate(archived) }]
        : []),
      one
        ? copyAct(copy, 'its name', first.name)
        : { label: 'Copy their names', run: () => copy(mods.map((m) => m.name).join('\n')) },
      null,
      { label: one ? 'Remove it …' : 'Remove them …', run: () => setAsking({ what: 'remove', mods }) },
    ]
  }
  const close = () => setAsking(null)
  const [only] = asking?.mods ?? []
  return {
    of,
    switchTo,
    ask: (what, mods) => setAsking({ what, mods }),
    dialog:
      asking === null ? null : asking.what === 'tags' ? (
        <TagDialog workspace={workspace} mods={asking.mods} onClose={close} />
      ) : asking.mods.length === 1 && only ? (
        <RemoveDialog workspace={workspace} mod={only} onClose={close} search={search} />
      ) : (
        <RemoveModsDialog workspace={workspace} mods={asking.mods} onClose={close} search={search} />
      ),
  }
}
