import { hierarchy, treemap, treemapSquarify } from 'd3-hierarchy'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import type { Schema } from '../api/client'
import { bytes, count, number } from '../ui/text'
import { largest, type Tile } from './space'

const WIDTH = 920
const HEIGHT = 340
/** Of a tile, so that a name still fits into it, in pixels. */
const NAMED = { width: 74, height: 26 }
/** How many rows the table behind the picture has. */
const LISTED = 200

/** Where space goes: a tile for each mod, as large as its files. */
export function SpaceMap({ workspace, mods }: { workspace: number; mods: readonly Schema['ModView'][] }) {
  const tiles = useMemo(() => largest(mods), [mods])
  const [at, setAt] = useState<Tile | null>(null)
  const go = useNavigate()
  const laid = useMemo(
    () =>
      treemap<{ children?: readonly Tile[] } | Tile>()
        .tile(treemapSquarify)
        .size([WIDTH, HEIGHT])
        .paddingInner(2)
        .round(true)(
          hierarchy<{ children?: readonly Tile[] } | Tile>({ children: tiles }).sum((t) =>
            'sizeBytes' in t ? t.sizeBytes : 0,
          ),
        )
        .leaves(),
    [tiles],
  )
  const total = mods.reduce((n, m) => n + m.sizeBytes, 0)
  if (total === 0) return null
  const pointed = (target: EventTarget) => {
    const tile = (target as Element).closest<SVGElement>('[data-tile]')?.dataset.tile
    return tiles.find((t) => String(t.mod ?? 'rest') === tile) ?? null
  }
  const open = (t: Tile) => t.mod !== null && go(`/workspaces/${workspace}/library/${t.mod}/files`)
  return (
    <section className="card px-4 py-3.5" aria-label="Where space goes">
      <h2>Where space goes</h2>
      <p role="status" className="min-h-[19px] text-ink-2">
        {at
          ? `${at.name}: ${bytes(at.sizeBytes)} in ${count(at.files, 'file')}, ${share(at.sizeBytes, total)} of all mods.`
          : `${count(mods.length, 'mod')}, ${bytes(total)} unpacked. Point at a tile; a click opens the mod.`}
      </p>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the table below does the same by keyboard */}
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label="Mods by the space of their files; the table below tells the same"
        className="mt-1.5 w-full"
        onMouseMove={(e) => setAt(pointed(e.target))}
        onMouseLeave={() => setAt(null)}
        onClick={() => at && open(at)}
      >
        <title>Where space goes</title>
        {laid.map((leaf) => {
          const t = leaf.data as Tile
          const [width, height] = [leaf.x1 - leaf.x0, leaf.y1 - leaf.y0]
          return (
            <g key={t.mod ?? 'rest'} data-tile={t.mod ?? 'rest'} className="cursor-pointer">
              <rect
                x={leaf.x0}
                y={leaf.y0}
                width={width}
                height={height}
                rx={3}
                className={
                  t === at ? 'fill-ochre-soft stroke-ochre' : t.mod === null ? 'fill-sunk' : 'fill-woad-soft'
                }
              />
              {width > NAMED.width && height > NAMED.height && (
                <foreignObject
                  x={leaf.x0}
                  y={leaf.y0}
                  width={width}
                  height={height}
                  className="pointer-events-none"
                >
                  <div className="truncate px-1.5 pt-1 text-[11.5px] leading-tight">
                    <b className="block truncate font-medium">{t.name}</b>
                    {height > 2 * NAMED.height && (
                      <span className="num text-ink-2">{bytes(t.sizeBytes)}</span>
                    )}
                  </div>
                </foreignObject>
              )}
            </g>
          )
        })}
      </svg>
      <details className="mt-2">
        <summary className="w-fit cursor-pointer text-ink-2">As a table</summary>
        <table className="mt-1 w-full">
          <thead>
            <tr className="text-left text-[11px] text-ink-3">
              <th className="py-1 font-normal">mod</th>
              <th className="py-1 text-right font-normal">files</th>
              <th className="py-1 text-right font-normal">size</th>
              <th className="py-1 text-right font-normal">of all</th>
            </tr>
          </thead>
          <tbody>
            {tiles.slice(0, LISTED).map((t) => (
              <tr key={t.mod ?? 'rest'} className="border-line border-t">
                <td className="max-w-0 truncate py-0.5 pr-3">
                  {t.mod === null ? (
                    t.name
                  ) : (
                    <Link to={`/workspaces/${workspace}/library/${t.mod}/files`} className="hover:underline">
                      {t.name}
                    </Link>
                  )}
                </td>
                <td className="num py-0.5 text-right">{number(t.files)}</td>
                <td className="num py-0.5 text-right">{bytes(t.sizeBytes)}</td>
                <td className="num py-0.5 text-right">{share(t.sizeBytes, total)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  )
}

function share(part: number, of: number): string {
  const percent = (100 * part) / of
  return percent < 0.1 ? 'less than 0.1 %' : `${percent.toFixed(1)} %`
}
