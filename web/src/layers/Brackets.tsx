import { ChevronDown, ChevronRight } from 'lucide-react'
import type { Schema } from '../api/client'
import { count } from '../ui/text'
import type { LayerRow } from './rows'

interface BracketsProps {
  rows: readonly LayerRow[]
  sections: readonly Schema['SectionView'][]
  rowHeight: number
  onFold: (section: number) => void
  onPick: (section: number) => void
}

/** The sections as brackets in the gutter: a name along the layers that it holds, and a handle that folds them. */
export function Brackets({ rows, sections, rowHeight, onFold, onPick }: BracketsProps) {
  return (
    <div className="pointer-events-none absolute top-0 left-0 z-[5] w-9 max-lg:hidden">
      {sections.map((s) => {
        const first = rows.findIndex((r) => r.layer?.section === s.id || r.folded?.section.id === s.id)
        if (first < 0) return null
        const last = rows.findLastIndex((r) => r.layer?.section === s.id || r.folded?.section.id === s.id)
        const folded = rows[first]?.folded
        const height = (last - first + 1) * rowHeight
        const layers = folded ? folded.layers.length : last - first + 1
        return (
          <div
            key={s.id}
            className="absolute left-2 flex w-[19px] flex-col items-center overflow-hidden rounded-l-[5px] border-2 border-line-2 border-r-0"
            style={{ top: first * rowHeight + 3, height: height - 6 }}
          >
            <button
              type="button"
              tabIndex={-1}
              aria-expanded={!folded}
              aria-label={`${folded ? 'Unfold' : 'Fold'} ${s.name}, ${count(layers, 'layer')}`}
              onClick={() => onFold(s.id)}
              className="pointer-events-auto shrink-0 rounded text-ink-3 hover:bg-sunk hover:text-ink"
            >
              {folded ? <ChevronRight size={14} /> : <ChevronDown size={14} />}
            </button>
            {!folded && (
              <button
                type="button"
                tabIndex={-1}
                title={`${s.name}: choose its ${count(layers, 'layer')}`}
                onClick={() => onPick(s.id)}
                className="pointer-events-auto min-h-0 flex-1 rotate-180 truncate font-semibold text-[11px] text-ink-2 [writing-mode:vertical-rl] hover:text-woad"
              >
                {s.name}
              </button>
            )}
          </div>
        )
      })}
    </div>
  )
}
