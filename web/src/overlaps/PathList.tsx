import clsx from 'clsx'
import { useCallback, useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { Cell, ColumnHead, HeadRow } from '../ui/Cell'
import { copyAct, useCopy } from '../ui/copy'
import { Hint } from '../ui/Hint'
import { List } from '../ui/list/List'
import type { ListRow } from '../ui/list/rows'
import { PathText } from '../ui/PathText'
import { Tag } from '../ui/Tag'
import { bytes } from '../ui/text'
import { Holders, WayMark } from './PathRow'

const ROW = 32
const COLUMNS =
  'grid grid-cols-[minmax(0,1.3fr)_minmax(0,0.8fr)_minmax(0,1.2fr)_72px] items-center gap-3 px-3.5 max-lg:grid-cols-[minmax(0,1.3fr)_minmax(0,1fr)]'

interface Row extends ListRow {
  path: Schema['PathView']
}

/** Contested paths one under the other, each with the file in play and those below it. */
export function PathList({
  workspace,
  paths,
  total,
  more,
}: {
  workspace: number
  paths: readonly Schema['PathView'][]
  total: number
  more: () => void
}) {
  const [selected, select] = useState<string | null>(null)
  const go = useNavigate()
  const copy = useCopy()
  const rows = useMemo<Row[]>(() => paths.map((p) => ({ id: p.path, label: p.path, path: p })), [paths])
  const base = `/workspaces/${workspace}`
  const open = (path: string) => go(`${base}/overlaps/path?at=${encodeURIComponent(path)}`)
  return (
    <List
      label="Contested paths"
      rows={rows}
      rowHeight={ROW}
      selected={selected}
      onSelect={select}
      onOpen={(row) => open(row.id)}
      onNearEnd={() => rows.length < total && more()}
      acts={([id]) => {
        const path = rows.find((r) => r.id === id)?.path
        if (!path) return []
        const [top] = path.holders
        return [
          { label: 'Open the path', run: () => open(path.path) },
          ...(top
            ? [{ label: `Show ${top.name} in Layers`, run: () => go(`${base}/layers/${top.mod}`) }]
            : []),
          copyAct(copy, 'the path', path.path),
        ]
      }}
      head={
        <HeadRow className={clsx(COLUMNS, 'h-[26px] border-line border-b text-[11px] text-ink-3')}>
          <ColumnHead>path</ColumnHead>
          <ColumnHead>in play</ColumnHead>
          <ColumnHead className="max-lg:hidden">below it</ColumnHead>
          <ColumnHead className="text-right max-lg:hidden">size</ColumnHead>
        </HeadRow>
      }
      renderRow={useCallback((row: Row) => <PathCells workspace={workspace} path={row.path} />, [workspace])}
    />
  )
}

function PathCells({ workspace, path: p }: { workspace: number; path: Schema['PathView'] }) {
  const [top, ...below] = p.holders
  if (!top) return null
  // three names fit, but not beside the words that there are more
  const fits = below.length > 3 ? 2 : 3
  return (
    <div className={clsx(COLUMNS, 'h-full')}>
      <Cell className="min-w-0">
        <Link
          to={`/workspaces/${workspace}/overlaps/path?at=${encodeURIComponent(p.path)}`}
          className="flex min-w-0 items-center gap-2 hover:underline"
        >
          <PathText path={p.path} most={52} className="truncate" />
          {p.ruled && <Tag>ruled</Tag>}
        </Link>
      </Cell>
      <Cell className="min-w-0">
        <Hint
          text={
            <>
              <p className="mb-1 font-semibold">{p.why}</p>
              <Holders path={p} />
            </>
          }
        >
          <Link
            to={`/workspaces/${workspace}/layers/${top.mod}`}
            className="flex min-w-0 items-center gap-2 font-medium hover:underline"
          >
            <WayMark way={top.way} />
            <span className="truncate">{top.name}</span>
            {top.pack && <small className="shrink-0 text-ink-3">packed</small>}
          </Link>
        </Hint>
      </Cell>
      <Cell className="flex min-w-0 items-center gap-3 text-ink-2 max-lg:hidden">
        {below.slice(0, fits).map((h) => (
          <span key={`${h.mod} ${h.pack ?? ''}`} className="flex min-w-0 items-center gap-1.5">
            <WayMark way={h.way} />
            <span className="truncate">{h.name}</span>
          </span>
        ))}
        {below.length > fits && <span className="shrink-0">and {below.length - fits} more</span>}
      </Cell>
      <Cell className="num text-right text-ink-2 max-lg:hidden">{bytes(top.sizeBytes)}</Cell>
    </div>
  )
}
