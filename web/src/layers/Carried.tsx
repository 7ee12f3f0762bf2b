import { type ReactNode, useState } from 'react'
import type { Schema } from '../api/client'
import { List, type ListProps } from '../ui/list/List'
import type { Carried as OnTheirWay } from '../ui/list/places'
import { count } from '../ui/text'
import { type LayerChange, usePreview } from './queries'
import type { LayerRow } from './rows'
import { differenceWords } from './sentence'

type CarryingListProps = Omit<ListProps<LayerRow>, 'onCarry' | 'overlay'> & {
  overlay: (height: number, carrying: boolean) => ReactNode
  /** What stands beside the list while rows are on their way. */
  beside: (carried: OnTheirWay) => ReactNode
}

/** The list of layers. It knows what is carried for itself alone: the rest of the screen stays as it is meanwhile. */
export function CarryingList({ overlay, beside, ...list }: CarryingListProps) {
  const [carried, setCarried] = useState<OnTheirWay | null>(null)
  return (
    <>
      <List {...list} onCarry={setCarried} overlay={(height) => overlay(height, carried !== null)} />
      {carried && beside(carried)}
    </>
  )
}

/** While layers are carried: what dropping them there would change. */
export function Carried({
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
  carried: OnTheirWay
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
