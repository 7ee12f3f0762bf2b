import { useMemo } from 'react'
import type { Schema } from '../api/client'
import { type Thread, Threads } from '../ui/Threads'
import { number } from '../ui/text'
import { BRACKETS, GUTTER, ROW } from './LayerRows'
import { useRelations } from './queries'
import type { LayerRow } from './rows'

/** Threads from the selected layer to those that it covers and that cover it. */
export function Arcs({
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
