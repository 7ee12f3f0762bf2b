import clsx from 'clsx'
import { ColumnHead, HeadRow } from '../ui/Cell'
import { EXPLAINED } from '../ui/explained'
import { ResizeHandle } from '../ui/list/ResizeHandle'
import { ContextMenu } from '../ui/Menu'
import { GRID, NARROW, RIGHT } from './LayerRows'
import { COLUMNS, type Column, SORTS } from './rows'
import { NARROWEST, nudged, type Shown, WIDEST } from './shown'

const EXPLAINS: Partial<Record<Column, string>> = {
  bar: EXPLAINED.bar,
  way: EXPLAINED.far,
  contested: EXPLAINED.contested,
}

/** The names of the columns; each can be made wider, moved and hidden. */
export function Head({ shown, onShow }: { shown: Shown; onShow: (change: Partial<Shown>) => void }) {
  const { sort, columns, widths } = shown
  const move = (c: Column, by: -1 | 1) => onShow({ columns: nudged(columns, c, by) })
  const usual = (c: Column) => {
    const { [c]: _, ...others } = widths
    onShow({ widths: others })
  }
  return (
    <HeadRow className={clsx(GRID, 'h-[26px] border-line border-b pr-2.5 text-[11px] text-ink-3')}>
      <ColumnHead className="max-lg:hidden">
        <span className="sr-only">section</span>
        {sort !== 'order' && (
          <button
            type="button"
            className="ml-2 min-h-6 text-woad underline"
            onClick={() => onShow({ sort: 'order' })}
          >
            install order
          </button>
        )}
      </ColumnHead>
      <ColumnHead className="pr-3 text-right">layer</ColumnHead>
      <ColumnHead>mod{sort !== 'order' && `, by ${SORTS[sort].name}`}</ColumnHead>
      {columns.map((c, i) => (
        <ContextMenu
          key={c}
          acts={() => [
            ...(i > 0 ? [{ label: 'Move it to the left', run: () => move(c, -1) }] : []),
            ...(i < columns.length - 1 ? [{ label: 'Move it to the right', run: () => move(c, 1) }] : []),
            ...(widths[c] === undefined ? [] : [{ label: 'Its usual width', run: () => usual(c) }]),
            { label: 'Hide it', run: () => onShow({ columns: columns.filter((x) => x !== c) }) },
          ]}
        >
          <ColumnHead
            explains={EXPLAINS[c]}
            className={clsx(
              'relative truncate',
              RIGHT.has(c) ? 'text-right' : c !== 'bar' && 'pl-3',
              !NARROW.has(c) && 'max-lg:hidden',
            )}
          >
            {COLUMNS[c].name}
            <ResizeHandle
              label={`Width of ${COLUMNS[c].name}`}
              width={widths[c] ?? COLUMNS[c].width}
              narrowest={NARROWEST}
              widest={WIDEST}
              onWidth={(width) => onShow({ widths: { ...widths, [c]: width } })}
              onNudge={(by) => move(c, by)}
            />
          </ColumnHead>
        </ContextMenu>
      ))}
      <ColumnHead className="text-right">on</ColumnHead>
    </HeadRow>
  )
}
