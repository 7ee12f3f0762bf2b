import clsx from 'clsx'
import { TriangleAlert } from 'lucide-react'
import type { Schema } from '../api/client'
import { Cell, ColumnHead, HeadRow } from '../ui/Cell'
import { EXPLAINED } from '../ui/explained'
import { Hint } from '../ui/Hint'
import { HowFar, pluginDetail } from '../ui/HowFar'
import { SortHead } from '../ui/list/SortHead'
import { OnOff } from '../ui/OnOff'
import { Tag } from '../ui/Tag'
import { count } from '../ui/text'
import { PluginName } from './PluginName'
import { SORTS, type Sort } from './rows'

type PluginView = Schema['PluginView']

/** How high a row is, in pixels. */
export const ROW = 32
// all that is said of small windows is the same: there is no column of stages in them
const COLUMNS = 'grid items-center max-lg:grid-cols-[52px_minmax(0,1fr)_64px_52px]'
const STAGED = 'grid-cols-[52px_minmax(0,1.25fr)_minmax(0,0.85fr)_108px_56px_64px_44px]'
const UNSTAGED = 'grid-cols-[52px_minmax(0,1.25fr)_minmax(0,0.85fr)_108px_64px_44px]'

/** The names of the columns, by which the plugins can be looked at in another order. */
export function PluginHead({
  staged,
  sort,
  down,
  onSort,
}: {
  staged: boolean
  sort: Sort
  down: boolean
  onSort: (sort: Sort) => void
}) {
  const head = (by: Sort, look: string) => (
    <SortHead
      says={SORTS[by].says}
      way={sort !== by || by === 'order' ? null : down ? 'down' : 'up'}
      onSort={() => onSort(by)}
      explains={by === 'stage' || by === 'overrides' ? EXPLAINED[by] : undefined}
      className={look}
    />
  )
  return (
    <HeadRow
      className={clsx(
        COLUMNS,
        staged ? STAGED : UNSTAGED,
        'h-[26px] border-line border-b pr-2.5 text-[11px] text-ink-3',
      )}
    >
      {head('order', 'pr-3 text-right')}
      {head('name', '')}
      {head('mod', 'max-lg:hidden')}
      {head('overrides', 'max-lg:hidden')}
      {staged && head('stage', 'max-lg:hidden')}
      <ColumnHead explains={EXPLAINED.far}>how far</ColumnHead>
      <ColumnHead className="text-right">on</ColumnHead>
    </HeadRow>
  )
}

interface RowProps {
  /** Whether plugins of several stages are there: else the column says nothing. */
  staged: boolean
  plugin: PluginView
  active: boolean
  troubles: readonly Schema['TroubleView'][]
  onSwitch: (on: boolean) => void
}

/** A plugin in its columns. */
export function PluginCells({ staged, plugin: p, active, troubles, onSwitch }: RowProps) {
  return (
    <div
      className={clsx(
        COLUMNS,
        staged ? STAGED : UNSTAGED,
        'h-full pr-2.5',
        p.own && 'bg-sunk/50',
        !p.on && 'text-ink-2',
      )}
    >
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
      {staged && <Cell className="num text-ink-2 max-lg:hidden">{p.own ? '' : p.stage}</Cell>}
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
