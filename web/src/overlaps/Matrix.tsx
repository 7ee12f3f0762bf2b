import { Grid3x3 } from 'lucide-react'
import { Empty, Failed, Loading } from '../ui/States'
import { count, number } from '../ui/text'
import { type Kind, useMatrix } from './queries'

/** Who covers whom in how many paths: the row covers the column. A number leads to the paths of the two. */
export function Matrix({
  workspace,
  kind,
  onPair,
}: {
  workspace: number
  kind: readonly Kind[]
  onPair: (over: number, under: number) => void
}) {
  const matrix = useMatrix(workspace, kind)
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
  const cells = new Map(m.cells.map((c) => [`${c.over} ${c.under}`, c]))
  const most = Math.max(...m.cells.map((c) => c.paths))
  return (
    <div className="card min-h-0 flex-1 overflow-auto">
      <table className="border-separate border-spacing-0">
        <caption className="sr-only">Rows cover columns; a number is how many paths</caption>
        <thead>
          <tr>
            <th className="sticky top-0 left-0 z-20 min-w-[210px] border-line border-b bg-card px-3.5 text-left align-bottom font-normal text-[11px] text-ink-3">
              the row covers the column
              {m.more > 0 && <span className="block">{count(m.more, 'mod')} with fewer are left out</span>}
            </th>
            {m.mods.map((c) => (
              <th
                key={c.mod}
                scope="col"
                className="sticky top-0 z-10 h-[118px] w-9 min-w-9 border-line border-b bg-card align-bottom font-normal"
              >
                <span className="mx-auto block max-h-[112px] rotate-180 truncate pt-1 text-left text-[12px] [writing-mode:vertical-rl]">
                  {c.name}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {m.mods.map((r) => (
            <tr key={r.mod}>
              <th
                scope="row"
                className="sticky left-0 z-10 max-w-[240px] truncate border-line border-b bg-card px-3.5 text-left font-medium"
              >
                <span className="num mr-2 inline-block w-7 text-right font-normal text-ink-3">
                  {r.position}
                </span>
                {r.name}
              </th>
              {m.mods.map((c) => {
                const cell = cells.get(`${r.mod} ${c.mod}`)
                return (
                  <td key={c.mod} className="h-8 border-line border-b border-l p-0 text-center">
                    {r.mod === c.mod ? (
                      <span className="block h-full bg-sunk" />
                    ) : (
                      cell && (
                        <button
                          type="button"
                          onClick={() => onPair(r.mod, c.mod)}
                          aria-label={`${r.name} covers ${c.name} in ${count(cell.paths, 'path')}, ${number(cell.differs)} of other content: show them`}
                          title={`${r.name} over ${c.name}: ${count(cell.paths, 'path')}, ${number(cell.differs)} of other content`}
                          className="num relative h-full w-full hover:bg-woad-soft"
                        >
                          <span
                            aria-hidden="true"
                            className={`absolute bottom-0 left-0 h-1 ${cell.differs === 0 ? 'way-twin' : 'bg-woad'}`}
                            style={{ width: `${Math.max(8, (100 * cell.paths) / most)}%` }}
                          />
                          {number(cell.paths)}
                        </button>
                      )
                    )}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
