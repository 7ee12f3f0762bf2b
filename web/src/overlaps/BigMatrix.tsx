import { Grid3x3 } from 'lucide-react'
import { useMemo, useState } from 'react'
import type { Schema } from '../api/client'
import { hasWords } from '../frame/search'
import { SearchField } from '../ui/SearchField'
import { Segments } from '../ui/Segments'
import { Empty, Failed, Loading } from '../ui/States'
import { count, number } from '../ui/text'
import { cellAt, cellSize, pairsByPaths, shades } from './matrix'
import { type Kind, useBigMatrix } from './queries'

/** Rows at least so high have their names beside them, in pixels; and how much room those have. */
const NAMED = 13
const NAMES = 260
/** How many pairs the table behind the picture lists. */
const LISTED = 300

/**
 * Who collides with whom among hundreds of mods, as a picture: a square for each pair, the darker the more paths. Those
 * that collide with one another stand together, or the highest first.
 */
export function BigMatrix({
  workspace,
  kind,
  onPair,
}: {
  workspace: number
  kind: readonly Kind[]
  onPair: (over: number, under: number) => void
}) {
  const [grouped, setGrouped] = useState(true)
  const [find, setFind] = useState('')
  const matrix = useBigMatrix(workspace, kind, grouped)
  if (matrix.isPending)
    return (
      <div className="card flex-1">
        <Loading what="who collides with whom" />
      </div>
    )
  if (matrix.isError) return <Failed error={matrix.error} retry={() => matrix.refetch()} />
  const m = matrix.data
  if (m.cells.length === 0)
    return (
      <div className="card flex-1">
        <Empty icon={Grid3x3} title="No two mods collide here">
          Take a criterion away to see more.
        </Empty>
      </div>
    )
  return (
    <div className="card flex min-h-0 flex-1 flex-col overflow-hidden">
      <div className="flex flex-wrap items-center gap-2 border-line border-b px-3 py-1.5">
        <SearchField label="Find a mod in the picture" value={find} onChange={setFind} />
        <Segments
          label="In which order"
          value={grouped ? 'groups' : 'layers'}
          onChange={(v) => setGrouped(v === 'groups')}
          options={[
            { value: 'groups', label: 'Those together that collide' },
            { value: 'layers', label: 'The highest first' },
          ]}
        />
        <span className="ml-auto text-ink-2">
          {count(m.mods.length, 'mod')}, {count(m.cells.length, 'pair')}
          {m.more > 0 && `; ${count(m.more, 'mod')} with fewer left out`}
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-auto p-3">
        <Picture matrix={m} find={find} onPair={onPair} />
        <PairTable matrix={m} find={find} onPair={onPair} />
      </div>
    </div>
  )
}

interface PartProps {
  matrix: Schema['MatrixView']
  find: string
  onPair: (over: number, under: number) => void
}

