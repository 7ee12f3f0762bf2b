import { useEffect, useRef } from 'react'
import type { Schema } from '../api/client'
import { OrderlessList } from '../ui/OrderlessList'
import { count, number } from '../ui/text'
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
  const rows: Line[] = lines.map((l) => ({ ...l, id: l.key }))
  return (
    <OrderlessList
      label="Records"
      rows={rows}
      rowHeight={46}
      selected={selected}
      onSelect={onSelect}
      head={
        <p className="h-[26px] shrink-0 border-line border-b px-3 pt-1.5 text-[11px] text-ink-3">
          {count(total, 'record')}
        </p>
      }
      renderRow={(l) => (
        <>
          <RecordRow line={l} />
          {l === rows.at(-1) && rows.length < total && <Nearing more={more} at={rows.length} />}
        </>
      )}
    />
  )
}

// the last row is drawn a little before it is seen
function Nearing({ more, at }: { more: () => void; at: number }) {
  const latest = useRef(more)
  latest.current = more
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for each length of the list
  useEffect(() => latest.current(), [at])
  return null
}

function RecordRow({ line: l }: { line: Schema['RecordLine'] }) {
  const state = l.state && (l.state === 'NEEDS_YOU' ? `${number(l.asked)} asked` : STATES[l.state].short)
  return (
    <div className="flex h-full items-center gap-2 px-3">
      <span className="min-w-0 flex-1">
        <span className="block truncate font-semibold">{l.label}</span>
        <span className="block truncate text-[11.5px] text-ink-2">
          {l.title} · {l.key}
        </span>
      </span>
      <span className="num max-w-[92px] text-right text-[11.5px] text-ink-2 leading-tight">
        {l.lost > 0 ? (
          <span className="text-ochre">{l.lost} lost</span>
        ) : (
          <span className="block truncate">{state ?? 'one plugin'}</span>
        )}
        {l.lost > 0 && state && <span className="block truncate">{state}</span>}
      </span>
    </div>
  )
}
