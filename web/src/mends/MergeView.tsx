import { Merge } from 'lucide-react'
import { useDeferredValue, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { useLoadOrder } from '../load-order/queries'
import { recordPath } from '../records/keys'
import { STATES } from '../records/states'
import { Button } from '../ui/Button'
import { Screen, Waiting } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { count, list, number } from '../ui/text'
import { type MergeWish, useMerge, useMergePreview } from './queries'
import { SavesNote } from './SavesNote'

type Preview = Schema['MergePreview']

/** Several plugins made one: chosen, seen before it is made, and made. */
export function MergeView() {
  const workspace = useWorkspace()
  const order = useLoadOrder(workspace)
  const [chosen, setChosen] = useState<readonly string[]>([])
  const [target, setTarget] = useState('')
  const [combining, setCombining] = useState(false)
  const typed = useDeferredValue(target.trim())
  const plugins = order.data?.plugins.filter((p) => p.on && !p.own && !p.mend) ?? []
  const ending = /\.[^.]+$/.exec(plugins[0]?.name ?? '')?.[0] ?? ''
  const name = typed || 'Merged'
  const sources = chosen.filter((c) => plugins.some((p) => p.name === c))
  const wish: MergeWish | null =
    sources.length > 1 ? { sources, target: name, name: name.replace(/\.[^.]+$/, ''), combining } : null
  const go = useNavigate()
  const { say } = useNotices()
  const { undo } = useUndo(workspace)
  const merge = useMerge(workspace, (target) => {
    say(`${target} is made, and its sources are off.`, { label: 'Undo', run: undo })
    go(`/workspaces/${workspace}/mends`)
  })
  const merging = merge.isPending || merge.isSuccess
  const preview = useMergePreview(workspace, wish, merging)
  if (!order.data) return <Waiting title="Merge plugins" what="plugins" queries={[order]} />
  return (
    <Screen
      title="Merge plugins"
      says="Several plugins become one and take one slot. The game reads the same; the sources are switched off, not deleted."
      actions={
        <Link to={`/workspaces/${workspace}/mends`} className="text-woad underline">
          All mends
        </Link>
      }
    >
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
        <div className="flex w-[300px] shrink-0 flex-col gap-2 max-lg:w-full">
          <label className="flex flex-col gap-1">
            <span className="font-semibold text-[11.5px]">What they become</span>
            <input
              list="merge-targets"
              value={target}
              onChange={(e) => setTarget(e.target.value)}
              placeholder={`Merged${ending}`}
              className="h-[30px] rounded-md border border-line-2 bg-card px-2 outline-offset-1"
            />
            <datalist id="merge-targets">
              {chosen.map((c) => (
                <option key={c} value={c} />
              ))}
            </datalist>
            <span className="text-[11.5px] text-ink-2">A new name, or one of the plugins themselves.</span>
          </label>
          <fieldset className="card min-h-0 flex-1 overflow-y-auto px-2 py-1.5 max-lg:h-48 max-lg:flex-none">
            <legend className="sr-only">Plugins to merge, in load order</legend>
            {plugins.map((p) => (
              <label
                key={p.name}
                className="flex cursor-pointer items-baseline gap-2 rounded px-1.5 py-1 hover:bg-sunk"
              >
                <input
                  type="checkbox"
                  checked={chosen.includes(p.name)}
                  onChange={(e) =>
                    setChosen(e.target.checked ? [...chosen, p.name] : chosen.filter((c) => c !== p.name))
                  }
                  className="translate-y-[1px] accent-(--woad)"
                />
                <span className="min-w-0 flex-1">
                  <span className="block truncate">{p.name}</span>
                  <span className="block truncate text-[11.5px] text-ink-2">{p.modName}</span>
                </span>
                <small className="num text-ink-2">{number(p.records)}</small>
              </label>
            ))}
          </fieldset>
        </div>
        {!wish && !merging ? (
          <div className="card flex-1">
            <Empty icon={Merge} title="Choose two plugins, or more">
              What the merge comes to is shown here before anything is made.
            </Empty>
          </div>
        ) : preview.isError ? (
          <div className="card flex-1">
            <Failed error={preview.error} retry={() => preview.refetch()} />
          </div>
        ) : preview.data ? (
          <MergePreview
            workspace={workspace}
            preview={preview.data}
            old={preview.isPlaceholderData}
            merging={merging}
            combining={combining}
            combine={setCombining}
            merge={(target) => wish && merge.mutate({ ...wish, target })}
          />
        ) : (
          <div className="card flex-1">
            <Loading what="the merge" />
          </div>
        )}
      </div>
    </Screen>
  )
}

function MergePreview({
  workspace,
  preview: p,
  old,
  merging,
  combining,
  combine,
  merge,
}: {
  workspace: number
  preview: Preview
  /** Whether something else is wished meanwhile, and the preview of that is on its way. */
  old: boolean
  merging: boolean
  combining: boolean
  combine: (on: boolean) => void
  merge: (target: string) => void
}) {
  const possible = p.refused.length === 0
  return (
    <section
      aria-label="What the merge comes to"
      className="card flex min-w-0 flex-1 flex-col overflow-hidden"
    >
      <header className="flex items-start gap-3 border-line border-b px-4 py-2.5">
        <div className="min-w-0 flex-1">
          <h2 className="break-words">{p.target}</h2>
          <p className="text-ink-2">
            {count(p.newRecords, 'record')} of its own, {count(p.overrides, 'override')} ·{' '}
            {p.slotsFreed === 1 ? '1 slot becomes free' : `${p.slotsFreed} slots become free`} · loads{' '}
            {p.after ? `directly after ${p.after}` : 'first'}, stage {p.stage}
          </p>
        </div>
        <Button look="strong" disabled={!possible || old || merging} onClick={() => merge(p.target)}>
          {merging ? 'Merging …' : `Merge ${count(p.sources.length, 'plugin')}`}
        </Button>
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {!possible && (
          <div role="alert" className="mt-3 rounded-lg border border-madder/50 bg-madder-soft px-3 py-2">
            <p className="font-semibold">It cannot be merged like this.</p>
            <ul>
              {p.refused.map((n) => (
                <li key={n.thing + n.reason} className="mt-1">
                  <b className="font-medium">{n.thing}</b>: {n.reason} {n.remedy}
                </li>
              ))}
            </ul>
          </div>
        )}
        <Part title={`Its masters: ${p.masters.length === 0 ? 'none' : list(p.masters)}`} />
        {p.packs.length > 0 && <Part title={`Its packs: ${list(p.packs)}`} />}
        <Part
          title={
            p.renumberedInAll === 0
              ? 'Every record keeps its number.'
              : `${count(p.renumberedInAll, 'record')} ${p.renumberedInAll === 1 ? 'gets' : 'get'} another number; every reference follows`
          }
        >
          {p.renumbered.map((r) => (
            <li key={r.from}>
              {r.from} → {r.to}
            </li>
          ))}
        </Part>
        <Part
          title={
            p.sharedInAll === 0
              ? 'No two of them have the same record.'
              : `${count(p.sharedInAll, 'record')} ${p.sharedInAll === 1 ? 'is' : 'are'} in several of them; ${combining && p.combinableInAll > 0 ? `${number(p.combinableInAll)} ${p.combinableInAll === 1 ? 'is' : 'are'} combined` : 'the version that the game reads is taken'}`
          }
        >
          {p.shared.map((s) => (
            <li key={s.key}>
              <Link to={`${recordPath(workspace, s.key)}?any`} className="text-woad underline">
                {s.label}
              </Link>{' '}
              <span className="text-ink-2">
                in {list(s.sources)}; {s.combines && combining ? 'combined' : `that of ${s.taken}`}
                {s.state && `, ${STATES[s.state].word}`}
              </span>
            </li>
          ))}
        </Part>
        {p.combinableInAll > 0 && (
          <label className="mt-2 flex cursor-pointer items-baseline gap-2">
            <input
              type="checkbox"
              checked={combining}
              onChange={(e) => combine(e.target.checked)}
              className="translate-y-[1px] accent-(--woad)"
            />
            <span>
              Combine what they change in the same record: {count(p.combinableInAll, 'record')}
              <span className="block text-[11.5px] text-ink-2">
                Without it the game reads the same as now. With it the merge has what a patch would have.
              </span>
            </span>
          </label>
        )}
        {p.leftOutInAll > 0 && (
          <Part title={`${count(p.leftOutInAll, 'version')} will not be in it`}>
            {p.leftOut.map((n) => (
              <li key={n.thing + n.reason}>
                {n.thing}: <span className="text-ink-2">{n.reason}</span>
              </li>
            ))}
          </Part>
        )}
        {p.dependents.length > 0 && (
          <Part
            title={`${count(p.dependents.length, 'plugin')} elsewhere ${p.dependents.length === 1 ? 'names' : 'name'} one of them as master`}
            open
          >
            {p.dependents.map((d) => (
              <li key={d.plugin}>
                {d.plugin}{' '}
                <span className="text-ink-2">
                  of {d.modName} {FATES[d.how]}
                </span>
              </li>
            ))}
          </Part>
        )}
        {p.otherFiles.length > 0 && (
          <Part
            title={`${count(p.otherFiles.length, 'path')} would read another file, since packs change places`}
            open
          >
            {p.otherFiles.map((f) => (
              <li key={f} className="font-mono text-[11.5px]">
                {f}
              </li>
            ))}
          </Part>
        )}
        <section aria-label="Saves" className="mt-3">
          <SavesNote workspace={workspace} plugins={p.sources} />
        </section>
      </div>
    </section>
  )
}

const FATES: Record<Schema['DependentPlugin']['how'], string> = {
  REWRITTEN: 'goes with the merge as a copy that names it instead; the original is not touched',
  MADE_ANEW: 'is a patch, and is rebuilt after the merge',
  STAYS_OFF: 'is switched off: if on, it would miss its master',
}

function Part({
  title,
  open,
  children,
}: {
  title: string
  open?: boolean
  children?: readonly React.ReactNode[]
}) {
  if (!children || children.length === 0) return <p className="mt-3">{title}</p>
  return (
    <details className="mt-3" open={open || children.length <= 8}>
      <summary className="cursor-pointer">{title}</summary>
      <ul className="mt-1 max-h-56 overflow-y-auto pl-4">{children}</ul>
    </details>
  )
}
