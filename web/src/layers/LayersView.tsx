import clsx from 'clsx'
import { LibraryBig } from 'lucide-react'
import { type KeyboardEvent, useCallback, useDeferredValue, useMemo, useState } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { useNotices } from '../frame/Notices'
import { useOverview, useUndo } from '../frame/queries'
import { useSearch } from '../frame/search'
import { useSelectedTitle } from '../frame/title'
import { useWorkspace } from '../frame/workspace'
import { Button } from '../ui/Button'
import { FileBarKey } from '../ui/FileBar'
import type { Carried as OnTheirWay } from '../ui/list/places'
import { NONE } from '../ui/list/rows'
import { Screen, Waiting } from '../ui/Screen'
import { Empty } from '../ui/States'
import { count, number } from '../ui/text'
import { Arcs } from './Arcs'
import { Brackets } from './Brackets'
import { Carried, CarryingList } from './Carried'
import { FilterBar } from './FilterBar'
import { type Facts, filesAsked, parseFilter } from './filter'
import { LayerActs } from './LayerActs'
import { LayerAside } from './LayerAside'
import { Head } from './LayerHead'
import { gridOf, ROW, Row } from './LayerRows'
import { DifferenceSaid } from './Preview'
import { type LayerChange, useChangeLayers, useHolding, useLayers, useRules } from './queries'
import { type Column, type LayerRow, modsOf, numberAt, rowsOf, SORTS, type Sort } from './rows'
import { ShowMenu } from './ShowMenu'
import { useLastFilter, useShown } from './shown'
import { useLayerActs } from './useLayerActs'
import { doneWords } from './words'

/** The install order: the highest layer on top, the game at the bottom. */
export function LayersView() {
  const workspace = useWorkspace()
  const layers = useLayers(workspace)
  const { mod: selected = null } = useParams()
  const go = useNavigate()
  const [shown, show] = useShown(workspace)
  const [last, keepLast] = useLastFilter(workspace)
  const { typed: only, type } = useSearch('only', last)
  const { search } = useLocation()
  const [chosen, choose] = useState<ReadonlySet<string>>(NONE)
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
  const showOnly = (text: string) => {
    keepLast(text)
    type(text)
    choose(NONE)
  }
  const filter = useMemo(() => parseFilter(only), [only])
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
  const acts = useLayerActs(workspace, view, mutate)
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
      if (!id.startsWith('section'))
        go({ pathname: `/workspaces/${workspace}/layers/${id}`, search }, { replace: true })
    },
    [go, workspace, search],
  )
  const fold = (section: number) =>
    show({
      folded: folded.has(section) ? shown.folded.filter((s) => s !== section) : [...shown.folded, section],
    })
  /** The change that some rows on their way mean. */
  const moveOf = (c: OnTheirWay): LayerChange | null => {
    if (!view) return null
    const ids = new Set(c.ids)
    const mods = modsOf(rows, ids)
    const rest = rows.filter((r) => !ids.has(r.id))
    return { kind: 'move', mods, to: numberAt(view, mods, rest, c.to, shown.turned) }
  }
  const open = (row: LayerRow) => {
    if (row.folded) fold(row.folded.section.id)
    else if (row.layer) go(`/workspaces/${workspace}/library/${row.layer.mod}/about`)
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
    return false
  }

  useSelectedTitle(view?.layers.find((l) => String(l.mod) === selected)?.name)
  if (!view) return <Waiting title="Layers" what="layers" queries={[layers]} />
  const grid = gridOf(shown.columns, shown.widths)
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
            text={only}
            onText={showOnly}
            shown={inShown}
            total={view.layers.length}
            sections={view.sections}
            tags={tags}
            views={shown.views}
            onSave={(name) =>
              show({
                views: [
                  ...shown.views.filter((v) => v.name !== name),
                  { name, filter: only, sort: shown.sort, columns: shown.columns },
                ],
              })
            }
            onView={(v) => {
              show({ sort: v.sort as Sort, columns: v.columns as readonly Column[] })
              showOnly(v.filter)
            }}
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
                onOpen={open}
                acts={(ids) => acts.of(modsOf(rows, new Set(ids)))}
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
                      acts={acts}
                      onChange={(c) => change.mutate(c)}
                      onClear={() => choose(NONE)}
                    />
                  )
                }
                head={<Head shown={shown} onShow={show} />}
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
          {acts.dialog}
        </>
      )}
    </Screen>
  )
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
