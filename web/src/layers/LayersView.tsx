import clsx from 'clsx'
import { Columns3, LibraryBig } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import {
  type CSSProperties,
  type KeyboardEvent,
  type ReactNode,
  useCallback,
  useDeferredValue,
  useMemo,
  useRef,
  useState,
} from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Schema } from '../api/client'
import { useNotices } from '../frame/Notices'
import { useOverview, useUndo } from '../frame/queries'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { exportsOf } from '../lists/exports'
import { Button } from '../ui/Button'
import { Cell, ColumnHead, HeadRow } from '../ui/Cell'
import { FileBar, FileBarKey } from '../ui/FileBar'
import { HowFar, modDetail } from '../ui/HowFar'
import { OrderList, type OrderListProps, type Carried as Rows } from '../ui/OrderList'
import { Screen, Waiting } from '../ui/Screen'
import { Empty } from '../ui/States'
import { Tag } from '../ui/Tag'
import { type Thread, Threads } from '../ui/Threads'
import { bytes, count, number, when } from '../ui/text'
import { Brackets } from './Brackets'
import { FilterBar } from './FilterBar'
import { addsNothing, type Facts, filesAsked, parseFilter } from './filter'
import { LayerActs } from './LayerActs'
import { LayerAside } from './LayerAside'
import { LayerSwitch } from './LayerSwitch'
import { DifferenceSaid } from './Preview'
import {
  type LayerChange,
  useChangeLayers,
  useHolding,
  useLayers,
  usePreview,
  useRelations,
  useRules,
} from './queries'
import { COLUMNS, type Column, type LayerRow, modsOf, numberAt, rowsOf, SORTS, type Sort } from './rows'
import { differenceWords } from './sentence'
import { useShown } from './shown'

/** What a layer that was generated is called. */
const KINDS: Record<string, string> = {
  patch: 'patch',
  merge: 'merge',
  combined: 'combined files',
  tool: 'output of a tool',
}
const ROW = 34
const GUTTER = 112
/** Of the gutter, what the brackets of the sections take. */
const BRACKETS = 26
const GRID = 'grid grid-cols-(--columns) items-center max-lg:grid-cols-(--narrow)'
const NO_ONE: ReadonlySet<string> = new Set()

function gridOf(columns: readonly Column[]): CSSProperties {
  const wide = columns.map((c) => COLUMNS[c].width).join(' ')
  const narrow = columns.flatMap((c) => (c === 'bar' ? ['96px'] : c === 'way' ? ['64px'] : [])).join(' ')
  return {
    '--columns': `${GUTTER}px 36px minmax(0,1fr) ${wide} 44px`,
    '--narrow': `44px minmax(0,1fr) ${narrow} 44px`,
  } as CSSProperties
}

