import clsx from 'clsx'
import { ListOrdered, TriangleAlert } from 'lucide-react'
import { useCallback, useMemo, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { Cell, ColumnHead, HeadRow } from '../ui/Cell'
import { Hint } from '../ui/Hint'
import { HowFar, pluginDetail } from '../ui/HowFar'
import { Menu } from '../ui/Menu'
import { OnOff } from '../ui/OnOff'
import { OrderList, type OrderRow, type Carried as Rows } from '../ui/OrderList'
import { Screen, Waiting } from '../ui/Screen'
import { Empty } from '../ui/States'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { ListFileNotice } from './ListFileNotice'
import { PluginAside } from './PluginAside'
import { PluginName } from './PluginName'
import { PointsDialog } from './PointsDialog'
import { type LoadChange, useChangeLoadOrder, useLoadOrder, useLoadPreview, useProposal } from './queries'
import { Slots } from './Slots'
import { loadWords } from './sentence'

const ROW = 32
const COLUMNS =
  'grid grid-cols-[52px_minmax(0,1.25fr)_minmax(0,0.85fr)_108px_56px_64px_44px] items-center max-lg:grid-cols-[52px_minmax(0,1fr)_64px_52px]'

type PluginView = Schema['PluginView']
const NONE: readonly Schema['TroubleView'][] = []

interface PluginRow extends OrderRow {
  plugin: PluginView
}

/** The plugins in play in the order in which the game reads them, the first on top. */
export function LoadOrderView() {
  const workspace = useWorkspace()
  const order = useLoadOrder(workspace)
  const { plugin: selected = null } = useParams()
  const go = useNavigate()
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const [carried, setCarried] = useState<LoadChange | null>(null)
  const [points, setPoints] = useState(false)
  const change = useChangeLoadOrder(workspace, (c, d) =>
    say(
      <>
        <b>{doneWords(c, d)}</b> {loadWords(d, 'does')}
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const view = order.data
  const rows = useMemo<PluginRow[]>(
    () => view?.plugins.map((p) => ({ id: p.name, label: p.name, fixed: p.own, plugin: p })) ?? [],
    [view],
  )
  const troublesOf = useMemo(() => {
    const by = new Map<string, Schema['TroubleView'][]>()
    for (const t of view?.troubles ?? []) by.set(t.plugin, [...(by.get(t.plugin) ?? []), t])
    return by
  }, [view])
  const { mutate } = change
  const renderRow = useCallback(
    (row: PluginRow, state: { active: boolean }) => (
      <Row
        plugin={row.plugin}
        active={state.active}
        troubles={troublesOf.get(row.plugin.name) ?? NONE}
        onSwitch={(on) => mutate({ kind: 'switch', names: [row.plugin.name], on })}
      />
    ),
    [troublesOf, mutate],
  )
  const select = useCallback(
    (name: string) =>
      go(`/workspaces/${workspace}/load-order/${encodeURIComponent(name)}`, { replace: true }),
    [go, workspace],
  )
  useSelectedTitle(view?.plugins.find((p) => p.name === selected)?.name)
  if (!view) return <Waiting title="Load order" what="the load order" queries={[order]} />
  const shown = view.plugins.find((p) => p.name === selected)
  return (
    <Screen
      title="Load order"
      says={
        view.hasPlugins &&
        `${count(view.plugins.filter((p) => p.on).length, 'plugin')}, read from the first to the last; the last version of a record wins.`
      }
      actions={
        view.hasPlugins && (
          <>
            <Button onClick={() => go(`/workspaces/${workspace}/load-order/rules`)}>Rules</Button>
            <Menu
              label="More to do with the load order"
              acts={[
                {
                  label: 'Orders of others, and export',
                  run: () => go(`/workspaces/${workspace}/load-order/lists`),
                },
                { label: 'Bring an order back …', run: () => setPoints(true) },
                {
                  label: 'Compare with another profile',
                  run: () => go(`/workspaces/${workspace}/profiles`),
                },
              ]}
            />
            <ProposalButton workspace={workspace} />
          </>
        )
      }
      aside={
        <PluginAside workspace={workspace} view={view} plugin={shown} onChange={(c) => change.mutate(c)} />
      }
    >
      {!view.hasPlugins || rows.length === 0 ? (
        <div className="card flex-1">
          <Empty
            icon={ListOrdered}
            title={view.hasPlugins ? 'No plugins in play' : 'This game has no plugins'}
          >
            {view.hasPlugins
              ? 'A mod that brings a plugin puts it here by itself, once its layer is on.'
              : 'Its mods are files only: the order of the layers is all there is to decide.'}
          </Empty>
        </div>
      ) : (
        <>
          <Slots workspace={workspace} slots={view.slots} onChange={(c) => change.mutate(c)} />
          <ListFileNotice workspace={workspace} revision={view.revision} onTake={(c) => change.mutate(c)} />
          {points && (
            <PointsDialog
              workspace={workspace}
              revision={view.revision}
              onChange={(c) => change.mutate(c)}
              onClose={() => setPoints(false)}
            />
          )}
          <div className="relative flex min-h-0 flex-1">
            <OrderList
              rows={rows}
              rowHeight={ROW}
              label="Plugins, the first to load on top"
              selected={selected}
              onSelect={select}
              onCarry={(c) => setCarried(c && moveOf(c))}
              onPut={(c) => change.mutate(moveOf(c))}
              head={<Head />}
              renderRow={renderRow}
            />
            {carried && <Carried workspace={workspace} revision={view.revision} change={carried} />}
          </div>
        </>
      )}
    </Screen>
  )
}

function doneWords(c: LoadChange, d: Schema['LoadDifferenceView']): string {
  if (c.kind === 'move') return `${c.name} loads as ${d.place?.to ?? c.to} now.`
  if (c.kind === 'keep')
    return `${c.names.length === 1 ? c.names[0] : count(c.names.length, 'plugin')} ${c.names.length === 1 ? 'is' : 'are'} ${c.kept ? '' : 'no longer '}kept here.`
  if (c.kind === 'restore') return `The load order of ${c.name} is back.`
  if (c.kind === 'list-file') return 'The list file is taken over.'
  if (c.kind === 'switch') return `${c.names[0]} switched ${c.on ? 'on' : 'off'}.`
  return 'The proposal is taken.'
}

function ProposalButton({ workspace }: { workspace: number }) {
  const proposal = useProposal(workspace).data
  const go = useNavigate()
  const moves = proposal?.moves.length ?? 0
  const ring = (proposal?.ring.length ?? 0) > 0
  if (!proposal) return null
  if (moves === 0 && !ring) return <span className="text-ink-2">A proposal would move nothing.</span>
  return (
    <Button look="strong" onClick={() => go(`/workspaces/${workspace}/load-order/proposal`)}>
      {ring ? 'See why no order works' : `See the proposal: ${count(moves, 'move')}`}
    </Button>
  )
}

function Head() {
  return (
    <HeadRow className={clsx(COLUMNS, 'h-[26px] border-line border-b pr-2.5 text-[11px] text-ink-3')}>
      <ColumnHead className="pr-3 text-right">loads</ColumnHead>
      <ColumnHead>plugin</ColumnHead>
      <ColumnHead className="max-lg:hidden">from</ColumnHead>
      <ColumnHead className="max-lg:hidden">overrides</ColumnHead>
      <ColumnHead className="max-lg:hidden">stage</ColumnHead>
      <ColumnHead>how far</ColumnHead>
      <ColumnHead className="text-right">on</ColumnHead>
    </HeadRow>
  )
}

interface RowProps {
  plugin: PluginView
  active: boolean
  troubles: readonly Schema['TroubleView'][]
  onSwitch: (on: boolean) => void
}

function Row({ plugin: p, active, troubles, onSwitch }: RowProps) {
  return (
    <div className={clsx(COLUMNS, 'h-full pr-2.5', p.own && 'bg-sunk/50', !p.on && 'text-ink-2')}>
      <Cell className="num pr-3 text-right text-ink-2">{p.position}</Cell>
      <Cell className="flex min-w-0 items-center gap-2">
        <span className="truncate" title={p.name}>
          <PluginName name={p.name} />
        </span>
        {p.kept && <Tag>kept here</Tag>}
        {p.fresh && <Tag>new</Tag>}
        {troubles.length > 0 && (
          <Hint text={troubles.map((t) => t.text).join(' ')}>
            <span className="flex shrink-0 items-center gap-1 rounded-[5px] bg-madder-soft px-1.5 font-medium text-[11px] text-madder">
              <TriangleAlert size={12} aria-hidden="true" />
              {TROUBLES[troubles[0]?.code ?? ''] ?? 'trouble'}
            </span>
          </Hint>
        )}
      </Cell>
      <Cell className="truncate text-ink-2 max-lg:hidden">{p.own ? 'the game' : p.modName}</Cell>
      <Cell className="num text-ink-2 max-lg:hidden">
        {p.overrides > 0 ? count(p.overrides, 'record') : ''}
      </Cell>
      <Cell className="num text-ink-2 max-lg:hidden">{p.own ? '' : p.stage}</Cell>
      <Cell>
        <HowFar reached={p.journey.reached} detail={pluginDetail(p.journey)} />
      </Cell>
      <Cell className="flex justify-end">
        {p.own ? (
          <small className="text-ink-2">always</small>
        ) : (
          <OnOff on={p.on} label={`${p.name} on`} onChange={onSwitch} tabIndex={active ? 0 : -1} />
        )}
      </Cell>
    </div>
  )
}

const TROUBLES: Record<string, string> = {
  UNDECODABLE: 'cannot be read',
  MASTER_MISSING: 'master missing',
  MASTER_OFF: 'master off',
  MASTER_LATE: 'master loads later',
  WRONG_GAME_VERSION: 'other game version',
  NO_SLOT: 'no slot left',
  PACK_MISSING: 'pack missing',
  SAME_NAME: 'one name, two files',
  NEEDS_OTHER: 'goes not alone',
  CLASHES: 'does not go together',
}

function Carried({
  workspace,
  revision,
  change,
}: {
  workspace: number
  revision: number
  change: LoadChange
}) {
  const preview = useLoadPreview(workspace, revision, change).data
  if (change.kind !== 'move') return null
  return (
    <div
      role="status"
      className="pointer-events-none absolute right-4 bottom-3.5 left-4 z-20 rounded-[10px] bg-strong px-3.5 py-2.5 text-[12.5px] text-on-strong shadow-lift"
    >
      Dropping <b className="font-semibold">{change.name}</b> as {change.to}
      {preview ? `. ${loadWords(preview, 'would')}` : ' …'}
    </div>
  )
}

export function BackToOrder({ workspace }: { workspace: number }) {
  return (
    <Link to={`/workspaces/${workspace}/load-order`} className="text-woad underline">
      Back to the load order
    </Link>
  )
}

/** One plugin at a time is moved. */
function moveOf(c: Rows): LoadChange {
  return { kind: 'move', name: c.ids[0] as string, to: c.to + 1 }
}
