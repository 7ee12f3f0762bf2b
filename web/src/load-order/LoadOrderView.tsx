import { ListOrdered } from 'lucide-react'
import { useCallback, useMemo, useState } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useAddress } from '../frame/address'
import { useNotices } from '../frame/Notices'
import { useUndo } from '../frame/queries'
import { useSearch } from '../frame/search'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { Chip } from '../ui/Chip'
import { ChosenBar } from '../ui/list/ChosenBar'
import { List } from '../ui/list/List'
import { NONE } from '../ui/list/rows'
import { Menu } from '../ui/Menu'
import { Screen, Waiting } from '../ui/Screen'
import { SearchField } from '../ui/SearchField'
import { Empty } from '../ui/States'
import { count, number } from '../ui/text'
import { ListFileNotice } from './ListFileNotice'
import { PluginAside } from './PluginAside'
import { PluginCells, PluginHead, ROW } from './PluginRow'
import { PointsDialog } from './PointsDialog'
import { type LoadChange, useChangeLoadOrder, useLoadOrder, useLoadPreview, useProposal } from './queries'
import { hasStages, KIND_WORDS, KINDS, moveOf, type PluginRow, rowsOf, SORTS, type Sort } from './rows'
import { Slots } from './Slots'
import { doneWords, loadWords } from './sentence'
import { type PluginActs, usePluginActs } from './usePluginActs'

type View = Schema['LoadOrderView']
const UNTROUBLED: readonly Schema['TroubleView'][] = []

/** The plugins in play in the order in which the game reads them, the first on top. */
export function LoadOrderView() {
  const workspace = useWorkspace()
  const order = useLoadOrder(workspace)
  const { plugin: selected = null } = useParams()
  const go = useNavigate()
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const [points, setPoints] = useState(false)
  const { mutate } = useChangeLoadOrder(workspace, (c, d) =>
    say(
      <>
        <b>{doneWords(c, d)}</b> {loadWords(d, 'does')}
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const view = order.data
  useSelectedTitle(view?.plugins.find((p) => p.name === selected)?.name)
  if (!view) return <Waiting title="Load order" what="the load order" queries={[order]} />
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
        <PluginAside
          workspace={workspace}
          view={view}
          plugin={view.plugins.find((p) => p.name === selected)}
          onChange={mutate}
        />
      }
    >
      {!view.hasPlugins || view.plugins.length === 0 ? (
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
          <Slots workspace={workspace} slots={view.slots} onChange={mutate} />
          <ListFileNotice workspace={workspace} revision={view.revision} onTake={mutate} />
          {points && (
            <PointsDialog
              workspace={workspace}
              revision={view.revision}
              onChange={mutate}
              onClose={() => setPoints(false)}
            />
          )}
          <Plugins workspace={workspace} view={view} selected={selected} onChange={mutate} />
        </>
      )}
    </Screen>
  )
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

/** The plugins that are looked for, to choose from and to carry. */
function Plugins({
  workspace,
  view,
  selected,
  onChange,
}: {
  workspace: number
  view: View
  selected: string | null
  onChange: (change: LoadChange) => void
}) {
  const go = useNavigate()
  const { search } = useLocation()
  const [query, put] = useAddress()
  const { typed, type, wanted } = useSearch()
  const [chosen, choose] = useState<ReadonlySet<string>>(NONE)
  const [carried, setCarried] = useState<LoadChange | null>(null)
  const acts = usePluginActs(workspace, view, onChange)
  const troublesOf = useMemo(() => {
    const by = new Map<string, Schema['TroubleView'][]>()
    for (const t of view.troubles) by.set(t.plugin, [...(by.get(t.plugin) ?? []), t])
    return by
  }, [view])
  const said = query.get('sort')
  const sort: Sort = said !== null && said in SORTS ? (said as Sort) : 'order'
  const down = query.has('turned') !== SORTS[sort].down
  const only = query.getAll('only').join(' ')
  const rows = useMemo(() => {
    const kinds = KINDS.filter((k) => only.split(' ').includes(k))
    return rowsOf(view, new Set(troublesOf.keys()), { find: wanted, kinds, sort, down })
  }, [view, troublesOf, wanted, only, sort, down])
  const kinds = KINDS.filter((k) => only.split(' ').includes(k))
  const staged = hasStages(view.plugins)
  const renderRow = useCallback(
    (row: PluginRow, state: { active: boolean }) => (
      <PluginCells
        staged={staged}
        plugin={row.plugin}
        active={state.active}
        troubles={troublesOf.get(row.plugin.name) ?? UNTROUBLED}
        onSwitch={(on) => onChange({ kind: 'switch', names: [row.plugin.name], on })}
      />
    ),
    [staged, troublesOf, onChange],
  )
  // one that a filter hides is not acted on unseen
  const of = (ids: Iterable<string>) => {
    const names = new Set(ids)
    return rows.filter((r) => names.has(r.id)).map((r) => r.plugin)
  }
  const inBar = of(chosen.size > 0 ? chosen : selected === null ? [] : [selected])
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <SearchField label="Plugin or mod" value={typed} onChange={type} />
        <fieldset aria-label="Show only" className="flex flex-wrap gap-1.5">
          {KINDS.map((k) => (
            <Chip
              key={k}
              says={KIND_WORDS[k]}
              on={kinds.includes(k)}
              onTurn={() =>
                put((q) => {
                  q.delete('only')
                  for (const x of kinds) if (x !== k) q.append('only', x)
                  if (!kinds.includes(k)) q.append('only', k)
                })
              }
            />
          ))}
        </fieldset>
        {(wanted.trim() !== '' || kinds.length > 0) && (
          <span className="num ml-auto text-ink-2">
            {number(rows.length)} of {number(view.plugins.length)}
          </span>
        )}
      </div>
      <div className="relative flex min-h-0 flex-1">
        {rows.length === 0 ? (
          <div className="card flex-1">
            <Empty icon={ListOrdered} title="No plugin is like that">
              Look for something else, or take a filter away.
            </Empty>
          </div>
        ) : (
          <List
            rows={rows}
            rowHeight={ROW}
            label={sort === 'order' ? 'Plugins, the first to load on top' : `Plugins by ${SORTS[sort].says}`}
            selected={selected}
            onSelect={(name) =>
              go(
                { pathname: `/workspaces/${workspace}/load-order/${encodeURIComponent(name)}`, search },
                { replace: true },
              )
            }
            chosen={chosen}
            onChoose={choose}
            onOpen={(row) =>
              row.plugin.own
                ? undefined
                : go(`/workspaces/${workspace}/records?any=&plugin=${encodeURIComponent(row.plugin.name)}`)
            }
            acts={(ids) => acts.of(of(ids))}
            still={sort !== 'order'}
            onCarry={(c) => setCarried(c && moveOf(view, rows, c))}
            onPut={(c) => onChange(moveOf(view, rows, c))}
            head={
              <PluginHead
                staged={staged}
                sort={sort}
                down={down}
                onSort={(by) =>
                  put((q) => {
                    if (by === 'order') q.delete('sort')
                    else q.set('sort', by)
                    if (by === sort && by !== 'order' && !q.has('turned')) q.set('turned', '')
                    else q.delete('turned')
                  })
                }
              />
            }
            renderRow={renderRow}
            foot={
              inBar.some((p) => !p.own) && (
                <PluginBar plugins={inBar} acts={acts} onChange={onChange} onClear={() => choose(NONE)} />
              )
            }
          />
        )}
        {carried && <Carried workspace={workspace} revision={view.revision} change={carried} />}
      </div>
      {acts.dialog}
    </>
  )
}

