import clsx from 'clsx'
import type { CSSProperties } from 'react'
import type { Schema } from '../api/client'
import { Cell } from '../ui/Cell'
import { FileBar } from '../ui/FileBar'
import { HowFar, modDetail } from '../ui/HowFar'
import { Tag } from '../ui/Tag'
import { bytes, count, number, when } from '../ui/text'
import { addsNothing } from './filter'
import { LayerSwitch } from './LayerSwitch'
import { COLUMNS, type Column, type LayerRow } from './rows'
import type { Shown } from './shown'

/** What a layer that was generated is called. */
const KINDS: Record<string, string> = {
  patch: 'patch',
  merge: 'merge',
  combined: 'combined files',
  tool: 'output of a tool',
}
/** How high a row is, in pixels. */
export const ROW = 34
/** How wide the space before the numbers is, for threads and brackets, in pixels. */
export const GUTTER = 112
/** Of that, what the brackets of the sections take. */
export const BRACKETS = 26
export const GRID = 'grid grid-cols-(--columns) items-center max-lg:grid-cols-(--narrow)'

/** The widths of the columns that are shown. */
export function gridOf(columns: readonly Column[], widths: Shown['widths']): CSSProperties {
  const wide = columns.map((c) => `${widths[c] ?? COLUMNS[c].width}px`).join(' ')
  const narrow = columns.flatMap((c) => (c === 'bar' ? ['96px'] : c === 'way' ? ['64px'] : [])).join(' ')
  return {
    '--columns': `${GUTTER}px 36px minmax(0,1fr) ${wide} 44px`,
    '--narrow': `44px minmax(0,1fr) ${narrow} 44px`,
  } as CSSProperties
}

export const RIGHT: ReadonlySet<Column> = new Set(['files', 'size', 'contested'])
export const NARROW: ReadonlySet<Column> = new Set(['bar', 'way'])

interface RowProps {
  workspace: number
  row: LayerRow
  view: Schema['LayersView']
  columns: readonly Column[]
  active: boolean
  onSwitch: (mods: number[], on: boolean) => void
}

/** A layer, a folded section or the game, in its columns. */
export function Row({ workspace, row, view, columns, active, onSwitch }: RowProps) {
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
