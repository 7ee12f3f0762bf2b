import { useCallback, useMemo } from 'react'
import type { Schema } from '../api/client'
import { Cell, ColumnHead, HeadRow } from '../ui/Cell'
import { copyAct, useCopy } from '../ui/copy'
import { List } from '../ui/list/List'
import { count, number } from '../ui/text'
import { spoken } from './keys'
import { STATES } from './states'

type Line = Schema['RecordLine'] & { id: string }

/** Records to choose from; more are asked for as the end comes near. */
export function RecordList({
  lines,
  total,
  selected,
  more,
  onSelect,
}: {
  lines: readonly Schema['RecordLine'][]
  total: number
  selected: string | null
  more: () => void
  onSelect: (key: string) => void
}) {
  const rows = useMemo<Line[]>(() => lines.map((l) => ({ ...l, id: l.key })), [lines])
  const copy = useCopy()
  return (
    <List
      label="Records"
      rows={rows}
      rowHeight={46}
      selected={selected}
      onSelect={onSelect}
      onNearEnd={() => rows.length < total && more()}
      acts={([key]) => {
        const line = rows.find((r) => r.id === key)
        return line ? [copyAct(copy, 'its name', line.label), copyAct(copy, 'its key', line.key)] : []
      }}
      head={
        <HeadRow className="h-[26px] border-line border-b px-3 pt-1.5 text-[11px] text-ink-3">
          <ColumnHead>{count(total, 'record')}</ColumnHead>
          <ColumnHead className="sr-only">how it is</ColumnHead>
        </HeadRow>
      }
      renderRow={useCallback((l: Line) => <RecordRow line={l} />, [])}
    />
  )
}

function RecordRow({ line: l }: { line: Schema['RecordLine'] }) {
  const state = l.state && (l.state === 'NEEDS_YOU' ? `${number(l.asked)} asked` : STATES[l.state].short)
  return (
    <div className="flex h-full items-center gap-2 px-3">
      <Cell className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{l.label}</span>
        <span className="block truncate text-[11.5px] text-ink-2">
          {spoken(l.key) === l.label ? l.title : `${l.title} · ${spoken(l.key)}`}
        </span>
      </Cell>
      <Cell className="num max-w-[92px] text-right text-[11.5px] text-ink-2 leading-tight">
        {l.lost > 0 ? (
          <span className="text-ochre">{l.lost} lost</span>
        ) : (
          <span className="block truncate">{state ?? 'one plugin'}</span>
        )}
        {l.lost > 0 && state && <span className="block truncate">{state}</span>}
      </Cell>
    </div>
  )
}