/** The install order: the highest layer on top, the game at the bottom. */
export function LayersView() {
  const workspace = useWorkspace()
  const layers = useLayers(workspace)
  const { mod: selected = null } = useParams()
  const go = useNavigate()
  const [shown, show] = useShown(workspace)
  const [chosen, choose] = useState<ReadonlySet<string>>(NO_ONE)
  const filterInput = useRef<HTMLInputElement>(null)
  const { undo } = useUndo(workspace)
  const { say } = useNotices()
  const view = layers.data
  const names = useMemo(() => new Map(view?.layers.map((l) => [l.mod, l.name])), [view])
  const change = useChangeLayers(workspace, (c, d) =>
    say(
      <>
        <b>{doneWords(c, names)}</b> <DifferenceSaid difference={d} tense="does" />
      </>,
      { label: 'Undo', run: undo },
    ),
  )
  const filter = useMemo(() => parseFilter(shown.filter), [shown.filter])
  const wrinkles = useOverview(workspace).data?.wrinkles
  const holding = useHolding(workspace, filesAsked(filter))
  const facts = useMemo<Facts>(
    () => ({
      sectionOf: new Map(view?.sections.map((s) => [s.id, s.name])),
      wrinkled: new Set(wrinkles?.flatMap((w) => [w.mod, w.other]).filter((m) => m !== undefined)),
      holding,
    }),
    [view, wrinkles, holding],
  )
  const folded = useMemo(() => new Set(shown.folded), [shown.folded])
  // the field answers at once; a list of thousands follows
  const wanted = useDeferredValue(filter)
  const rows = useMemo<LayerRow[]>(
    () => (view ? rowsOf(view, folded, wanted, facts, shown.sort, shown.turned) : []),
    [view, folded, wanted, facts, shown.sort, shown.turned],
  )
  const mods = useMemo(() => {
    const ids = chosen.size > 0 ? chosen : new Set(selected ? [selected] : [])
    const of = new Set(modsOf(rows, ids))
    return view?.layers.filter((l) => of.has(l.mod)).map((l) => l.mod) ?? []
  }, [view, rows, chosen, selected])
  const tags = useMemo(() => [...new Set(view?.layers.flatMap((l) => l.tags))].sort(), [view])
  const inShown = useMemo(
    () => rows.reduce((n, r) => n + (r.folded ? r.folded.layers.length : r.layer ? 1 : 0), 0),
    [rows],
  )
  const { mutate } = change
  const { columns } = shown
  const renderRow = useCallback(
    (row: LayerRow, state: { active: boolean }) =>
      view && (
        <Row
          workspace={workspace}
          row={row}
          view={view}
          columns={columns}
          active={state.active}
          onSwitch={(switched, on) => mutate({ kind: 'switch', mods: switched, on })}
        />
      ),
    [workspace, view, columns, mutate],
  )
  const select = useCallback(
    (id: string) => {
      if (!id.startsWith('section')) go(`/workspaces/${workspace}/layers/${id}`, { replace: true })
    },
    [go, workspace],
  )
  const fold = (section: number) =>
    show({
      folded: folded.has(section) ? shown.folded.filter((s) => s !== section) : [...shown.folded, section],
    })
  /** The change that some rows on their way mean. */
  const moveOf = (c: Rows): LayerChange | null => {
    if (!view) return null
    const ids = new Set(c.ids)
    const mods = modsOf(rows, ids)
    const rest = rows.filter((r) => !ids.has(r.id))
    return { kind: 'move', mods, to: numberAt(view, mods, rest, c.to, shown.turned) }
  }
  const key = (e: KeyboardEvent, row: LayerRow): boolean => {
    if (e.altKey || e.ctrlKey || e.metaKey) return false
    const section = row.folded?.section.id ?? row.layer?.section
    const folds = e.key === 'ArrowLeft' && row.layer && section
    const unfolds = e.key === 'ArrowRight' && row.folded
    if (section && (folds || unfolds)) {
      e.preventDefault()
      fold(section)
      return true
    }
    if (e.key === '/') {
      e.preventDefault()
      filterInput.current?.focus()
      return true
    }
    return false
  }

  useSelectedTitle(view?.layers.find((l) => String(l.mod) === selected)?.name)
  if (!view) return <Waiting title="Layers" what="layers" queries={[layers]} />
  const grid = gridOf(shown.columns)
  return (
    <Screen
      title="Layers"
      says={<FileBarKey combined={view.layers.some((l) => l.bar.contributing > 0)} />}
      actions={
        <>
          <BrokenRules workspace={workspace} />
          <ShowMenu
            workspace={workspace}
            sort={shown.sort}
            columns={shown.columns}
            turned={shown.turned}
            onSort={(sort) => show({ sort })}
            onColumns={(columns) => show({ columns })}
            onTurned={(turned) => show({ turned })}
          />
          <Button onClick={() => go(`/workspaces/${workspace}/layers/lists`)}>Lists</Button>
          <Button
            onClick={() => go(`/workspaces/${workspace}/layers/suggestion`)}
            disabled={view.layers.length < 2}
          >
            Propose an order
          </Button>
          <Button
            look={view.layers.length === 0 ? 'strong' : 'plain'}
            onClick={() => go(`/workspaces/${workspace}/library`)}
          >
            Bring in mods
          </Button>
        </>
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
      {view.layers.length === 0 ? (
        <div className="card flex-1">
          <Empty icon={LibraryBig} title="No layers yet">
            Bring in the archives of your mods: each becomes a layer on top of the game, and what lies higher
            covers (overwrites) what lies lower.
          </Empty>
        </div>
      ) : (
        <>
          <FilterBar
            input={filterInput}
            text={shown.filter}
            onText={(text) => {
              show({ filter: text })
              choose(NO_ONE)
            }}
            shown={inShown}
            total={view.layers.length}
            sections={view.sections}
            tags={tags}
            views={shown.views}
            onSave={(name) =>
              show({
                views: [
                  ...shown.views.filter((v) => v.name !== name),
                  { name, filter: shown.filter, sort: shown.sort, columns: shown.columns },
                ],
              })
            }
            onView={(v) =>
              show({ filter: v.filter, sort: v.sort as Sort, columns: v.columns as readonly Column[] })
            }
            onForget={(name) => show({ views: shown.views.filter((v) => v.name !== name) })}
          />
          <div className="relative flex min-h-0 flex-1" style={grid}>
            {rows.length === 0 ? (
              <div className="card flex-1">
                <Empty icon={LibraryBig} title="No layer is like that">
                  {number(view.layers.length)} layers are hidden. Take a criterion away to see more.
                </Empty>
              </div>
            ) : (
              <CarryingList
                rows={rows}
                rowHeight={ROW}
                label={
                  shown.sort === 'order'
                    ? `Layers, the ${shown.turned ? 'lowest' : 'highest'} first`
                    : `Layers by ${SORTS[shown.sort].name}`
                }
                selected={selected}
                onSelect={select}
                chosen={chosen}
                onChoose={choose}
                still={shown.sort !== 'order'}
                onKey={key}
                onPut={(c) => {
                  const move = moveOf(c)
                  if (move) change.mutate(move)
                }}
                foot={
                  mods.length > 0 && (
                    <LayerActs
                      workspace={workspace}
                      view={view}
                      mods={mods}
                      onChange={(c) => change.mutate(c)}
                      onClear={() => choose(NO_ONE)}
                    />
                  )
                }
                head={<Head columns={shown.columns} sort={shown.sort} onSort={(sort) => show({ sort })} />}
                renderRow={renderRow}
                overlay={(height, carrying) => (
                  <>
                    {shown.sort === 'order' && (
                      <Brackets
                        rows={rows}
                        sections={view.sections}
                        rowHeight={ROW}
                        onFold={fold}
                        onPick={(section) =>
                          choose(
                            new Set(
                              rows
                                .filter((r) => (r.layer?.section ?? r.folded?.section.id) === section)
                                .map((r) => r.id),
                            ),
                          )
                        }
                      />
                    )}
                    {/* while something is carried the threads would have to follow it */}
                    {!carrying && (
                      <Arcs workspace={workspace} rows={rows} selected={selected} height={height} />
                    )}
                  </>
                )}
                beside={(carried) => (
                  <Carried
                    workspace={workspace}
                    view={view}
                    rows={rows}
                    carried={carried}
                    turned={shown.turned}
                    change={moveOf(carried)}
                  />
                )}
              />
            )}
          </div>
        </>
      )}
    </Screen>
  )
}

type CarryingListProps = Omit<OrderListProps<LayerRow>, 'onCarry' | 'overlay'> & {
  overlay: (height: number, carrying: boolean) => ReactNode
  /** What stands beside the list while rows are on their way. */
  beside: (carried: Rows) => ReactNode
}

/** Knows what is carried for itself alone: the rest of the screen stays as it is meanwhile. */
function CarryingList({ overlay, beside, ...list }: CarryingListProps) {
  const [carried, setCarried] = useState<Rows | null>(null)
  return (
    <>
      <OrderList {...list} onCarry={setCarried} overlay={(height) => overlay(height, carried !== null)} />
      {carried && beside(carried)}
    </>
  )
}

function doneWords(change: LayerChange, names: ReadonlyMap<number, string>): string {
  const what = (mods: readonly number[]) =>
    mods.length === 1 ? names.get(mods[0] as number) : count(mods.length, 'layer')
  switch (change.kind) {
    case 'move':
      return change.mods.length === 1
        ? `${what(change.mods)} is layer ${change.to} now.`
        : `${what(change.mods)} moved.`
    case 'switch':
      return `${what(change.mods)} switched ${change.on ? 'on' : 'off'}.`
    case 'keep':
      return `${what(change.mods)} ${change.mods.length === 1 ? 'is' : 'are'} ${change.kept ? '' : 'no longer '}kept here.`
    case 'gather':
      return `${what(change.mods)} put into a section.`
    case 'leave':
      return `${what(change.mods)} taken out of the section.`
    case 'rename':
      return `The section is called ${change.name} now.`
    case 'dissolve':
      return `The section ${change.name} is dissolved.`
    case 'suggestion':
      return 'The proposal is taken.'
    case 'rule':
      return 'The rule is made.'
    case 'drop-rule':
      return 'The rule is taken back.'
    case 'mend-rule':
      return 'The rule holds again.'
  }
}

/** A word about rules that the order breaks; nothing when it breaks none. */
function BrokenRules({ workspace }: { workspace: number }) {
  const rules = useRules(workspace).data?.rules ?? []
  const broken = rules.filter((r) => r.broken).length
  return (
    <Link
      to={`/workspaces/${workspace}/layers/rules`}
      className={clsx('underline', broken > 0 ? 'font-semibold text-ochre' : 'text-ink-2')}
    >
      {broken > 0 ? `${count(broken, 'rule')} broken` : count(rules.length, 'rule')}
    </Link>
  )
}

const MENU = 'z-50 min-w-48 rounded-lg border border-line bg-card p-1 shadow-lift'
const ITEM =
  'flex cursor-pointer items-center gap-2 rounded-md px-2.5 py-1 outline-none data-[highlighted]:bg-woad-soft data-[state=checked]:font-semibold'

function ShowMenu({
  workspace,
  sort,
  columns,
  turned,
  onSort,
  onColumns,
  onTurned,
}: {
  workspace: number
  sort: Sort
  columns: readonly Column[]
  turned: boolean
  onSort: (sort: Sort) => void
  onColumns: (columns: readonly Column[]) => void
  onTurned: (turned: boolean) => void
}) {
  const turn = (c: Column) =>
    onColumns(
      (Object.keys(COLUMNS) as Column[]).filter((x) =>
        x === c ? !columns.includes(c) : columns.includes(x),
      ),
    )
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button icon aria-label="Columns, sorting and export">
          <Columns3 size={15} aria-hidden="true" />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className={MENU}>
          <DropdownMenu.Label className="px-2.5 py-1 text-[11px] text-ink-3">Columns</DropdownMenu.Label>
          {(Object.keys(COLUMNS) as Column[]).map((c) => (
            <DropdownMenu.CheckboxItem
              key={c}
              checked={columns.includes(c)}
              onCheckedChange={() => turn(c)}
              onSelect={(e) => e.preventDefault()}
              className={ITEM}
            >
              <span aria-hidden="true" className="w-3">
                {columns.includes(c) ? '✓' : ''}
              </span>
              {COLUMNS[c].name}
            </DropdownMenu.CheckboxItem>
          ))}
          <DropdownMenu.Label className="px-2.5 pt-2 pb-1 text-[11px] text-ink-3">
            Sorted by (the order itself stays)
          </DropdownMenu.Label>
          <DropdownMenu.RadioGroup value={sort} onValueChange={(v) => onSort(v as Sort)}>
            {(Object.keys(SORTS) as Sort[]).map((s) => (
              <DropdownMenu.RadioItem key={s} value={s} className={ITEM}>
                <span aria-hidden="true" className="w-3">
                  {sort === s ? '✓' : ''}
                </span>
                {SORTS[s].name}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
          <DropdownMenu.CheckboxItem
            checked={turned}
            onCheckedChange={(c) => onTurned(c === true)}
            className={clsx(ITEM, 'mt-1 border-line border-t pt-1.5')}
          >
            <span aria-hidden="true" className="w-3">
              {turned ? '✓' : ''}
            </span>
            Turn the stack over: the game on top
          </DropdownMenu.CheckboxItem>
          <DropdownMenu.Label className="px-2.5 pt-2 pb-1 text-[11px] text-ink-3">
            Export the order as
          </DropdownMenu.Label>
          {exportsOf(workspace, 'layers').map((l) => (
            <DropdownMenu.Item key={l.name} asChild>
              <a href={l.address} download className={ITEM}>
                <span className="w-3" /> {l.name}
              </a>
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

const RIGHT: ReadonlySet<Column> = new Set(['files', 'size', 'contested'])
const NARROW: ReadonlySet<Column> = new Set(['bar', 'way'])

function Head({
  columns,
  sort,
  onSort,
}: {
  columns: readonly Column[]
  sort: Sort
  onSort: (sort: Sort) => void
}) {
  return (
    <HeadRow className={clsx(GRID, 'h-[26px] border-line border-b pr-2.5 text-[11px] text-ink-3')}>
      <ColumnHead className="max-lg:hidden">
        <span className="sr-only">section</span>
        {sort !== 'order' && (
          <button type="button" className="ml-2 min-h-6 text-woad underline" onClick={() => onSort('order')}>
            install order
          </button>
        )}
      </ColumnHead>
      <ColumnHead className="pr-3 text-right">layer</ColumnHead>
      <ColumnHead>mod{sort !== 'order' && `, by ${SORTS[sort].name}`}</ColumnHead>
      {columns.map((c) => (
        <ColumnHead
          key={c}
          className={clsx(
            'truncate',
            RIGHT.has(c) ? 'text-right' : c !== 'bar' && 'pl-3',
            !NARROW.has(c) && 'max-lg:hidden',
          )}
        >
          {COLUMNS[c].name}
        </ColumnHead>
      ))}
      <ColumnHead className="text-right">on</ColumnHead>
    </HeadRow>
  )
}

interface RowProps {
  workspace: number
  row: LayerRow
  view: Schema['LayersView']
  columns: readonly Column[]
  active: boolean
  onSwitch: (mods: number[], on: boolean) => void
}

function Row({ workspace, row, view, columns, active, onSwitch }: RowProps) {
  const l = row.layer
  if (row.folded) return <FoldedRow row={row} columns={columns} />
  if (!l) {
    return (
      <div className={clsx(GRID, 'h-full bg-sunk pr-2.5')}>
        <Cell className="max-lg:hidden" />
        <Cell className="num pr-3 text-right text-ink-2">0</Cell>
        <Cell className="truncate">
          <b className="font-semibold">{view.game.title}</b>
          <small className="ml-2 text-ink-2">the unmodded game</small>
        </Cell>
        {columns.map((c) => (
          <Cell key={c} className={cell(c)}>
            {c === 'bar' && <FileBar bar={view.game.bar} />}
            {c === 'files' && number(view.game.files)}
            {c === 'size' && bytes(view.game.sizeBytes)}
          </Cell>
        ))}
      </div>
    )
  }
  return (
    <div className={clsx(GRID, 'h-full pr-2.5', !l.on && 'text-ink-3')}>
      <Cell className="max-lg:hidden" />
      <Cell className="num pr-3 text-right text-ink-2">{l.position}</Cell>
      <Cell className="flex min-w-0 items-baseline gap-2 pr-2.5">
        <span className="truncate font-medium" title={l.name}>
          {l.name}
        </span>
        <small className="shrink-0 text-[11px] text-ink-2">{l.version}</small>
        {l.kind !== 'archive' && <Tag>{KINDS[l.kind] ?? 'mend'}</Tag>}
        {!l.on && <Tag>switched off</Tag>}
        {l.kept && <Tag>kept here</Tag>}
        {addsNothing(l) && <Tag>adds nothing here</Tag>}
      </Cell>
      {columns.map((c) => (
        <Cell key={c} className={cell(c)}>
          {c === 'bar' && <FileBar bar={l.bar} />}
          {c === 'files' && number(l.files)}
          {c === 'size' && bytes(l.sizeBytes)}
          {c === 'contested' && (l.contested > 0 ? number(l.contested) : '')}
          {c === 'tags' && l.tags.join(', ')}
          {c === 'brought' && l.broughtAt && when(l.broughtAt)}
          {c === 'way' && <HowFar reached={l.journey.reached} detail={modDetail(l.journey)} />}
        </Cell>
      ))}
      <Cell className="flex justify-end">
        <LayerSwitch
          workspace={workspace}
          revision={view.revision}
          layer={l}
          tabIndex={active ? 0 : -1}
          onChange={(on) => onSwitch([l.mod], on)}
        />
      </Cell>
    </div>
  )
}

function cell(c: Column): string {
  return clsx(
    'min-w-0 truncate',
    RIGHT.has(c) ? 'num text-right text-ink-2' : c !== 'bar' && 'pl-3',
    c === 'tags' || c === 'brought' ? 'text-[12px] text-ink-2' : '',
    !NARROW.has(c) && 'max-lg:hidden',
  )
}

/** A section that is folded: its layers as one. */
function FoldedRow({ row, columns }: { row: LayerRow; columns: readonly Column[] }) {
  const layers = row.folded?.layers ?? []
  const sum = (of: (l: Schema['LayerView']) => number) => layers.reduce((n, l) => n + of(l), 0)
  const bar = {
    inPlay: sum((l) => l.bar.inPlay),
    covering: sum((l) => l.bar.covering),
    contributing: sum((l) => l.bar.contributing),
    covered: sum((l) => l.bar.covered),
    twin: sum((l) => l.bar.twin),
  }
  const off = layers.filter((l) => !l.on).length
  return (
    <div className={clsx(GRID, 'h-full pr-2.5')}>
      <Cell className="max-lg:hidden" />
      <Cell className="num pr-3 text-right text-ink-2">{layers.at(-1)?.position}</Cell>
      <Cell className="flex min-w-0 items-baseline gap-2">
        <span className="truncate font-semibold">{row.label}</span>
        <small className="shrink-0 text-ink-2">
          {count(layers.length, 'layer')}
          {off > 0 && `, ${number(off)} off`}
        </small>
      </Cell>
      {columns.map((c) => (
        <Cell key={c} className={cell(c)}>
          {c === 'bar' && <FileBar bar={bar} />}
          {c === 'files' && number(sum((l) => l.files))}
          {c === 'size' && bytes(sum((l) => l.sizeBytes))}
          {c === 'contested' && number(sum((l) => l.contested))}
        </Cell>
      ))}
    </div>
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
    const index = new Map(
      rows.flatMap((r, i) =>
        r.folded ? r.folded.layers.map((l) => [String(l.mod), i] as const) : [[r.id, i] as const],
      ),
    )
    const isShown = (r: Schema['Related']) => index.has(String(r.mod))
    const y = (mod: number) => (index.get(String(mod)) ?? 0) * ROW + ROW / 2
    if (!index.has(selected)) return []
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
      ...relations.covers.filter(isShown).slice(0, 12).map(thread(false)),
      ...relations.coveredBy.filter(isShown).slice(0, 12).map(thread(true)),
    ]
  }, [relations, rows, selected])
  return <Threads threads={threads} width={GUTTER} height={height} leave={BRACKETS} />
}

/** While layers are carried: what dropping them there would change. */
function Carried({
  workspace,
  view,
  rows,
  carried,
  turned,
  change,
}: {
  workspace: number
  view: Schema['LayersView']
  rows: readonly LayerRow[]
  carried: Rows
  turned: boolean
  change: LayerChange | null
}) {
  const preview = usePreview(workspace, view.revision, change)
  if (change?.kind !== 'move') return null
  const ids = new Set(carried.ids)
  const below = rows.filter((r) => !ids.has(r.id))[turned ? carried.to - 1 : carried.to]
  const what =
    carried.ids.length === 1
      ? rows.find((r) => r.id === carried.ids[0])?.label
      : count(change.mods.length, 'layer')
  return (
    <div
      role="status"
      className="pointer-events-none absolute right-4 bottom-3.5 left-[124px] max-lg:left-4 z-20 rounded-[10px] bg-strong px-3.5 py-2.5 text-[12.5px] text-on-strong shadow-lift"
    >
      Dropping <b className="font-semibold">{what}</b> above{' '}
      <b className="font-semibold">{below?.label ?? 'the game'}</b>
      {preview.data ? <>: {lowerFirst(differenceWords(preview.data, 'would'))}</> : ' …'}
    </div>
  )
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}
