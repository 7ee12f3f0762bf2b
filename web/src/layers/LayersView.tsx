import clsx from 'clsx'
import { LibraryBig } from 'lucide-react'
import { useCallback, useMemo, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { FileBar, FileBarKey } from '../ui/FileBar'
import { HowFar, modDetail } from '../ui/HowFar'
import { OrderList, type OrderRow } from '../ui/OrderList'
import { Screen } from '../ui/Screen'
import { Empty, Failed, Loading } from '../ui/States'
import { type Thread, Threads } from '../ui/Threads'
import { bytes, count, number } from '../ui/text'
import { LayerAside } from './LayerAside'
import { LayerSwitch } from './LayerSwitch'
import { type LayerChange, useChangeLayers, useLayers, usePreview, useRelations } from './queries'
import { differenceWords } from './sentence'

const ROW = 34
const GUTTER = 112
const COLUMNS =
  'grid grid-cols-[112px_36px_minmax(0,1fr)_168px_56px_70px_64px_44px] items-center max-lg:grid-cols-[44px_minmax(0,1fr)_96px_64px_44px]'
const GAME = '0'

interface LayerRow extends OrderRow {
  layer: Schema['LayerView'] | null
}

/** The install order: the highest layer on top, the game at the bottom. */
export function LayersView() {
  const workspace = useWorkspace()
  const layers = useLayers(workspace)
  const { mod: selected = null } = useParams()
  const go = useNavigate()
  const [carried, setCarried] = useState<LayerChange | null>(null)
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const view = layers.data
  const names = useMemo(() => new Map(view?.layers.map((l) => [l.mod, l.name])), [view])
  const change = useChangeLayers(workspace, (c, d) =>
    say(
      <>
        <b>{doneWords(c, names)}</b> {differenceWords(d, 'does')}
      </>,
      { label: 'Undo', run: undo },
    ),
  )

  const rows = useMemo<LayerRow[]>(() => {
    if (!view) return []
    const top = [...view.layers].reverse()
    return [
      ...top.map((l) => ({ id: String(l.mod), label: l.name, layer: l })),
      { id: GAME, label: view.game.title, layer: null, fixed: true },
    ]
  }, [view])
  const highest = rows.length - 1
  const select = useCallback(
    (id: string) => go(`/workspaces/${workspace}/layers/${id}`, { replace: true }),
    [go, workspace],
  )
  const moveTo = (id: string, index: number): LayerChange => ({
    kind: 'move',
    mod: Number(id),
    to: highest - index,
  })

  if (layers.isPending) {
    return (
      <Screen title="Layers">
        <div className="card flex-1">
          <Loading what="layers" />
        </div>
      </Screen>
    )
  }
  if (!view) return <Failed error={layers.error} retry={() => layers.refetch()} />
  return (
    <Screen
      title="Layers"
      says={<FileBarKey />}
      actions={
        <Button
          look={highest === 0 ? 'strong' : 'plain'}
          onClick={() => go(`/workspaces/${workspace}/library`)}
        >
          Bring in mods
        </Button>
      }
      aside={
        <LayerAside
          workspace={workspace}
          view={view}
          mod={selected === null ? null : Number(selected)}
          onSelect={select}
        />
      }
    >
      {highest === 0 ? (
        <div className="card flex-1">
          <Empty icon={LibraryBig} title="No layers yet">
            Bring in the archives of your mods: each becomes a layer on top of the game, and what lies higher
            covers (overwrites) what lies lower.
          </Empty>
        </div>
      ) : (
        <div className="relative flex min-h-0 flex-1">
          <OrderList
            rows={rows}
            rowHeight={ROW}
            label="Layers, the highest first"
            selected={selected}
            onSelect={select}
            onCarry={(c) => setCarried(c && moveTo(c.id, c.to))}
            onPut={(id, to) => change.mutate(moveTo(id, to))}
            head={<Head />}
            renderRow={(row, state) => (
              <Row
                workspace={workspace}
                row={row}
                view={view}
                active={state.active}
                onSwitch={(mod, on) => change.mutate({ kind: 'switch', mods: [mod], on })}
              />
            )}
            overlay={(height) => (
              <Arcs workspace={workspace} rows={rows} selected={selected} height={height} />
            )}
          />
          {carried && <Carried workspace={workspace} revision={view.revision} change={carried} rows={rows} />}
        </div>
      )}
    </Screen>
  )
}

function doneWords(change: LayerChange, names: ReadonlyMap<number, string>): string {
  if (change.kind === 'move') return `${names.get(change.mod)} is layer ${change.to} now.`
  const what =
    change.mods.length === 1 ? names.get(change.mods[0] as number) : count(change.mods.length, 'layer')
  return `${what} ${change.on ? 'switched on' : 'switched off'}.`
}

function Head() {
  return (
    <div className={clsx(COLUMNS, 'h-[26px] border-line border-b pr-2.5 text-[11px] text-ink-3')}>
      <span className="max-lg:hidden" />
      <span className="pr-3 text-right">layer</span>
      <span>mod</span>
      <span className="truncate">where its files stand</span>
      <span className="text-right max-lg:hidden">files</span>
      <span className="text-right max-lg:hidden">size</span>
      <span className="pl-3">how far</span>
      <span className="text-right">on</span>
    </div>
  )
}

interface RowProps {
  workspace: number
  row: LayerRow
  view: Schema['LayersView']
  active: boolean
  onSwitch: (mod: number, on: boolean) => void
}

function Row({ workspace, row, view, active, onSwitch }: RowProps) {
  const l = row.layer
  if (!l) {
    return (
      <div className={clsx(COLUMNS, 'h-full bg-sunk pr-2.5')}>
        <span className="max-lg:hidden" />
        <span className="num pr-3 text-right text-ink-3">0</span>
        <span className="truncate">
          <b className="font-semibold">{view.game.title}</b>
          <small className="ml-2 text-ink-2">the unmodded game</small>
        </span>
        <FileBar bar={view.game.bar} />
        <span className="num text-right text-ink-2 max-lg:hidden">{number(view.game.files)}</span>
        <span className="num text-right text-ink-2 max-lg:hidden">{bytes(view.game.sizeBytes)}</span>
      </div>
    )
  }
  const idle = l.on && l.bar.inPlay + l.bar.covering === 0 && l.bar.covered + l.bar.twin > 0
  return (
    <div className={clsx(COLUMNS, 'h-full pr-2.5', !l.on && 'text-ink-3')}>
      <span className="max-lg:hidden" />
      <span className="num pr-3 text-right text-ink-3">{l.position}</span>
      <span className="flex min-w-0 items-baseline gap-2">
        <span className="truncate font-medium" title={l.name}>
          {l.name}
        </span>
        <small className="shrink-0 text-[11px] text-ink-2">{l.version}</small>
        {l.kind !== 'archive' && <Tag>patch</Tag>}
        {!l.on && <Tag>switched off</Tag>}
        {idle && <Tag>adds nothing here</Tag>}
      </span>
      <FileBar bar={l.bar} />
      <span className="num text-right text-ink-2 max-lg:hidden">{number(l.files)}</span>
      <span className="num text-right text-ink-2 max-lg:hidden">{bytes(l.sizeBytes)}</span>
      <span className="pl-3">
        <HowFar reached={l.journey.reached} detail={modDetail(l.journey)} />
      </span>
      <span className="flex justify-end">
        <LayerSwitch
          workspace={workspace}
          revision={view.revision}
          layer={l}
          tabIndex={active ? 0 : -1}
          onChange={(on) => onSwitch(l.mod, on)}
        />
      </span>
    </div>
  )
}

export function Tag({ children }: { children: string }) {
  return (
    <span className="shrink-0 whitespace-nowrap rounded-[9px] border border-line-2 px-1.5 text-[10.5px] text-ink-2">
      {children}
    </span>
  )
}

/** Threads from the selected layer to those that it covers and that cover it. */
function Arcs({
  workspace,
  rows,
  selected,
  height,
}: {
  workspace: number
  rows: readonly LayerRow[]
  selected: string | null
  height: number
}) {
  const relations = useRelations(workspace, selected === null ? null : Number(selected)).data
  const threads = useMemo<Thread[]>(() => {
    if (!relations || String(relations.mod) !== selected) return []
    const index = new Map(rows.map((r, i) => [r.id, i]))
    const y = (mod: number) => (index.get(String(mod)) ?? 0) * ROW + ROW / 2
    const thread = (dashed: boolean) => (r: Schema['Related']) => ({
      key: `${dashed} ${r.mod}`,
      fromY: y(relations.mod),
      toY: y(r.mod),
      weight: r.paths,
      dashed,
      text: number(r.paths),
    })
    // more than a dozen threads say nothing that the list beside does not say better
    return [
      ...relations.covers.slice(0, 12).map(thread(false)),
      ...relations.coveredBy.slice(0, 12).map(thread(true)),
    ]
  }, [relations, rows, selected])
  return <Threads threads={threads} width={GUTTER} height={height} />
}

/** While a layer is carried: what dropping it there would change. */
function Carried({
  workspace,
  revision,
  change,
  rows,
}: {
  workspace: number
  revision: number
  change: LayerChange
  rows: readonly LayerRow[]
}) {
  const preview = usePreview(workspace, revision, change)
  if (change.kind !== 'move') return null
  const others = rows.filter((r) => r.layer && r.id !== String(change.mod))
  const name = rows.find((r) => r.id === String(change.mod))?.label
  // others run from the top; the layer comes to stand right above this one
  const below = others[others.length - change.to + 1]
  return (
    <div
      role="status"
      className="pointer-events-none absolute right-4 bottom-3.5 left-[124px] max-lg:left-4 z-20 rounded-[10px] bg-strong px-3.5 py-2.5 text-[12.5px] text-on-strong shadow-lift"
    >
      Dropping <b className="font-semibold">{name}</b> above{' '}
      <b className="font-semibold">{below?.label ?? 'the game'}</b>
      {preview.data ? <>: {lowerFirst(differenceWords(preview.data, 'would'))}</> : ' …'}
    </div>
  )
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
