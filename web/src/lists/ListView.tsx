import { useVirtualizer } from '@tanstack/react-virtual'
import clsx from 'clsx'
import { type ReactNode, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { DifferenceSaid } from '../layers/Preview'
import { useChangeLayers } from '../layers/queries'
import { useChangeLoadOrder } from '../load-order/queries'
import { loadWords } from '../load-order/sentence'
import { Aside, AsidePart } from '../ui/Aside'
import { Button } from '../ui/Button'
import { Screen, Waiting } from '../ui/Screen'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { Departure } from './Departure'
import {
  type Kind,
  type Taken,
  useList,
  useListActs,
  useTakeLayers,
  useTakeLayersPreview,
  useTakeOrder,
  useTakeOrderPreview,
  useTick,
} from './queries'
import { countStates, type Entry, hasStep, STATES, type State, statesOf } from './steps'

const GRID = 'grid grid-cols-[40px_minmax(0,1fr)_150px_minmax(0,240px)_120px] items-start gap-3'
const NOTHING: ReadonlySet<State> = new Set()

/** One published install order beside the layers as they are, and the steps that lead to it. */
export function LayersListView() {
  const workspace = useWorkspace()
  const id = Number(useParams().list)
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const revision = useList(workspace, 'layers', id).data?.revision ?? 0
  const preview = useTakeLayersPreview(workspace, id, revision, revision > 0)
  const take = useTakeLayers(workspace, id, (d) =>
    say(
      <>
        <b>Taken from the list.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const change = useChangeLayers(workspace, (_, d) =>
    say(
      <>
        <b>Switched off.</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  return (
    <ListScreen
      kind="layers"
      preview={preview.data && <DifferenceSaid difference={preview.data} tense="would" />}
      busy={take.isPending}
      onTake={(taken) => take.mutate(taken)}
      onSwitchOff={(extra) => change.mutate({ kind: 'switch', mods: extra.map((x) => x.mod), on: false })}
    />
  )
}

/** One published load order beside the plugins as they load. */
export function OrderListView() {
  const workspace = useWorkspace()
  const id = Number(useParams().list)
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const revision = useList(workspace, 'load-order', id).data?.revision ?? 0
  const preview = useTakeOrderPreview(workspace, id, revision, revision > 0)
  const take = useTakeOrder(workspace, id, (d) =>
    say(
      <>
        <b>Taken from the list.</b> {loadWords(d, 'does')}
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const change = useChangeLoadOrder(workspace, (_, d) =>
    say(<>Switched off. {loadWords(d, 'does')}</>, { label: 'Undo', run: undo }),
  )
  return (
    <ListScreen
      kind="load-order"
      preview={preview.data && loadWords(preview.data, 'would')}
      busy={take.isPending}
      onTake={(taken) => take.mutate(taken)}
      onSwitchOff={(extra) => change.mutate({ kind: 'switch', names: extra.map((x) => x.name), on: false })}
    />
  )
}

interface ListScreenProps {
  kind: Kind
  /** What taking all of it would change; nothing until that is known. */
  preview: ReactNode
  busy: boolean
  onTake: (taken: Taken) => void
  onSwitchOff: (extra: readonly Schema['ExtraView'][]) => void
}

function ListScreen({ kind, preview, busy, onTake, onSwitchOff }: ListScreenProps) {
  const workspace = useWorkspace()
  const id = Number(useParams().list)
  const list = useList(workspace, kind, id)
  const go = useNavigate()
  const { say } = useNotices()
  const acts = useListActs(workspace, kind, id)
  const tick = useTick(workspace, kind, id)
  const [only, setOnly] = useState<ReadonlySet<State>>(NOTHING)
  const l = list.data
  if (!l) return <Waiting title="List" what="the list" queries={[list]} />
  const counts = countStates(l.entries)
  const steps = l.entries.filter(hasStep).length
  const shown = only.size === 0 ? l.entries : l.entries.filter((e) => statesOf(e).some((s) => only.has(s)))
  const turn = (s: State) => {
    const next = new Set(only)
    if (!next.delete(s)) next.add(s)
    setOnly(next)
  }
  const follow = () => {
    acts.leave.mutate(undefined)
    say('The list is no longer followed.', {
      label: 'Follow it again',
      run: () => acts.back.mutate(undefined),
    })
    go(`/workspaces/${workspace}/${kind}/lists`)
  }
  return (
    <Screen
      title={l.title}
      says={`${count(l.entries.length, 'entry', 'entries')}, ${kind === 'layers' ? 'the lowest' : 'the first to load'} first. ${counts.same} as the list says.`}
      actions={
        <>
          <Button onClick={() => go(`/workspaces/${workspace}/${kind}/lists`)}>Other lists</Button>
          <Button look="quiet" onClick={follow}>
            Follow no longer
          </Button>
          <Button look="strong" disabled={steps === 0 || busy} onClick={() => onTake('all')}>
            {steps === 0 ? 'Nothing to take' : `Take all ${count(steps, 'step')}`}
          </Button>
        </>
      }
      aside={
        <ListAside
          workspace={workspace}
          kind={kind}
          list={l}
          steps={steps}
          preview={preview}
          onSwitchOff={onSwitchOff}
        />
      }
    >
      <fieldset aria-label="Show only" className="mb-2 flex flex-wrap gap-1.5">
        {(Object.keys(STATES) as State[])
          .filter((s) => counts[s] > 0)
          .map((s) => (
            <button
              key={s}
              type="button"
              aria-pressed={only.has(s)}
              onClick={() => turn(s)}
              className="rounded-full border border-line bg-card px-2.5 py-0.5 text-[12px] aria-pressed:border-woad aria-pressed:bg-woad-soft"
            >
              <b className="num font-semibold">{counts[s]}</b> {STATES[s]}
            </button>
          ))}
        {only.size > 0 && (
          <button type="button" className="min-h-6 text-woad underline" onClick={() => setOnly(NOTHING)}>
            show all
          </button>
        )}
      </fieldset>
      <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
        <div className={clsx(GRID, 'border-line border-b px-3.5 py-1 text-[11px] text-ink-3')}>
          <span className="text-right">in list</span>
          <span>{kind === 'layers' ? 'mod' : 'plugin'}</span>
          <span>here</span>
          <span>note</span>
          <span />
        </div>
        <Entries
          workspace={workspace}
          kind={kind}
          entries={shown}
          busy={busy}
          onTake={onTake}
          onTick={tick.mutate}
        />
      </div>
    </Screen>
  )
}

function Entries({
  workspace,
  kind,
  entries,
  busy,
  onTake,
  onTick,
}: {
  workspace: number
  kind: Kind
  entries: readonly Entry[]
  busy: boolean
  onTake: (taken: Taken) => void
  onTick: (tick: { number: number; ticked: boolean }) => void
}) {
  const scroller = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 44,
    overscan: 10,
  })
  return (
    <div ref={scroller} className="min-h-0 flex-1 overflow-y-auto">
      <ul className="relative" style={{ height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map((item) => {
          const e = entries[item.index]
          if (!e) return null
          return (
            <li
              key={e.number}
              ref={virtual.measureElement}
              data-index={item.index}
              className={clsx(GRID, 'absolute right-0 left-0 border-line border-b px-3.5 py-1.5')}
              style={{ top: item.start }}
            >
              <EntryRow
                workspace={workspace}
                kind={kind}
                entry={e}
                busy={busy}
                onTake={onTake}
                onTick={onTick}
              />
            </li>
          )
        })}
      </ul>
    </div>
  )
}

function EntryRow({
  workspace,
  kind,
  entry: e,
  busy,
  onTake,
  onTick,
}: {
  workspace: number
  kind: Kind
  entry: Entry
  busy: boolean
  onTake: (taken: Taken) => void
  onTick: (tick: { number: number; ticked: boolean }) => void
}) {
  const mod = e.mod
  return (
    <>
      <span className="num text-right text-ink-3">{e.number}</span>
      <span className="min-w-0">
        {mod === undefined ? (
          <b className="break-words font-medium">{e.name}</b>
        ) : (
          <Link
            to={placeOf(workspace, kind, mod, e.name)}
            className="break-words font-medium hover:underline"
          >
            {e.name}
          </Link>
        )}{' '}
        <small className="text-[11px] text-ink-2">{e.version}</small>
        {e.section && <small className="block text-[11px] text-ink-3">in {e.section}</small>}
      </span>
      <span className="leading-snug">
        {mod === undefined && <Tag>missing</Tag>}
        {mod !== undefined && statesOf(e)[0] === 'same' && <span className="text-ink-3">as it says</span>}
        {e.otherVersion && <span className="block">{e.hereVersion}, another version</span>}
        {e.to !== undefined && (
          <span className="num block">
            {e.position} → {e.to}
          </span>
        )}
        {e.switchTo !== undefined && <span className="block">{e.switchTo ? 'off' : 'on'} here</span>}
        {e.heldFast && <span className="block text-ink-2">kept here</span>}
      </span>
      <span className="min-w-0 text-ink-2">
        {e.note && (
          <label className="flex items-start gap-2">
            <input
              type="checkbox"
              checked={e.ticked}
              onChange={() => onTick({ number: e.number, ticked: !e.ticked })}
              className="mt-1 accent-(--woad)"
              aria-label={`Done: ${e.note}`}
            />
            <span className={clsx('whitespace-pre-wrap break-words', e.ticked && 'text-ink-3 line-through')}>
              {e.note}
            </span>
          </label>
        )}
      </span>
      <span className="flex flex-col items-end gap-1">
        {mod === undefined && (
          <Link to={`/workspaces/${workspace}/library`} className="text-woad underline">
            Bring it in
          </Link>
        )}
        {e.otherVersion && mod !== undefined && (
          <Link
            to={`/workspaces/${workspace}/library/${e.inLibrary ?? mod}/versions`}
            className="text-woad underline"
          >
            {e.inLibrary === undefined ? 'Its versions' : 'It is in your library'}
          </Link>
        )}
        {hasStep(e) && (
          <Button
            className="h-6"
            disabled={busy}
            aria-label={`Take this step: ${e.name}`}
            onClick={() => onTake([e])}
          >
            {e.to === undefined ? (e.switchTo ? 'Switch on' : 'Switch off') : 'Move'}
          </Button>
        )}
        {statesOf(e)[0] !== 'same' && <Departure workspace={workspace} kind={kind} entry={e} />}
      </span>
    </>
  )
}

/** Where an entry is shown among its own. */
function placeOf(workspace: number, kind: Kind, mod: number, name: string): string {
  return `/workspaces/${workspace}/${kind}/${kind === 'layers' ? mod : encodeURIComponent(name)}`
}

function ListAside({
  workspace,
  kind,
  list: l,
  steps,
  preview,
  onSwitchOff,
}: {
  workspace: number
  kind: Kind
  list: Schema['FollowView']
  steps: number
  preview: ReactNode
  onSwitchOff: ListScreenProps['onSwitchOff']
}) {
  const extraOn = l.extra.filter((x) => x.on)
  return (
    <Aside label="What taking it would change">
      <h2>{steps > 0 ? 'Taking all of it' : 'All that is here stands as it says'}</h2>
      <p role="status" className="mt-1.5 text-ink-2 leading-snug">
        {steps === 0
          ? 'What is missing or of another version is brought in under Library.'
          : preview || 'Looking what that would change …'}
      </p>
      {l.remarks.length > 0 && (
        <AsidePart title="About the file">
          <ul className="flex flex-col gap-1 leading-snug">
            {l.remarks.map((r) => (
              <li key={r}>{r}</li>
            ))}
          </ul>
        </AsidePart>
      )}
      {l.extra.length > 0 && (
        <AsidePart
          title={`${count(l.extra.length, kind === 'layers' ? 'layer' : 'plugin')} that it does not name`}
        >
          <p className="text-ink-2">They stay where they are among the others.</p>
          <ul className="mt-1">
            {l.extra.slice(0, 40).map((x) => (
              <li key={x.name} className="flex gap-2 py-0.5">
                <Link
                  to={placeOf(workspace, kind, x.mod, x.name)}
                  className="min-w-0 flex-1 truncate py-[3px] hover:underline"
                >
                  {x.name}
                </Link>
                <span className="text-ink-2">{x.on ? '' : 'off'}</span>
                <span className="num text-ink-3">{x.position}</span>
              </li>
            ))}
          </ul>
          {l.extra.length > 40 && <p className="text-ink-2">… and {l.extra.length - 40} more.</p>}
          {extraOn.length > 0 && (
            <Button className="mt-2" onClick={() => onSwitchOff(extraOn)}>
              Switch {extraOn.length === 1 ? 'it' : `all ${extraOn.length}`} off
            </Button>
          )}
        </AsidePart>
      )}
    </Aside>
  )
}