/** What can be done with the plugins that are chosen. */
function PluginBar({
  plugins,
  acts,
  onChange,
  onClear,
}: {
  plugins: readonly Schema['PluginView'][]
  acts: PluginActs
  onChange: (change: LoadChange) => void
  onClear: () => void
}) {
  const movable = plugins.filter((p) => !p.own)
  const names = movable.map((p) => p.name)
  const many = movable.length > 1
  const turn = (on: boolean) => (
    <Button className="h-7" onClick={() => onChange({ kind: 'switch', names, on })}>
      {on ? 'Switch on' : 'Switch off'}
    </Button>
  )
  return (
    <ChosenBar
      label={many ? `${names.length} plugins chosen` : (names[0] ?? '')}
      name={many ? count(names.length, 'plugin') : (names[0] ?? '')}
      menu={() => acts.of(plugins)}
      onClear={many ? onClear : undefined}
    >
      {movable.some((p) => !p.on) && turn(true)}
      {movable.some((p) => p.on) && turn(false)}
      <Button className="h-7" onClick={() => acts.askPlace(names)}>
        Move …
      </Button>
    </ChosenBar>
  )
}

/** While plugins are carried: what dropping them there would change. */
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
      Dropping{' '}
      <b className="font-semibold">
        {change.names.length === 1 ? change.names[0] : count(change.names.length, 'plugin')}
      </b>{' '}
      as {change.to}
      {preview ? `. ${loadWords(preview, 'would')}` : ' …'}
    </div>
  )
}