function Picture({ matrix: m, find, onPair }: PartProps) {
  const [at, setAt] = useState<{ row: number; column: number } | null>(null)
  const size = cellSize(m.mods.length)
  const side = size * m.mods.length
  const named = size >= NAMED
  const drawn = useMemo(() => shades(m, size), [m, size])
  const cells = useMemo(() => new Map(m.cells.map((c) => [`${c.over} ${c.under}`, c])), [m.cells])
  const found = find.trim() === '' ? [] : m.mods.flatMap((x, i) => (hasWords(find, [x.name]) ? [i] : []))
  const of = (p: { row: number; column: number } | null) => {
    const [over, under] = [p && m.mods[p.row], p && m.mods[p.column]]
    return over && under ? { over, under, cell: cells.get(`${over.mod} ${under.mod}`) } : null
  }
  const place = (e: React.MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect()
    return cellAt(e.clientX - box.left, e.clientY - box.top, size, m.mods.length)
  }
  const pointed = of(at)
  return (
    <>
      <p role="status" className="mb-1.5 min-h-[19px] text-ink-2">
        {pointed?.cell
          ? `${pointed.over.name} covers ${pointed.under.name} in ${count(pointed.cell.paths, 'path')}, ${number(pointed.cell.differs)} of other content.`
          : pointed
            ? `${pointed.over.name} covers nothing of ${pointed.under.name}.`
            : found.length > 0
              ? `${m.mods[found[0] as number]?.name}${found.length > 1 ? ` and ${found.length - 1} more` : ''} marked.`
              : 'The row covers (overwrites) the column; the darker, the more paths. The table below has the same.'}
      </p>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the table below does the same by keyboard */}
      <svg
        width={side + (named ? NAMES : 0)}
        height={side}
        role="img"
        aria-label="Which mods collide with which; the table below tells the same"
        onMouseMove={(e) => setAt(place(e))}
        onMouseLeave={() => setAt(null)}
        onClick={(e) => {
          const p = of(place(e))
          if (p?.cell) onPair(p.over.mod, p.under.mod)
        }}
        className="cursor-crosshair bg-paper"
      >
        <title>Which mods collide with which</title>
        {found.map((i) => (
          <g key={i} className="fill-ochre-soft">
            <rect x={0} y={i * size} width={side} height={size} />
            <rect x={i * size} y={0} width={size} height={side} />
          </g>
        ))}
        {m.mods.map((x, i) => (
          <rect key={x.mod} x={i * size} y={i * size} width={size} height={size} className="fill-line" />
        ))}
        {drawn.map((shade) => (
          <path
            key={`${shade.differs} ${shade.opacity}`}
            d={shade.path}
            className={shade.differs ? 'fill-woad' : 'fill-ink-3'}
            opacity={shade.opacity}
          />
        ))}
        {named &&
          m.mods.map((x, i) => (
            <text
              key={x.mod}
              x={side + 8}
              y={(i + 0.5) * size}
              dominantBaseline="central"
              className="fill-ink-2 text-[12px]"
            >
              {x.name}
            </text>
          ))}
        {at && (
          <g className="pointer-events-none fill-none stroke-ink" strokeWidth={1}>
            <rect x={0} y={at.row * size} width={side} height={size} opacity={0.35} />
            <rect x={at.column * size} y={0} width={size} height={side} opacity={0.35} />
          </g>
        )}
      </svg>
    </>
  )
}

/** The same as a table: the pairs with most paths first. */
function PairTable({ matrix: m, find, onPair }: PartProps) {
  const pairs = pairsByPaths(m, find)
  return (
    <details className="mt-3">
      <summary className="w-fit cursor-pointer text-ink-2">As a table: {count(pairs.length, 'pair')}</summary>
      <table className="mt-1.5 w-full max-w-[860px]">
        <thead>
          <tr className="text-left text-[11px] text-ink-3">
            <th className="py-1 font-normal">covers</th>
            <th className="py-1 font-normal">is covered</th>
            <th className="py-1 text-right font-normal">paths</th>
            <th className="py-1 text-right font-normal">of other content</th>
          </tr>
        </thead>
        <tbody>
          {pairs.slice(0, LISTED).map((p) => (
            <tr key={`${p.over.mod} ${p.under.mod}`} className="border-line border-t">
              <td className="py-0.5 pr-3">{p.over.name}</td>
              <td className="py-0.5 pr-3">{p.under.name}</td>
              <td className="num py-0.5 text-right">
                <button
                  type="button"
                  onClick={() => onPair(p.over.mod, p.under.mod)}
                  aria-label={`${count(p.paths, 'path')} of ${p.over.name} and ${p.under.name}: show them`}
                  className="min-h-6 min-w-6 text-woad underline"
                >
                  {number(p.paths)}
                </button>
              </td>
              <td className="num py-0.5 text-right">{number(p.differs)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {pairs.length > LISTED && <p className="mt-1 text-ink-2">The first {number(LISTED)}.</p>}
    </details>
  )
}
